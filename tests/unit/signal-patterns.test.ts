import { describe, expect, test } from 'vitest';
import { causesIn, checkDesign, tryByHand } from '@/core/design';
import { ASPECT_SYSTEMS } from '@/core/kinds';
import { compileProgram, Interpreter } from '@/core/logic';
import { cm } from '@/core/measure';
import { GIVEN_FOR_MS, names } from '@/core/patterns';
import { ProofModel, ProofRun } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { type Area, type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { ring, withTrains } from '@/demo/learning-oval';
import { spinHazards } from '../../tools/spin';
import { blockIds } from './block-ids';
import { fork } from './fork';

const SCAN = 20;

function using(d: LayoutDocument, pattern: string, ...signals: string[]): LayoutDocument {
  for (const signal of signalsOf(d)) if (signals.includes(signal.name)) signal.patterns = [pattern];
  return d;
}
function shown(d: LayoutDocument, occupied: string[], lies: 'straight' | 'diverging' = 'straight') {
  const design = checkDesign(d);
  const points = Object.fromEntries(d.turnouts.map(({ id }) => [id, lies]));
  const values = tryByHand(design, { occupied: blockIds(design, occupied), points });
  const value = (name: string) => values[name];
  const aspects = Object.fromEntries(
    signalsOf(d).map((signal) => [signal.name, design.system.program.enums.aspect![values[names.shows(signal)]!]]),
  );
  return { aspects, value };
}

/** The rules alone, scan by scan, with inputs set by hand. */
function scanning(d: LayoutDocument) {
  const design = checkDesign(d);
  const compiled = compileProgram(design.system.program);
  const rules = new Interpreter(compiled);
  let now = 0;
  return {
    set: (name: string, on: boolean) => rules.setInput(compiled.slots.get(name)!, on ? 1 : 0),
    run(ms: number) {
      for (const end = now + ms; now < end; now += SCAN) rules.scan(now);
    },
    /** How long until a signal shows something else, to the scan; undefined when it does not within the time. */
    until(signal: string, aspect: string, atMost: number) {
      const from = now;
      for (; now <= from + atMost; now += SCAN) {
        rules.scan(now);
        if (this.shows(signal) === aspect) return now - from;
      }
      return undefined;
    },
    shows: (signal: string) =>
      design.system.program.enums.aspect![
        rules.valueOf(names.shows(signalsOf(d).find(({ name }) => name === signal)!))
      ],
    sensor: (block: string) => {
      const { partition } = design.scheme;
      const { section } = partition.blocks.find(({ name }) => name === block)!;
      return names.detect({ id: partition.sections[section]!.sensors[0]! });
    },
  };
}

describe('points that lead aside mean stop, where that is chosen', () => {
  test('one school holds, the other lets go', () => {
    expect(shown(fork('three-aspect'), [], 'diverging').aspects.Home).toBe('clear');
    const held = using(fork('three-aspect'), 'diverging held', 'Home');
    expect(shown(held, [], 'diverging').aspects.Home).toBe('stop');
    expect(shown(held, [], 'straight').aspects.Home).toBe('clear');
  });
});

describe('the timed block: stop, caution, clear, in steps of a timer', () => {
  test.each([7000, 14_000])('a step of %i ms (7 to 14 s are common practice, no source)', (stepMs) => {
    const d = using(ring('Six', 6, 150), 'timed caution', 'S1');
    signalsOf(d).find(({ name }) => name === 'S1')!.settings = [
      { pattern: 'timed caution', option: 'stepMs', value: stepMs },
    ];
    const holdMs = d.sensors[0]!.holdMs;
    const rules = scanning(d);
    rules.run(30_000);
    expect(rules.shows('S1')).toBe('clear');
    rules.set(rules.sensor('B1'), true);
    rules.run(100);
    expect(rules.shows('S1')).toBe('stop');
    rules.set(rules.sensor('B1'), false);
    const [caution, clear] = [rules.until('S1', 'caution', holdMs + 100), rules.until('S1', 'clear', stepMs + 500)];
    expect(Math.abs(caution! - holdMs)).toBeLessThanOrEqual(2 * SCAN);
    expect(Math.abs(clear! - stepMs)).toBeLessThanOrEqual(2 * SCAN);
    expect(rules.shows('S2')).toBe('clear');
  });
  test('at power-up it knows nothing, and shows caution', () => {
    const d = using(ring('Six', 6, 150), 'timed caution', 'S1');
    const rules = scanning(d);
    rules.run(3000);
    expect([rules.shows('S1'), rules.shows('S2')]).toEqual(['caution', 'clear']);
  });
});

describe('arms wired straight to the contact', () => {
  test('are always opposite and hold no train, which the proof and a finding say', () => {
    const d = using(fork('junction-arms'), 'from the contact', 'Home');
    for (const occupied of [[], ['X'], ['B'], ['D']])
      for (const [lies, aspect] of [
        ['straight', 'clear ahead'],
        ['diverging', 'clear aside'],
      ] as const)
        expect(shown(d, occupied, lies).aspects.Home).toBe(aspect);
    const said = checkDesign(d).findings.filter(({ kind }) => kind === 'signal that holds no train');
    expect(said).toMatchObject([{ severity: 'unsafe', subject: signalsOf(d).find(({ name }) => name === 'Home')!.id }]);
  });
});

describe('a turnout indicator: two heads for the two legs', () => {
  const indicator = () => using(fork('turnout-indicator'), 'from the contact', 'Home');
  test('are always opposite, and at stop while the points move; a signal so lit promises nothing, which a note says', () => {
    const { lamps, aspects } = ASPECT_SYSTEMS['turnout-indicator']!;
    const heads = aspects.map(({ lit }) =>
      [0, 1].map((head) => lit.filter((lamp) => lamps[lamp]!.head === head).map((lamp) => lamps[lamp]!.colour)),
    );
    expect(heads).toEqual([
      [['stop'], ['stop']],
      [['stop'], ['clear']],
      [['clear'], ['stop']],
    ]);
    for (const occupied of [[], ['X'], ['B'], ['D']]) {
      expect(shown(indicator(), occupied, 'straight').aspects.Home).toBe('set straight');
      expect(shown(indicator(), occupied, 'diverging').aspects.Home).toBe('set aside');
    }
    const said = checkDesign(indicator()).findings.filter(({ kind }) => kind === 'signal that holds no train');
    expect(said.map(({ severity }) => severity)).toEqual(['note']);
  });
});

describe('approach lighting', () => {
  test('lit while a train is in rear, dark else; the aspect is the same', () => {
    const d = using(fork('three-aspect'), 'approach lit', 'Home');
    const home = signalsOf(d).find(({ name }) => name === 'Home')!;
    const [dark, lit] = [shown(d, []), shown(d, ['A'])];
    expect([dark.value(names.lighting(home)), lit.value(names.lighting(home))]).toEqual([0, 1]);
    expect(dark.aspects.Home).toBe('clear');
    const last = signalsOf(d).find(({ name }) => name === 'Last')!;
    expect(dark.value(names.lighting(last))).toBeUndefined();
  });
});

describe('authority: somebody at a post lets trains in, one at a time', () => {
  const yard = (whenEmpty: 'caution' | 'stop') => {
    const d = using(fork('three-aspect'), 'authority', 'Home');
    const length = (cm: number) => ({ tenthUm: cm * 1e5, typed: `${cm} cm` });
    d.areas = [
      {
        id: 'a1',
        name: 'Yard',
        line: d.lines[0]!.id,
        from: length(410),
        to: length(890),
        purpose: '',
        admits: 'operator',
        whenEmpty,
        speedKmh: undefined,
        comesIn: undefined,
        leavesOut: undefined,
      },
    ];
    return d;
  };
  const [manned, give] = [
    names.manned({ id: 'a1' }),
    (d: LayoutDocument) => names.give(signalsOf(d).find(({ name }) => name === 'Home')!),
  ];
  test.each([
    ['caution', 'caution'],
    ['stop', 'stop'],
  ] as const)('with nobody there it shows what was chosen: %s', (whenEmpty, aspect) => {
    const rules = scanning(yard(whenEmpty));
    rules.run(20_000);
    expect(rules.shows('Home')).toBe(aspect);
    rules.set(manned, true);
    rules.run(100);
    expect(rules.shows('Home'), 'an operator takes the post: stop').toBe('stop');
    rules.set(manned, false);
    rules.run(100);
    expect(rules.shows('Home'), 'and leaves it').toBe(aspect);
  });
  test('a button clears it for one train; it falls back after 15 s (common practice, no source), or once the train has passed', () => {
    const d = yard('stop');
    const rules = scanning(d);
    rules.run(20_000);
    rules.set(manned, true);
    rules.run(100);
    const press = () => {
      rules.set(give(d), true);
      rules.run(200);
      rules.set(give(d), false);
      rules.run(100);
    };
    press();
    expect(rules.shows('Home')).toBe('caution');
    expect(rules.until('Home', 'stop', GIVEN_FOR_MS + 100)).toBeGreaterThan(GIVEN_FOR_MS - 500);
    press();
    expect(rules.shows('Home')).toBe('caution');
    rules.set(rules.sensor('X'), true);
    rules.run(100);
    expect(rules.shows('Home'), 'the train has passed').toBe('stop');
    rules.run(20_000);
    expect(rules.shows('Home'), 'and stays so').toBe('stop');
    press();
    expect(rules.shows('Home'), 'on sight into track that is taken, since nobody’s sensor is asked').toBe('caution');
  });
  test('for how long it is cleared can be chosen at the signal', () => {
    const d = yard('stop');
    const home = signalsOf(d).find(({ name }) => name === 'Home')!;
    home.settings = [{ pattern: 'post', option: 'givenMs', value: 40_000 }];
    const rules = scanning(d);
    rules.run(20_000);
    rules.set(manned, true);
    rules.run(100);
    rules.set(give(d), true);
    rules.run(100);
    expect(rules.until('Home', 'stop', 40_100)).toBeGreaterThan(39_500);
  });
  test('areas of one name on several lines are one, with one post; it shows caution only where all of them were to', () => {
    const d = yard('caution');
    const [area] = d.areas;
    const shunting = { ...area!, id: 'a9', whenEmpty: 'stop' as const };
    const posts = (all: LayoutDocument['areas']) =>
      compileSystem({ ...d, areas: all }).posts.map(({ id, whenEmpty }) => [id, whenEmpty]);
    expect(posts(d.areas)).toEqual([['a1', 'caution']]);
    expect(posts([...d.areas, shunting])).toEqual([['a1', 'stop']]);
    expect(posts([...d.areas, { ...shunting, name: 'Elsewhere' }])).toEqual([['a1', 'caution']]);
    /** The signal stands before the second of them. */
    const away = { ...area!, from: cm(0), to: cm(0.1) };
    expect(posts([away, { ...area!, id: 'a9' }])).toEqual([['a1', 'caution']]);
  });
  test('without a post a button does nothing', () => {
    const d = yard('stop');
    const rules = scanning(d);
    rules.run(20_000);
    rules.set(give(d), true);
    rules.run(1000);
    expect(rules.shows('Home')).toBe('stop');
  });
  test('the proof finds what an operator can do, and Spin finds the same', () => {
    for (const [pattern, result] of [
      ['authority', 'fails'],
      [undefined, 'holds'],
    ] as const) {
      const d = withTrains(ring('Four', 4, 100), 2, 100);
      if (pattern) using(d, pattern, 'S1');
      const run = new ProofRun(compileSystem(d), 400_000, new Set());
      while (!run.step(5000));
      const hazard = 'two trains in a block';
      const verdict = run.result().verdicts.find(({ property }) => property === hazard)!;
      expect([pattern, verdict.result]).toEqual([pattern, result]);
      const [look] = spinHazards(writePromela(new ProofModel(compileSystem(d), new Set())), [[hazard]]);
      expect({ pattern, ...look }).toMatchObject({
        pattern,
        errors: result === 'fails' ? 1 : 0,
        complete: result === 'holds',
      });
    }
  });
});

describe('two signals that let trains into one block at once', () => {
  /** A ring of four worked both ways is not needed: S1 lets trains into B1, and a signal read the other way does too. */
  const opposed = (how: string) => {
    const d = withTrains(ring('Four', 4, 100), 1, 100);
    const [first] = signalsOf(d);
    d.features.push({
      ...first!,
      id: 's90',
      name: 'Back',
      governs: 'down',
      at: { ...first!.at, tenthUm: first!.at.tenthUm + 100e5, typed: '' },
    });
    if (how === 'posts that let trains in when they are empty')
      d.areas.push({
        id: 'a',
        name: 'Yard',
        line: 'oval',
        from: cm(0),
        to: cm(400),
        purpose: '',
        admits: 'operator',
        whenEmpty: 'caution',
      } as Area);
    return how === 'sensors' ? d : using(d, 'authority', 'S1', 'Back');
  };
  const hazard = 'conflicting signals';
  test.each([
    ['posts that let trains in when they are empty', 'fails'],
    /** The one cleared first goes first. */
    ['posts', 'holds'],
    ['sensors', 'holds'],
  ] as const)('worked by %s: %s, and Spin says the same', (how, result) => {
    const d = opposed(how);
    const run = new ProofRun(compileSystem(d), 400_000, new Set());
    while (!run.step(5000));
    const { verdicts } = run.result(causesIn(d));
    const verdict = verdicts.find(({ property }) => property === hazard)!;
    expect(verdict.result).toBe(result);
    if (result === 'fails') expect(verdict.cause?.says).toMatch(/S1 and Back are both cleared into/);
    const [look] = spinHazards(writePromela(new ProofModel(compileSystem(d), new Set())), [[hazard]]);
    expect({ ...look }).toMatchObject({ errors: result === 'fails' ? 1 : 0 });
  });
});
