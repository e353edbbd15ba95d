import type { Placement } from '../model/placement';

/**
 * The plant alone under perfect protection, as a model for the Spin checker: each train is a number, its placement, and goes on
 * when no other stands in a block it would enter. Its states are those of `countBlockSteps` with every train told apart.
 */
export function writePlantPromela(trains: { placements: Placement[]; start: number }[]): string {
  const steps = trains.flatMap(({ placements }, t) =>
    placements.flatMap((placement, p) =>
      placement.advances.map(({ to }) => {
        const taken = trains.flatMap((other, o) =>
          o === t
            ? []
            : other.placements.flatMap((theirs, q) =>
                theirs.blocks.some((block) => placements[to]!.blocks.includes(block)) ? [`at${o} != ${q}`] : [],
              ),
        );
        return `  :: atomic { at${t} == ${p}${taken.map((free) => ` && ${free}`).join('')} -> at${t} = ${to} }`;
      }),
    ),
  );
  return [
    ...trains.map(({ start }, t) => `byte at${t} = ${start};`),
    'active proctype layout() {',
    'do',
    ...steps,
    '  od',
    '}',
    '',
  ].join('\n');
}
