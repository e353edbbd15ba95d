import { memo, type ReactNode } from 'react';
import type { OutputKindId } from '@/core/kinds';
import type { LayoutDocument } from '@/core/survey';
import type { Placed } from './plan-labels';

/** A lamp with rays round it when lit, and with a plus in it when it is red for power; a bar that lies as the points lie, and none while they move. */
const MARKS: Record<string, ReactNode> = {
  lit: (
    <>
      <circle r="4" fill="var(--warn)" stroke="var(--ink)" />
      <path d="M0 -8V-6M0 6V8M-8 0H-6M6 0H8" stroke="var(--ink)" strokeWidth="1.3" />
    </>
  ),
  dark: <circle r="4" fill="var(--sheet)" stroke="var(--ink)" />,
  red: (
    <>
      <circle r="4.5" fill="var(--stop)" stroke="var(--ink)" />
      <path d="M-2 0H2M0 -2V2" stroke="var(--sheet)" strokeWidth="1.4" />
    </>
  ),
  straight: <Indicator bar="M-4 0H4" />,
  diverging: <Indicator bar="M-4 3L4 -3" />,
};

function Indicator({ bar }: { bar: string }) {
  return (
    <>
      <rect x="-7" y="-5" width="14" height="10" rx="2" fill="var(--ink)" />
      <path d={bar} stroke="var(--sheet)" strokeWidth="2.4" strokeLinecap="round" />
    </>
  );
}

/** How each kind of output that somebody chose is shown in the key: in words, and drawn within 30 by 16. */
export const OUTPUT_KEY: Partial<Record<OutputKindId, [string, ReactNode]>> = {
  power: [
    'No power',
    <path key="power" d="M0 8H30" stroke="var(--accent-band)" strokeWidth="12" strokeDasharray="6 5" />,
  ],
  lamp: [
    'Panel lamp, lit',
    <g key="lamp" transform="translate(15 8)">
      {MARKS.lit}
    </g>,
  ],
  indicator: [
    'Points indicator',
    <g key="indicator" transform="translate(15 8)">
      {MARKS.diverging}
    </g>,
  ],
};

/** What lamps and indicators show, beside the sensors and points that they belong to, as far as there is room. */
export const OutputMarks = memo(function OutputMarks({
  document,
  placed,
  shows,
}: {
  document: LayoutDocument;
  placed: Placed;
  shows: Record<string, string>;
}) {
  const things = [...document.sensors, ...document.turnouts, ...document.crossings];
  return things.map(({ id, name }) => {
    const shown = shows[id];
    const place = placed.shown.get(id);
    if (shown === undefined || !place) return null;
    return (
      <g key={id} transform={`translate(${place.x} ${place.y})`}>
        <title>{`${name}: ${shown}`}</title>
        {MARKS[shown]}
      </g>
    );
  });
});
