import type { HowManyTrains, SoManyTrains, Standing } from '@/core/design';

const AND = new Intl.ListFormat('en');

/** Where trains wait in a step, who is on the line, and whose turn it is. */
export function sayStanding(
  { blocks, turns }: Pick<HowManyTrains, 'blocks' | 'turns'>,
  trains: readonly string[],
  { trains: at, turns: turn }: Standing,
): string {
  const waiting = at.flatMap((block, t) => (block === undefined ? [] : [`${trains[t]} in ${blocks[block]}`]));
  const running = at.flatMap((block, t) => (block === undefined ? [trains[t]!] : []));
  const parts = [
    ...(waiting.length > 0 ? [AND.format(waiting)] : []),
    ...(running.length > 0 ? [`${AND.format(running)} on the line`] : []),
    ...turn.map((diverging, n) => `${diverging ? 'diverging' : 'straight'} road’s turn at ${turns[n]}`),
  ];
  return `${parts.join('; ')}.`;
}

/** A time as it is read: 8.4 s, 54 s, 3 min 20 s. */
export function sayTime(seconds: number): string {
  if (seconds < 10) return `${seconds.toFixed(1)} s`;
  const whole = Math.round(seconds);
  return whole < 100 ? `${whole} s` : `${Math.floor(whole / 60)} min ${whole % 60} s`;
}

const notAll = ({ states }: SoManyTrains): string => `not in ${states.toLocaleString('en')} states`;
const moves = (story: readonly string[]): string =>
  story.length === 0 ? 'at once' : `after ${story.length} ${story.length === 1 ? 'move' : 'moves'}`;

/** Whether it runs: as it was rehearsed, and as it was explored. */
export function sayRuns(row: SoManyTrains): string {
  const { rehearsed, round } = row;
  if (rehearsed.runs === 0) return 'no';
  const ran = `${rehearsed.runs} of ${rehearsed.of}`;
  return round && round.length > 1 ? `${ran}, ${round.length} steps` : ran;
}

/** Whether it comes to a stand for ever. “never” only where every state was looked at. */
export function sayWaits(row: SoManyTrains): string {
  const { rehearsed, stuck } = row;
  const met =
    rehearsed.waits.runs > 0
      ? `${rehearsed.waits.runs} of ${rehearsed.of}, after ${sayTime(rehearsed.waits.afterS!)}`
      : '';
  if (stuck) return met || `can, ${moves(stuck)}`;
  if (met) return met;
  return row.finished ? 'never' : notAll(row);
}

/** Whether one train runs into another. */
export function sayHit(row: SoManyTrains): string {
  const { rehearsed, hit } = row;
  const met =
    rehearsed.hit.runs > 0 ? `${rehearsed.hit.runs} of ${rehearsed.of}, after ${sayTime(rehearsed.hit.afterS!)}` : '';
  if (hit) return met ? `${met}; can ${moves(hit)}` : `can, ${moves(hit)}`;
  if (met) return met;
  return row.finished ? 'never' : notAll(row);
}

/** The gist of a row, as a heading. */
export function sayRow({ count, rehearsed, hit, stuck, finished }: SoManyTrains): string {
  const who = count === 1 ? 'One train' : `${count} trains`;
  const [run, wait, come] = count === 1 ? ['runs', 'waits', 'comes'] : ['run', 'wait', 'come'];
  if (rehearsed.hit.runs > 0) return `${who}: one is hit`;
  if (rehearsed.runs === 0) return `${who} ${wait} for ever`;
  if (hit) return `${who} ${run}, as long as each starts in time`;
  if (rehearsed.waits.runs > 0 || stuck) return `${who} ${run}, but can ${come === 'comes' ? 'come' : come} to a stand`;
  return finished ? `${who} ${run} for ever` : `${who} ${run}, as far as was looked`;
}
