import { describe, expect, test } from 'vitest';
import { checkDesign, tryByHand } from '@/core/design';
import { compileProgram, explain, Interpreter, readProgram, whyValue, writeProgram } from '@/core/logic';
import { cm } from '@/core/measure';
import { ProofRun } from '@/core/proof';
import type { Reason } from '@/core/reasoning';
import { Rehearsal } from '@/core/simulation';
import { type LayoutDocument, newDocument, readDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { block, gap, signal, train, turnout, vehicle } from '@/demo/build';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { blockIds } from './block-ids';
import { ruleNamed, spokenName } from './rule-named';

const line = (id: string, length: number) => ({ id, name: id, length: cm(length), drawing: undefined });
const engine = vehicle('v-engine', 'Engine', 14, [2, 5, 9, 12], () => true, 200);
const at = (l: string, where: number, facing: 'up' | 'down') => ({ line: l, at: where, facing });
const rates = { up: 80, down: 100, delayMs: 200, is: 'assumed' } as const;

/** A line that ends in a reverse loop: the loop meets its own turnout with both legs. */
function reverseLoop(): LayoutDocument {
  const d = newDocument('Reverse loop');
  d.referenceLine = 'main';
  d.lines = [line('main', 300), line('loop', 400)];
  d.turnouts = [
    {
      ...turnout('T1', 'main', 300, 'up', 'left', 'loop'),
      straight: { line: 'loop', end: 'end' },
      legs: [{ line: 'loop', end: 'start' }],
    },
  ];
  d.features = [
    gap('g1', 'main', 250),
    gap('g2', 'loop', 60),
    gap('g3', 'loop', 340),
    signal('In', 'main', 250, 'up'),
    signal('OutA', 'loop', 60, 'down'),
    signal('OutB', 'loop', 340, 'up'),
  ];
  for (const [name, l, where] of [
    ['Main', 'main', 100],
    ['Neck', 'main', 280],
    ['Loop', 'loop', 200],
  ] as const)
    block(d, name, l, where);
  d.vehicles = [engine];
  d.trains = [train('tr', 'Engine', ['v-engine'], 60, at('main', 150, 'up'), rates)];
  return d;
}

/** Two lines joined end to end, so that distances run against each other across the joint. */
function faceToFace(): LayoutDocument {
  const d = newDocument('Face to face');
  d.referenceLine = 'a';
  d.lines = [line('a', 300), line('b', 300)];
  d.joins = [{ id: 'j', a: { line: 'a', end: 'end' }, b: { line: 'b', end: 'end' } }];
  d.features = [
    gap('g1', 'a', 150),
    gap('g2', 'b', 150),
    signal('East', 'a', 150, 'up'),
    signal('On', 'b', 150, 'down'),
    signal('West', 'b', 150, 'up'),
    signal('Back', 'a', 150, 'down'),
  ];
  for (const [name, l, where] of [
    ['A', 'a', 80],
    ['Middle', 'a', 220],
    ['B', 'b', 80],
  ] as const)
    block(d, name, l, where);
  d.vehicles = [engine];
  d.trains = [train('tr', 'Engine', ['v-engine'], 60, at('a', 120, 'up'), rates)];
  return d;
}

describe('a reverse loop', () => {
  test('is a sound document with two ways in and one out of each side', () => {
    expect(readDocument(JSON.parse(JSON.stringify(reverseLoop()))).ok).toBe(true);
    const { scheme } = checkDesign(reverseLoop());
    const ways = (name: string) => scheme.routesOf[scheme.readings.findIndex((r) => r.signal.name === name)]!;
    expect(
      ways('In')
        .map((w) => w.to)
        .sort(),
    ).toEqual(['OutA', 'OutB']);
    for (const out of ['OutA', 'OutB']) expect(ways(out).map((w) => w.route.ending.kind)).toEqual(['end of track']);
  });
  test('the two entrances of its neck from the loop are two sides, and one train is proved to come back', () => {
    const { scheme } = checkDesign(reverseLoop());
    const neck = scheme.trafficSections.all.find(({ name }) => name === 'Neck')!;
    const sides = neck.sides.map((side) => scheme.trafficSections.sideNames.get(side)).sort();
    expect(sides).toEqual(['from Loop at loop 340', 'from Loop at loop 60', 'from Main']);
    const run = new ProofRun(compileSystem(reverseLoop()));
    while (!run.step(5000));
    const { verdicts } = run.result();
    expect(verdicts.filter(({ result }) => result !== 'holds').map(({ property }) => property)).toEqual([]);
  });
  test('a train goes in over the diverging leg, waits for the points, and comes back the way it came', () => {
    const run = new Rehearsal(compileSystem(reverseLoop()), 1);
    const hazards: string[] = [];
    const go = (seconds: number) => {
      for (let i = 0; i < seconds * 50; i++) {
        run.step((e) => {
          if (e.kind === 'mishap' || e.kind === 'points moved under' || (e.kind === 'passes' && e.aspect.id === 'stop'))
            hazards.push(JSON.stringify(e));
        });
      }
    };
    run.command({ kind: 'hold', signal: 's-In', on: true });
    go(8);
    run.command({ kind: 'throw', turnout: 't-T1', to: 'diverging' });
    go(3);
    run.command({ kind: 'hold', signal: 's-In', on: false });
    go(90);
    expect(run.plant.positionOf(0).map((s) => s.line)).toEqual(['loop']);
    expect(run.plant.trains[0]!.speed).toBe(0);
    run.command({ kind: 'throw', turnout: 't-T1', to: 'straight' });
    go(90);
    const [nose] = run.plant.positionOf(0);
    expect(nose!.line).toBe('main');
    expect(nose!.from).toBeLessThan(nose!.to);
    expect(hazards).toEqual([]);
  });
});

describe('lines joined end to end', () => {
  test('a block runs over the joint, and a signal up one line protects track down the other', () => {
    const { scheme } = checkDesign(faceToFace());
    const middle = scheme.partition.blocks.find((b) => b.name === 'Middle')!;
    expect(middle.length).toBe(cm(300).tenthUm);
    expect(scheme.routesOf[0]!.map((w) => w.to)).toEqual(['On']);
    expect(scheme.trafficSections.all.find((s) => s.blocks.includes(middle.index))!.bothWays).toBe(true);
  });
  test('a train runs from one to the other and its distances turn round', () => {
    const run = new Rehearsal(compileSystem(faceToFace()), 1);
    for (let i = 0; i < 50 * 60; i++) run.step();
    const [nose] = run.plant.positionOf(0);
    expect(nose!.line).toBe('b');
    expect(nose!.from).toBeLessThan(nose!.to);
    expect(nose!.from).toBeLessThan(60);
  });
});

describe('turnouts that throw together', () => {
  const pair = () => {
    const d = smallValley();
    d.turnouts[7]!.throwsWith = 't-T5';
    return d;
  };
  test('one request drives both, and either’s block locks both', () => {
    const d = pair();
    const run = new Rehearsal(compileSystem(d), 1);
    for (const t of run.plant.trains) run.command({ kind: 'run', train: t.figures.id, on: false });
    for (let i = 0; i < 50 * 8; i++) run.step();
    run.command({ kind: 'throw', turnout: 't-T5', to: 'diverging' });
    for (let i = 0; i < 50 * 3; i++) run.step();
    expect([4, 7].map((t) => run.plant.motors[t]!.position)).toEqual(['diverging', 'diverging']);
    run.command({ kind: 'throw', turnout: 't-T8', to: 'straight' });
    for (let i = 0; i < 50 * 3; i++) run.step();
    expect([4, 7].map((t) => run.plant.motors[t]!.position)).toEqual(['straight', 'straight']);
  });
});

describe('names as people write them', () => {
  test('dots, blanks, quotes and words of the language do no harm', () => {
    const d = learningOval();
    const odd = ['4.2', 'Pell Dock', 'if', 'the "old" one'];
    d.features
      .filter((f) => f.kind === 'signal')
      .forEach((s, i) => {
        (s as { name: string }).name = odd[i]!;
      });
    d.blocks.forEach((b, i) => {
      b.name = `${odd[i]} block`;
    });
    const {
      system: { program },
      findings,
    } = checkDesign(d);
    expect(findings.filter((f) => f.severity !== 'note')).toEqual([]);
    const again = readProgram(writeProgram(program));
    expect(again.declarations.map((x) => x.name)).toEqual(program.declarations.map((x) => spokenName(program, x.name)));
    const run = new Rehearsal(compileSystem(d), 1);
    for (let i = 0; i < 50 * 60; i++) run.step();
    expect(Math.min(...run.plant.trains.map((t) => t.head))).toBeGreaterThan(1000);
    const hash = run.traceHash;
    const plain = new Rehearsal(compileSystem(learningOval()), 1);
    for (let i = 0; i < 50 * 60; i++) plain.step();
    expect(hash).toBe(plain.traceHash);
  });
});

describe('drop-outs', () => {
  test('a detector that loses the train for less than its hold time frees nothing; for longer it does', () => {
    const { program } = compileSystem(learningOval());
    const compiled = compileProgram(program);
    const run = new Interpreter(compiled);
    let now = 0;
    const pass = (ms: number) => {
      for (const end = now + ms; now < end; now += 20) run.scan(now);
    };
    const see = (on: boolean) => run.setInput(compiled.slots.get(ruleNamed(program, 'detect.B2'))!, on ? 1 : 0);
    pass(5000);
    see(true);
    pass(100);
    for (const gapMs of [40, 400, 960]) {
      see(false);
      pass(gapMs);
      expect(run.valueOf(ruleNamed(program, 'occupied.B2'))).toBe(1);
      see(true);
      pass(60);
    }
    see(false);
    pass(1040);
    expect(run.valueOf(ruleNamed(program, 'occupied.B2'))).toBe(0);
  });
});

describe('reasons in words', () => {
  const d = smallValley();
  const design = checkDesign(d);
  const reasonFor = (signalName: string, occupied: string[], points: Record<string, 'straight' | 'diverging'> = {}) => {
    const values = tryByHand(design, { occupied: blockIds(design, occupied), points });
    return whyValue(design.system.program, ruleNamed(design.system.program, `signal.${signalName}`), (n) => values[n]);
  };
  /** The sentences that decide, from the top down. */
  const deciding = (reason: Reason): string[] => [
    reason.says,
    ...reason.because.filter((r) => r.decides !== false).flatMap(deciding),
  ];

  test.each<[string, string, string[], Record<string, 'straight' | 'diverging'>, string[]]>([
    ['nobody asks', 'ME', [], {}, ['ME shows stop', 'No train asks for ME']],
    ['the block ahead is occupied', 'ME', ['UM', 'M1'], {}, ['ME shows stop', 'M1 is occupied']],
    [
      'trailing points set wrong',
      'M1E',
      ['M1'],
      { 't-T6': 'diverging' },
      ['M1E shows stop', 'T6 lies diverging, not straight'],
    ],
    [
      'the next signal is at stop',
      'M1E',
      ['M1', 'FM'],
      {},
      ['M1E shows caution', 'FE must show stop', 'FM is occupied'],
    ],
    ['the track ends beyond', 'SE', ['SB'], {}, ['SE shows caution', 'SE is cleared to SK1']],
    ['all is free', 'M1E', ['M1'], {}, ['M1E shows clear', 'M1E is cleared to FE', 'FE may show proceed']],
  ])('%s', (_, name, occupied, points, wanted) => {
    const said = deciding(reasonFor(name, occupied, points));
    for (const sentence of wanted) expect(said).toContain(sentence);
  });
  test('what was looked at and does not decide is kept, and marked', () => {
    const all: Reason[] = [];
    const gather = (r: Reason) => {
      all.push(r);
      r.because.forEach(gather);
    };
    gather(reasonFor('ME', ['UM', 'M1']));
    expect(all.some((r) => r.says === 'MA is free' && r.decides === false)).toBe(true);
  });
  test('a name that does not exist is not looked up, and has no explanation', () => {
    const read = () => {
      throw new Error('It was looked up.');
    };
    expect(explain(design.system.program, 'indicator.t2', read)).toBeUndefined();
  });
  test('a name that does not exist says so instead of failing', () => {
    expect(whyValue(design.system.program, 'signal.Nowhere', () => undefined).says).toContain('does not exist');
    expect(whyValue(design.system.program, 'signal.s-ME', () => undefined).says).toBe('signal.s-ME is not known');
  });
});
