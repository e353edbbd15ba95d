import { scaleRatio, showLength, TENTH_UM_PER_FOOT, type TenthUm } from '../measure';
import type { Design } from './check-design';
import type { LockingRow } from './locking-table';

/** One rule of the prototype, held against every route that leads over points. */
export interface InterlockingCheck {
  /** Its paragraph in 49 CFR part 236. */
  paragraph: string;
  /** What it asks, paraphrased. */
  asks: string;
  /** Routes that do not meet it, by the ids of their rows, each with what is so. Empty where all do. */
  fails: { row: string; says: string }[];
  /** How many routes it was held against. */
  of: number;
}

/** Past the signal, in feet of the prototype: 49 CFR 236.302. */
const EFFECTIVE_WITHIN_FT = 13;

/**
 * What the prototype asks of an interlocking, read off the track and the rules as they stand; 49 CFR 236, paraphrased by us, from memory. A model
 * may choose otherwise.
 */
export function interlockingChecks(design: Design, rows: readonly LockingRow[]): InterlockingCheck[] {
  const over = rows.filter(({ release, never }) => release.length > 0 && !never);
  const check = (
    paragraph: string,
    asks: string,
    of: readonly LockingRow[],
    fails: (row: LockingRow) => string | undefined,
  ): InterlockingCheck => ({
    paragraph,
    asks,
    of: of.length,
    fails: of.flatMap((row) => {
      const says = fails(row);
      return says === undefined ? [] : [{ row: row.id, says }];
    }),
  });
  const { document, readings, releaseMs } = design.scheme;
  const most: TenthUm = (EFFECTIVE_WITHIN_FT * TENTH_UM_PER_FOOT) / scaleRatio(document.scale);
  const show = (length: TenthUm) => showLength(length, document.shownUnit);
  return [
    check('.302', `Route locking takes hold within ${EFFECTIVE_WITHIN_FT} scale ft past the signal`, over, (row) => {
      const past = pastSignal(
        design,
        readings.findIndex(({ signal }) => signal.id === row.signal.id),
      );
      if (past === undefined) return 'nothing detects a train beyond the signal';
      return past > most ? `a train is first seen ${show(past)} past the signal; ${show(most)} would do` : undefined;
    }),
    check('.303', 'A signal is cleared only through how all points on its route lie', over, (row) => {
      const missing = row.release.filter(({ motor }) => !asked(row).some((one) => one.motor === motor));
      return missing.length > 0 ? `${missing.map(({ name }) => name).join(', ')} may lie any way` : undefined;
    }),
    check(
      '.305',
      'Once it was clear, its points stay locked until a train that saw it has stopped',
      over,
      ({ keepsMs }) => {
        const needed = releaseMs - STOPPED_MS;
        if (keepsMs === undefined) return 'nothing keeps them';
        return keepsMs < needed ? `${keepsMs / 1000} s, and the slowest to stop needs ${needed / 1000} s` : undefined;
      },
    ),
    check('.307', 'Points are proved to lie where they were sent before the signal clears', over, (row) => {
      if (asked(row).length < row.release.length) return 'not all are asked how they lie';
      const assumed = asked(row).filter((one) => one.assumed);
      return assumed.length > 0 ? `no contact tells how ${assumed.map(({ name }) => name).join(', ')} lies` : undefined;
    }),
    check('.308', 'No two routes that conflict can be cleared at once', rows, ({ conflicts }) => {
      const loose = conflicts.filter(({ apart }) => !apart);
      return loose.length > 0 ? `no rule alone keeps it apart from ${loose.length} of ${conflicts.length}` : undefined;
    }),
  ];
}

/** Points on a route and beside it that its signal asks how they lie. */
const asked = ({ points, beside }: LockingRow) => [...points, ...beside];

/** What the usual release time allows beside the slowest train’s stopping time, in ms. */
const STOPPED_MS = 1000;

/** From a signal to where the block in rear of it ends and the next one is watched; undefined where nothing watches that. */
function pastSignal({ scheme: { partition, readings } }: Design, index: number): TenthUm | undefined {
  const { piece, exit, rear, signal, routes } = readings[index]!;
  const { from, to } = partition.pieces[piece]!;
  let past = exit === 1 ? to - signal.at.tenthUm : signal.at.tenthUm - from;
  for (const step of routes[0]?.track ?? []) {
    const { block, from: start, to: end } = partition.pieces[step.piece]!;
    if (block !== rear) {
      const watched = partition.sections[partition.blocks[block]!.section]!.sensors.length > 0;
      return watched || partition.inferred.has(block) ? past : undefined;
    }
    past += end - start;
  }
  return undefined;
}
