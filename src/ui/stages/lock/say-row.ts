import type { LockingRow } from '@/core/design';

export const routeOf = ({ signal, exit }: LockingRow): string => `${signal.name} → ${exit}`;

/** How points have to lie, as locking tables write it: N for normal, which is straight, R for reverse. */
export const pointsOf = ({ points }: LockingRow): string[] =>
  points.map(({ name, position }) => `${name} ${position === 'straight' ? 'N' : 'R'}`);

/** Blocks that must be free, with those of its overlap. */
export const freeOf = ({ free, overlap }: LockingRow): string =>
  [...free.map(({ name }) => name), ...overlap.map(({ name }) => `${name} beyond`)].join(', ');

/** Whether something holds others off at a side. */
export const isGuarded = (by: LockingRow['flank'][number]['guards'][number]['by']): boolean =>
  by === 'signal' || by === 'points';

/** What holds others off at its sides, each once. */
export const flankOf = ({ flank }: LockingRow): string =>
  [...new Set(flank.flatMap(({ guards }) => guards.map(({ short }) => short)))].join(', ');

/** The routes it must not be cleared with; all those of one signal under its name alone. */
export function conflictsOf(
  { conflicts }: LockingRow,
  rows: readonly LockingRow[],
): { says: string; rows: number[] }[] {
  const bySignal = new Map<string, number[]>();
  for (const { row } of conflicts) {
    const { id } = rows[row]!.signal;
    bySignal.set(id, [...(bySignal.get(id) ?? []), row]);
  }
  return [...bySignal].flatMap(([signal, own]) => {
    const all = rows.filter((one) => one.signal.id === signal).length;
    if (own.length === all) return [{ says: rows[own[0]!]!.signal.name, rows: own }];
    return own.map((row) => ({ says: routeOf(rows[row]!), rows: [row] }));
  });
}

export const keepsOf = ({ keepsMs }: LockingRow): string => (keepsMs === undefined ? '–' : `${keepsMs / 1000} s`);

/** When its points may move again behind the train. */
export function releaseOf({ release }: LockingRow): string {
  const groups = new Map<string, string[]>();
  for (const { name, blocks, arrival } of release) {
    const free = blocks.length === 0 ? [] : [`${blocks.join(', ')} free`];
    const key = [...(arrival === undefined ? [] : [`nose at ${arrival}`]), ...free].join(' and ');
    groups.set(key, [...(groups.get(key) ?? []), name]);
  }
  return [...groups]
    .map(([when, names]) => `${names.join(', ')}: ${when === '' ? 'nothing holds it' : when}`)
    .join('; ');
}
