import { describe, expect, test } from 'vitest';
import { checkDesign, exploreCycle, rehearseCycle, roundOf, type Standing, withTrains } from '@/core/design';
import { cm } from '@/core/measure';
import { ProofModel, ProofRun, STANDARD_SWITCHES, type Switch } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { Rehearsal } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { spinHazards } from '../../tools/spin';
import { isWhole } from './sweep';

const example = (id: string): LayoutDocument => exampleLayout(EXAMPLES.find((one) => one.id === id)!);

function cycleOf(d: LayoutDocument, trains: number) {
  const design = withTrains(d, trains)!;
  const work = exploreCycle(design);
  let step = work.next();
  while (!step.done) step = work.next();
  const { blocks } = design.scheme.partition;
  const say = ({ trains: at, turns }: Standing) =>
    `${at.map((block) => (block === undefined ? 'line' : blocks[block]!.name)).join(' ')}, ${turns.map((on) => (on ? 'Two' : 'One')).join(' ')}`;
  return { ...step.value, design, say, said: step.value.steps.map(say) };
}

/** Worked by hand from the rules of an alternating siding: where each train is, and whose turn it is. */
const TWO_KEEP = ['One Two, One', 'line Two, One', 'One Two, Two', 'One line, Two'];
const THREE_ROTATE = [
  'One Two line, One',
  'line Two line, One',
  'line Two One, Two',
  'line line One, Two',
  'Two line One, One',
  'Two line line, One',
  'Two One line, Two',
  'line One line, Two',
  'line One Two, One',
  'line line Two, One',
  'One line Two, Two',
  'One line line, Two',
];

describe('an alternating siding', () => {
  test('two trains keep their own roads for ever: four steps', () => {
    const { said, steps, finished, hit, stuck, hazards } = cycleOf(example('turns'), 2);
    expect([said, roundOf({ steps }), finished]).toEqual([TWO_KEEP, [0, 1, 2, 3], true]);
    expect([hit, stuck, hazards]).toEqual([undefined, undefined, []]);
  });
  test('three rotate through the roads where a block lies before it: twelve steps', () => {
    const { said, steps, finished, hit, stuck, hazards } = cycleOf(example('turns'), 3);
    expect([said, finished]).toEqual([THREE_ROTATE, true]);
    expect(roundOf({ steps })).toHaveLength(12);
    expect([hit, stuck, hazards]).toEqual([undefined, undefined, []]);
  });
  test('one train alone has fed the empty road, and waits for ever; so do four', () => {
    const alone = cycleOf(example('turns'), 1);
    expect([alone.said.at(-1), alone.steps.at(-1)!.next, alone.hit]).toEqual(['One, Two', [], undefined]);
    expect(alone.stuck).toBeDefined();
    expect(cycleOf(example('turns'), 4).stuck).toEqual([]);
  });
  test('without a signal before its points one train too many runs into who stands there', () => {
    const d = example('turns');
    d.features = d.features.filter((one) => !(one.kind === 'signal' && ['H', 'P'].includes(one.name)));
    d.trains.push({ ...d.trains[0]!, id: 'third', name: 'Third', start: { ...d.trains[0]!.start!, at: cm(570) } });
    expect(cycleOf(d, 2).hit).toBeUndefined();
    expect(cycleOf(d, 3).hit).toBeDefined();
  });
  test('each of many rehearsals passes through what was explored, step by step', () => {
    for (const trains of [2, 3]) {
      const cycle = cycleOf(example('turns'), trains);
      for (let seed = 1; seed <= (isWhole ? 500 : 12); seed++) {
        const { passed, ends } = rehearseCycle(cycle.design, seed, 6);
        const numbers = passed.map((one) => cycle.said.indexOf(cycle.say(one)));
        expect([ends, numbers.includes(-1)]).toEqual(['runs', false]);
        for (let i = 1; i < numbers.length; i++) expect(cycle.steps[numbers[i - 1]!]!.next).toContain(numbers[i]);
        expect(numbers.length).toBeGreaterThan(6);
      }
    }
  });
  test('a pulse by hand swaps the two; switched off, only the road that lies open runs', () => {
    const d = example('turns');
    const run = new Rehearsal(compileSystem(d), 1);
    const system = run.system;
    const pass = (seconds: number) => {
      for (let i = 0; i < seconds * 50; i++) run.step();
    };
    const t1 = d.turnouts.find(({ name }) => name === 'T1')!.id;
    const inRoad = (name: string) => {
      const block = system.partition.blocks.find((one) => one.name === name)!.index;
      const train = run.plant.trains.find((one) =>
        one.held().some(({ piece }) => system.partition.pieces[piece]!.block === block),
      );
      return train?.figures.name;
    };
    const until = (so: () => boolean) => {
      for (let i = 0; i < 50 * 180 && !so(); i++) run.step();
      return so();
    };
    const given = () => run.command({ kind: 'give pulse', thing: t1, what: 'turns' });
    const letAll = (on: boolean) => {
      for (const { id } of d.trains) run.command({ kind: 'run', train: id, on });
    };
    letAll(false);
    pass(5);
    expect(given()).toBe('A train is cleared to leave there. T1 takes a pulse once it has left.');
    letAll(true);
    expect(until(() => inRoad('One') === undefined)).toBe(true);
    pass(5);
    expect(inRoad('Two')).toBe('Pickup goods');
    /** While the railcar set is on the line the turn goes to the other road: the goods leaves, and the railcar set takes its road. */
    expect(given()).toBeUndefined();
    expect(until(() => inRoad('Two') === 'Railcar set')).toBe(true);
    expect(until(() => inRoad('One') === 'Pickup goods')).toBe(true);
    expect(until(() => inRoad('Two') === undefined)).toBe(true);
    expect(run.command({ kind: 'switch automatic', thing: t1, what: 'turns', on: false })).toBeUndefined();
    const lies = run.plant.motors.map(({ position }) => position);
    const stays = lies[0] === 'straight' ? inRoad('Two') : inRoad('One');
    pass(240);
    expect(run.plant.motors.map(({ position }) => position)).toEqual(lies);
    expect(lies[0] === 'straight' ? inRoad('Two') : inRoad('One')).toBe(stays);
    expect(run.command({ kind: 'give pulse', thing: 'nobody', what: 'turns' })).toBe('Nothing works there by itself.');
  });
});

describe('proved with drivers who obey, while anybody throws points, switches it off and on, and gives pulses', () => {
  const on = new Set<Switch>([...STANDARD_SWITCHES, 'automatic'].filter((one) => one !== 'turn back') as Switch[]);
  test.each([
    ['turns', 2],
    ['three', 1],
    ['pulse', 1],
    ['overtaken', 1],
  ] as const)('%s with %i trains', (id, trains) => {
    const run = new ProofRun(withTrains(example(id), trains)!.system, 400_000, on);
    while (!run.step(5000));
    const { finished, verdicts } = run.result();
    const failing = verdicts.filter(({ result }) => result === 'fails').map(({ property }) => property);
    expect([finished, failing]).toEqual([true, []]);
  });
  test.each(['turns', 'three', 'pulse', 'overtaken', 'push'])('Spin agrees: %s', { timeout: 300_000 }, (id) => {
    const few = new Set<Switch>(id === 'turns' ? ['automatic'] : []);
    const model = new ProofModel(withTrains(example(id), 1)!.system, few, id !== 'turns');
    const [look] = spinHazards(writePromela(model), [
      ['trains touch', 'points set wrong', 'points moved under a train', 'proceed over a train'],
    ]);
    expect(look).toMatchObject({ errors: 0, complete: true });
  });
});

describe('what so many trains come to', () => {
  test.each([
    ['three', 1, 'stuck'],
    ['three', 3, 'runs'],
    ['three', 4, 'stuck'],
    ['pulse', 1, 'stuck'],
    ['pulse', 3, 'runs'],
    ['overtaken', 1, 'stuck'],
    ['overtaken', 2, 'runs'],
  ] as const)('%s with %i: %s', (id, trains, ends) => {
    const { finished, hit, stuck, hazards } = cycleOf(example(id), trains);
    expect([finished, hit, hazards, stuck === undefined ? 'runs' : 'stuck']).toEqual([true, undefined, [], ends]);
  });
  test('in the two-road block one road at most is fed, and only while the block ahead is clear', () => {
    const { system } = checkDesign(example('three'));
    const run = new Rehearsal(system, 3);
    const nth = (name: string) => system.readings.findIndex(({ signal }) => signal.name === name);
    const out = system.partition.blocks.find(({ name }) => name === 'Way out')!.index;
    let fed = 0;
    for (let tick = 0; tick < 30_000; tick++) {
      run.step();
      const go = ['O1', 'O2'].filter((name) => run.controller.isOn('proceed', nth(name)));
      fed += go.length;
      expect(go.length).toBeLessThan(2);
      if (go.length > 0) expect(run.controller.isOn('occupied', out)).toBe(false);
    }
    expect(fed).toBeGreaterThan(100);
  });
});

describe('where it cannot be', () => {
  const told = (change: (d: LayoutDocument) => void) => {
    const d = example('turns');
    change(d);
    return checkDesign(d)
      .findings.filter(({ kind }) => kind === 'automatic working that cannot be there')
      .map(({ says }) => says);
  };
  const t1 = (d: LayoutDocument) => d.turnouts.find(({ name }) => name === 'T1')!;
  test.each<[string, (d: LayoutDocument) => void, RegExp]>([
    [
      'a road without a signal at its end',
      (d) => {
        d.features = d.features.filter((one) => !(one.kind === 'signal' && one.name === 'O2'));
      },
      /T1 is to work by “takes turns”, but no signal stands at the end of the road that it leads into diverging/,
    ],
    [
      'points that trains meet trailing',
      (d) => {
        t1(d).patterns = undefined;
        d.turnouts.find(({ name }) => name === 'T2')!.patterns = ['takes turns'];
      },
      /no signal leads over it facing/,
    ],
    [
      'two ways at one turnout',
      (d) => {
        t1(d).patterns = ['takes turns', 'overtaking loop'];
      },
      /it works by “takes turns” already/,
    ],
    [
      'points that a hand throws',
      (d) => {
        t1(d).motor = 'hand';
      },
      /a hand throws it/,
    ],
  ])('%s: it is said, and the layout works without', (_, change, says) => {
    expect(told(change)).toEqual([expect.stringMatching(says)]);
  });
  test('a station to which no contact leads, or whose contact stands in a road: only a hand lets a train go', () => {
    const d = example('pulse');
    const missing = (sensors: LayoutDocument['sensors']) =>
      checkDesign({ ...d, sensors }).findings.filter(({ id }) => id.startsWith('no-pulse ')).length;
    const [others, contact] = [
      d.sensors.filter(({ name }) => name !== 'Contact'),
      d.sensors.find(({ name }) => name === 'Contact')!,
    ];
    expect(missing(d.sensors)).toBe(0);
    expect(missing(others)).toBe(1);
    expect(missing([...others, { ...contact, anchor: { ...contact.anchor, at: cm(200) } }])).toBe(1);
  });
  test('where all is well nothing is said', () => expect(told(() => {})).toEqual([]));
});
