import { describe, expect, test } from 'vitest';
import { type Compiled, compileProgram } from '@/core/logic';
import { Explorer, ProofModel } from '@/core/proof';
import { MOVING } from '@/core/proof/model/rule-memory';
import { Rules } from '@/core/proof/model/rules';
import type { Wiring } from '@/core/proof/model/wiring';
import { HAZARD_IDS } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { Draw } from './random-line';
import { randomProgram } from './random-program';
import { ofSweep } from './sweep';

const MOST_STATES = 20_000;

function explored(document: LayoutDocument, thorough: boolean) {
  const explorer = new Explorer(new ProofModel(compileSystem(document)), thorough);
  while (!explorer.run(1000)) if (explorer.states > MOST_STATES) return undefined;
  const {
    search: { set },
    moves,
    hazards,
    ended,
    deadlock,
  } = explorer;
  const words = Array.from({ length: set.words }, (_, w) => w);
  /** Rule states are numbered as they are found, which depends on what is taken: all but that last word of a state compares. */
  const plants = Array.from({ length: set.size }, (_, number) => words.slice(0, -1).map((w) => set.word(number, w)));
  return {
    moves,
    finds: {
      states: set.size,
      plants: plants.map((plant) => plant.join()).sort(),
      hazards: HAZARD_IDS.filter((hazard) => hazards.has(hazard)),
      ended: [...ended].sort(),
      stuck: deadlock !== undefined,
    },
  };
}

describe('two things within one scan that have nothing to do with each other are left out of the search', () => {
  test('which finds the same states and the same harms on random layouts as the search that takes every two', () => {
    let compared = 0;
    let leftOut = 0;
    const hazards = new Set<string>();
    for (let seed = 70_000; seed < 70_000 + ofSweep(150); seed++) {
      const document = randomLayout(seed);
      const all = explored(document, true);
      if (!all) continue;
      const few = explored(document, false)!;
      expect(few.finds, `layout ${seed}`).toEqual(all.finds);
      compared += 1;
      leftOut += all.moves - few.moves;
      for (const hazard of all.finds.hazards) hazards.add(hazard);
    }
    expect(compared).toBeGreaterThan(ofSweep(80));
    expect(leftOut).toBeGreaterThan(ofSweep(10_000));
    expect(hazards.size).toBeGreaterThan(ofSweep(4));
  });
});

/** A random program, of which one enumeration says how a turnout lies that its first boolean rule drives. */
function randomRules(draw: Draw): Rules | undefined {
  const program = randomProgram(draw);
  let compiled: Compiled;
  try {
    compiled = compileProgram(program);
  } catch {
    return undefined;
  }
  const slot = (name: string) => compiled.slots.get(name)!;
  const rules = program.declarations.filter(({ role }) => role !== 'input');
  const drive = rules.find(({ type }) => type === 'bool');
  if (!drive) return undefined;
  const wiring: Wiring = {
    program,
    compiled,
    detects: ['a', 'b', 'c'].map(slot),
    powers: [],
    points: [slot('m')],
    drives: [slot(drive.name)],
    outlasts: [],
    refusedBy: [[]],
    aspects: rules.map(({ name }) => slot(name)),
    stops: [],
    frees: [],
    releases: [],
    commanded: [],
    cancelsAtAnyMoment: false,
    pulsed: [],
    hands: [],
  };
  const nothing = () => new Int32Array(compiled.slotCount);
  return new Rules(wiring, {
    values: nothing(),
    before: nothing(),
    state: compiled.state,
    dead: [],
    turnouts: [0],
    nowMs: 0,
  });
}

describe('steps of random programs', () => {
  /** A thing that may happen: an input turns over, a timer ends, or the turnout arrives. */
  type Event = { input: number } | { timer: number } | { arrives: true };
  const seenNow = (rules: Rules, state: number) =>
    ['a', 'b', 'c'].reduce((bits, name, i) => {
      const value = rules.valuesIn(state)[rules.wiring.compiled.slots.get(name)!]!;
      return bits | (value << i);
    }, 0);
  const take = (rules: Rules, from: number, events: Event[]) => {
    let seen = seenNow(rules, from);
    const turnouts = Int32Array.of(rules.turnoutIn(from, 0));
    for (const event of events) {
      if ('input' in event) seen ^= 1 << event.input;
      else if ('timer' in event) rules.endTimer(event.timer);
      else turnouts[0]! -= MOVING;
    }
    rules.step(from, Int32Array.of(seen), turnouts, true);
    return { to: rules.to, effect: rules.effect };
  };
  const eventsIn = (rules: Rules, state: number): Event[] => [
    ...[0, 1, 2].map((input) => ({ input })),
    ...Array.from({ length: rules.timerCount }, (_, timer) => timer)
      .filter((timer) => rules.counts(state, timer))
      .map((timer) => ({ timer })),
    ...(rules.turnoutIn(state, 0) >= MOVING ? [{ arrives: true as const }] : []),
  ];
  const thingsShown = (rules: Rules, effect: number, thing: number) => {
    const values: number[] = [];
    for (let list = rules.effects.shownIn(effect); list >= 0; list = rules.displays.rest(list))
      values.push(rules.displays.thing(rules.displays.first(list), thing));
    return values;
  };

  test('two that have nothing to do with each other do together what they do one after the other, in either order', () => {
    const draw = new Draw(4711);
    const counts = { apart: 0, not: 0, matters: 0 };
    for (let n = 0; n < 1500; n++) {
      const rules = randomRules(draw);
      if (!rules) continue;
      let state = rules.start;
      for (let walk = 0; walk < 12; walk++) {
        const events = eventsIn(rules, state);
        const [one, two] = [draw.pick(events), draw.pick(events)];
        if (one === two) continue;
        const [a, b, both] = [take(rules, state, [one]), take(rules, state, [two]), take(rules, state, [one, two])];
        if (rules.effects.neverSettles(a.effect) || rules.effects.neverSettles(b.effect)) continue;
        const possible = (after: number, event: Event) =>
          eventsIn(rules, after).some((other) => JSON.stringify(other) === JSON.stringify(event));
        if (rules.areApart(a.effect, b.effect)) {
          counts.apart += 1;
          expect(possible(a.to, two) && possible(b.to, one)).toBe(true);
          expect(take(rules, a.to, [two]).to, `program ${n}, ${JSON.stringify([one, two])}`).toBe(both.to);
          expect(take(rules, b.to, [one]).to).toBe(both.to);
          const things = rules.wiring.aspects.length + 1;
          for (let thing = 0; thing < things; thing++) {
            const alone = [a, b].flatMap(({ effect }) => thingsShown(rules, effect, thing));
            expect(thingsShown(rules, both.effect, thing).every((value) => alone.includes(value))).toBe(true);
          }
        } else {
          counts.not += 1;
          if (possible(a.to, two) && take(rules, a.to, [two]).to !== both.to) counts.matters += 1;
        }
        state = draw.pick([a.to, b.to, both.to]);
      }
    }
    expect(counts.apart).toBeGreaterThan(2000);
    expect(counts.not).toBeGreaterThan(2000);
    expect(counts.matters, 'so that the comparison could have failed').toBeGreaterThan(200);
  });
});
