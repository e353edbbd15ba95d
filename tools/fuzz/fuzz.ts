import { createHash } from 'node:crypto';
import { FAULT_IDS } from '../../src/core/faults';
import { SWITCH_IDS } from '../../src/core/proof';
import { HAZARD_IDS, Random, Rehearsal } from '../../src/core/simulation';
import { type LayoutDocument, writeDocumentText } from '../../src/core/survey';
import { compileSystem } from '../../src/core/system';
import { confirmedOf } from './confirmed';
import { type Covering, covering, operate, smallest } from './covering';
import { type DrawnLayout, drawnLayout } from './drawn-layout';
import { KIND_TABLES } from './kind-tables';

export interface FuzzOptions {
  layouts: number;
  seed: number;
  /** Rehearsals of each layout, and the minutes of layout time of each. */
  runs: number;
  minutes: number;
  mostStates: number;
}

/** How often something was drawn, and how often it made a run another one. */
export interface Effect {
  drawn: number;
  effective: number;
}

export interface FuzzOutcome {
  layouts: number;
  /** Layouts whose proof was finished, so that something was compared. */
  compared: number;
  contradictions: { layout: number; says: string }[];
  /** How often each hazard was found by a proof, and met by a rehearsal. */
  found: Record<string, number>;
  met: Record<string, number>;
  /** Of what proofs say can happen: how often it was told, and how often the rehearsal driven there came to it. */
  told: Record<string, { told: number; confirmed: number }>;
  /** Of each kind of each table. */
  effects: Record<string, Record<string, Effect>>;
}

const TICKS_LOOKED_AT = 9000;
const LOOKS_EVERY_TICKS = 10;

const none = (): Effect => ({ drawn: 0, effective: 0 });
/** Every kind that can be drawn, as yet without any. */
const noEffects = (): FuzzOutcome['effects'] =>
  Object.fromEntries(
    [...KIND_TABLES, { of: 'fault', ids: FAULT_IDS }, { of: 'what people do', ids: SWITCH_IDS }].map(({ of, ids }) => [
      of,
      Object.fromEntries((ids as readonly string[]).map((id) => [id, none()])),
    ]),
  );

/** One run with people doing what comes by chance, as far as anybody can see it: its events, and now and then all that goes out and is not off. */
function runOf(document: LayoutDocument, seed: number, on: DrawnLayout['on']): string {
  const run = new Rehearsal(compileSystem(document), seed);
  const random = new Random(seed, 78);
  const outputs = run.system.program.declarations.filter(({ role }) => role === 'output').map(({ name }) => name);
  const seen = createHash('sha1');
  for (let tick = 0; tick < TICKS_LOOKED_AT; tick++) {
    operate(run, random, true, on);
    run.step();
    if (tick % LOOKS_EVERY_TICKS !== 0) continue;
    for (const name of outputs) {
      const value = run.controller.evaluator.valueOf(name);
      if (value !== 0) seen.update(`${tick} ${name} ${value}`);
    }
  }
  return `${run.traceHash} ${seen.digest('hex')}`;
}

function noteEffects(
  effects: FuzzOutcome['effects'],
  drawn: DrawnLayout,
  { used, failed }: Covering,
  seed: number,
): void {
  const add = (of: string, id: string, effective: boolean) => {
    const effect = effects[of]![id]!;
    effect.drawn += 1;
    if (effective) effect.effective += 1;
  };
  const whole = runOf(drawn.document, seed, drawn.on);
  for (const { of, id, without } of drawn.kinds) add(of, id, runOf(without(), seed, drawn.on) !== whole);
  for (const id of drawn.on) add('what people do', id, used.includes(id));
  if (drawn.fault) add('fault', drawn.fault.fault, failed);
}

/** Proves and rehearses layouts drawn from the tables of kinds; `tell` gets a line for each contradiction. */
export function fuzz(
  { layouts, seed, runs, minutes, mostStates }: FuzzOptions,
  tell: (line: string) => void,
): FuzzOutcome {
  const outcome: FuzzOutcome = {
    layouts,
    compared: 0,
    contradictions: [],
    found: {},
    met: {},
    told: Object.fromEntries([...HAZARD_IDS, 'deadlock'].map((id) => [id, { told: 0, confirmed: 0 }])),
    effects: noEffects(),
  };
  for (let i = 0; i < layouts; i++) {
    const number = seed + i;
    const drawn = drawnLayout(number);
    const { document, on, fault } = drawn;
    const seeds = Array.from({ length: runs }, (_, k) => number * 100 + k);
    const result = covering(document, seeds, minutes, mostStates, { on, fault });
    noteEffects(outcome.effects, drawn, result, number);
    if (!result.proof) continue;
    outcome.compared += 1;
    for (const hazard of result.found) outcome.found[hazard] = (outcome.found[hazard] ?? 0) + 1;
    for (const hazard of result.met) outcome.met[hazard] = (outcome.met[hazard] ?? 0) + 1;
    for (const { property, confirmed } of confirmedOf(result.proof)) {
      const counts = outcome.told[property]!;
      counts.told += 1;
      if (confirmed) counts.confirmed += 1;
    }
    for (const { says, seed: at } of result.contradictions) {
      outcome.contradictions.push({ layout: number, says });
      tell(`layout ${number}: ${says}`);
      const kind = says.split(' at ')[0]!;
      const shows = (smaller: LayoutDocument) =>
        covering(smaller, [at], minutes, mostStates, { on, fault }).contradictions.some((c) => c.says.startsWith(kind));
      tell(writeDocumentText(smallest(document, shows)));
    }
  }
  return outcome;
}

const share = (part: number, of: number): string => (of === 0 ? 'none' : `${Math.round((100 * part) / of)} %`);

/** `./roblik fuzz`: any number of layouts drawn from the tables of kinds, from a seed on. */
export async function fuzzCommand(layouts: number, seed: number): Promise<number> {
  const from = performance.now();
  const outcome = fuzz({ layouts, seed, runs: 6, minutes: 10, mostStates: 60_000 }, (line) => console.log(line));
  const seconds = ((performance.now() - from) / 1000).toFixed(0);
  console.log(`${outcome.compared} of ${layouts} layouts from seed ${seed} proved and rehearsed in ${seconds} s.`);
  console.log('\nHow often each kind was on a layout, and how often a run went otherwise without it:');
  for (const [of, kinds] of Object.entries(outcome.effects))
    console.log(
      `  ${of}: ${Object.entries(kinds)
        .map(([id, { drawn, effective }]) => `${id} ${drawn}/${effective}`)
        .join(', ')}`,
    );
  console.log(
    '\nHow often each hazard was found by a proof, and of these came to pass where the rehearsal was driven there; and was met by chance:',
  );
  for (const [id, { told, confirmed }] of Object.entries(outcome.told))
    console.log(`  ${id}: ${told}, ${confirmed} (${share(confirmed, told)}); ${outcome.met[id] ?? 0}`);
  const sum = (of: 'told' | 'confirmed') => Object.values(outcome.told).reduce((all, one) => all + one[of], 0);
  console.log(`  all: ${sum('told')}, ${sum('confirmed')} (${share(sum('confirmed'), sum('told'))})`);
  console.log(`\n${outcome.contradictions.length} contradictions`);
  return outcome.contradictions.length === 0 ? 0 : 1;
}
