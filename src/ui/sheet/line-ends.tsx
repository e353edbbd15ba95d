import { memo } from 'react';
import { type ShownUnit, TENTH_UM_PER_CM, TENTH_UM_PER_INCH, type TenthUm } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import type { GoesOn } from '@/core/track';
import { Pickable } from './pickable';
import type { SheetGeometry } from './sheet-geometry';

/** A slanted double stroke where a line is cut on paper and goes on elsewhere. */
export const LineEnds = memo(function LineEnds({
  document,
  geometry,
  onGoOn,
}: {
  document: LayoutDocument;
  geometry: SheetGeometry;
  /** Shows where the line goes on. */
  onGoOn?: (place: GoesOn) => void;
}) {
  return document.lines.flatMap((line) => {
    const drawn = geometry.drawn(line.id);
    return (
      [
        [drawn.cutAtStart, 0, 'start'],
        [drawn.cutAtEnd, line.length.tenthUm, 'end'],
      ] as const
    ).flatMap(([there, at, which]) => {
      if (there === undefined) return [];
      const { x, y } = geometry.at(line.id, at);
      if (!geometry.isNear(x)) return [];
      const outward = (which === 'start') === geometry.ascends(line.id) ? -1 : 1;
      return [
        <Pickable
          key={`${line.id} ${which}`}
          thing={line.id}
          label={`${line.name} goes on at ${there.at || 'its other end'}`}
          onPick={onGoOn && (() => onGoOn(there))}
        >
          <title>{`${line.name} goes on at ${there.at || 'its other end'}: click to go there`}</title>
          <rect
            data-end={`${line.id} ${at}`}
            x={outward < 0 ? x - 60 : x}
            y={y - 10}
            width="60"
            height="20"
            fill="transparent"
          />
          <path
            d={`M${x - 4} ${y + 8}L${x + 2} ${y - 8}M${x + 1} ${y + 8}L${x + 7} ${y - 8}`}
            stroke="var(--ink)"
            strokeWidth="1.6"
            transform={`translate(${outward * 3} 0)`}
          />
          <text
            x={x + outward * 12}
            y={y + 4}
            textAnchor={outward < 0 ? 'end' : 'start'}
            style={{ fill: 'var(--ink3)' }}
          >
            {there.at || (which === 'start' ? `from ${shortLength(line.length.tenthUm, document.shownUnit)}` : 'to 0')}
          </text>
        </Pickable>,
      ];
    });
  });
});

/** A figure in the unit of the ruler, or with the next larger unit when it has more than four digits. */
function shortLength(length: TenthUm, unit: ShownUnit): string {
  const value = length / (unit === 'cm' ? TENTH_UM_PER_CM : TENTH_UM_PER_INCH);
  if (value < 10_000) return String(Math.round(value));
  return unit === 'cm' ? `${Math.round(value / 100)} m` : `${Math.round(value / 12)} ft`;
}
