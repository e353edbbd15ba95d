import { memo } from 'react';
import type { Placed } from './plan-labels';

/** How long each block is, as an arrow from end to end with the length in its middle. */
export const LengthMarks = memo(function LengthMarks({ lengths }: { lengths: Placed['lengths'] }) {
  return [...lengths].map(([id, { from, to, x, y, text }]) => (
    <g key={id}>
      <path
        d={`M${from + 3} ${y}H${to - 3}M${from + 1} ${y + 4}L${from + 6} ${y - 4}M${to - 6} ${y + 4}L${to - 1} ${y - 4}`}
        stroke="var(--edge)"
        strokeWidth=".8"
      />
      <text x={x} y={y + 4} textAnchor="middle" style={{ fill: 'var(--ink2)' }}>
        {text}
      </text>
    </g>
  ));
});
