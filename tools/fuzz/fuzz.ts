import { writeDocumentText } from '../../src/core/survey';
import { covering, smallest } from './covering';
import { randomLayout } from './random-layout';

export interface FuzzOptions {
  layouts: number;
  seed: number;
  /** Rehearsals of each layout, and the minutes of layout time of each. */
  runs: number;
  minutes: number;
  mostStates: number;
}

export interface FuzzOutcome {
  layouts: number;
  /** Layouts whose proof was finished, so that something was compared. */
  compared: number;
  contradictions: { layout: number; says: string }[];
  /** How often each hazard was found by a proof, and met by a rehearsal. */
  found: Record<string, number>;
  met: Record<string, number>;
}

/** Proves and rehearses random layouts; `tell` gets a line for each contradiction. */
export function fuzz(
  { layouts, seed, runs, minutes, mostStates }: FuzzOptions,
  tell: (line: string) => void,
): FuzzOutcome {
  const outcome: FuzzOutcome = { layouts, compared: 0, contradictions: [], found: {}, met: {} };
  for (let i = 0; i < layouts; i++) {
    const number = seed + i;
    const document = randomLayout(number);
    const seeds = Array.from({ length: runs }, (_, k) => number * 100 + k);
    const result = covering(document, seeds, minutes, mostStates);
    if (!result.finished) continue;
    outcome.compared += 1;
    for (const hazard of result.found) outcome.found[hazard] = (outcome.found[hazard] ?? 0) + 1;
    for (const hazard of result.met) outcome.met[hazard] = (outcome.met[hazard] ?? 0) + 1;
    for (const { says, seed: at } of result.contradictions) {
      outcome.contradictions.push({ layout: number, says });
      tell(`layout ${number}: ${says}`);
      const kind = says.split(' at ')[0]!;
      const shows = (smaller: typeof document) =>
        covering(smaller, [at], minutes, mostStates).contradictions.some((c) => c.says.startsWith(kind));
      tell(writeDocumentText(smallest(document, shows)));
    }
  }
  return outcome;
}

/** `./roblik fuzz`: any number of random layouts, from a seed on. */
export async function fuzzCommand(layouts: number, seed: number): Promise<number> {
  const from = performance.now();
  const outcome = fuzz({ layouts, seed, runs: 6, minutes: 10, mostStates: 120_000 }, (line) => console.log(line));
  const seconds = ((performance.now() - from) / 1000).toFixed(0);
  const counts = (of: Record<string, number>) =>
    Object.entries(of)
      .map(([hazard, n]) => `${n} ${hazard}`)
      .join(', ') || 'none';
  console.log(`${outcome.compared} of ${layouts} layouts from seed ${seed} proved and rehearsed in ${seconds} s.`);
  console.log(`The proofs found: ${counts(outcome.found)}.`);
  console.log(`Rehearsals met: ${counts(outcome.met)}.`);
  console.log(`${outcome.contradictions.length} contradictions`);
  return outcome.contradictions.length === 0 ? 0 : 1;
}
