import { memo, type ReactNode } from 'react';
import { type MarkShape, OUTPUTS, type OutputKind, type OutputKindId } from '@/core/kinds';
import { names } from '@/core/patterns';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import type { Placed } from './plan-labels';

const KINDS = Object.entries<OutputKind>(OUTPUTS);

/** A mark, drawn of its shapes around its place. */
const Mark = ({ shapes }: { shapes: readonly MarkShape[] }) =>
  shapes.map(({ d, fill, stroke, width }) => (
    <path
      key={d}
      d={d}
      fill={fill ? `var(--${fill})` : 'none'}
      stroke={stroke && `var(--${stroke})`}
      strokeWidth={width}
      strokeLinecap={width && width < 4 ? 'round' : undefined}
    />
  ));

/** How a kind of output that somebody chose is shown in the key: in words, and drawn within 30 by 16; nothing for one that is not drawn. */
export function outputKey(kind: OutputKindId): [string, ReactNode][] {
  const { key, marks }: OutputKind = OUTPUTS[kind];
  if (!key) return [];
  const shapes = typeof key.mark === 'string' ? (marks?.[key.mark] ?? []) : key.mark;
  return [
    [
      key.says,
      <g key={kind} transform="translate(15 8)">
        <Mark shapes={shapes} />
      </g>,
    ],
  ];
}

/** What outputs show to people, beside the sensors, points and signals that they belong to, as far as there is room. */
export const OutputMarks = memo(function OutputMarks({
  document,
  placed,
  shows,
}: {
  document: LayoutDocument;
  placed: Placed;
  /** By their names in the rules. */
  shows: Record<string, string>;
}) {
  const things = [...document.sensors, ...document.turnouts, ...document.crossings, ...signalsOf(document)];
  return KINDS.flatMap(([kind, { marks }]) =>
    marks === undefined
      ? []
      : things.map((thing) => {
          const shown = shows[names.output(kind, thing)];
          const place = placed.shown.get(thing.id);
          if (shown === undefined || !place) return null;
          return (
            <g key={`${kind} ${thing.id}`} transform={`translate(${place.x} ${place.y})`}>
              <title>{`${thing.name}: ${shown}`}</title>
              <Mark shapes={marks[shown] ?? []} />
            </g>
          );
        }),
  );
});
