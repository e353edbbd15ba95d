import { describe, expect, test } from 'vitest';
import { Bench, checkDesign, tryByHand, viewDesign } from '@/core/design';
import { compileProgram, Interpreter } from '@/core/logic';
import { cm } from '@/core/measure';
import { hazardsNow, Rehearsal } from '@/core/simulation';
import { type LayoutDocument, newDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { block, gap, signal, train, turnout, vehicle } from '@/demo/build';
import { drawnLayout } from '../../tools/fuzz/drawn-layout';
import { blockIds } from './block-ids';
import { ruleNamed } from './rule-named';
import { ofSweep } from './sweep';

/** A single line between two stations of two roads each: the simplest place where trains can meet. */
function meet(first: 'E' | 'W'): LayoutDocument {
  const d = newDocument('Meet');
  const line = (id: string, length: number) => ({ id, name: id, length: cm(length), drawing: undefined });
  d.referenceLine = 'a';
  d.lines = [line('a', 900), line('l', 140), line('r', 140)];
  d.turnouts = [turnout('T1', 'a', 150, 'down', 'left', 'l'), turnout('T2', 'a', 750, 'up', 'left', 'r')];
  d.features = [
    gap('g1', 'a', 100),
    gap('g2', 'a', 200),
    gap('g3', 'a', 700),
    gap('g4', 'a', 800),
    gap('g5', 'l', 90),
    gap('g6', 'r', 50),
  ];
  const east = signal('E', 'a', 100, 'up');
  const west = signal('W', 'a', 800, 'down');
  d.features.push(
    ...(first === 'E' ? [east, west] : [west, east]),
    signal('ToB', 'a', 700, 'up'),
    signal('ToA', 'a', 200, 'down'),
  );
  const blocks = [
    ['A', 'a', 50],
    ['L', 'l', 40],
    ['TA', 'a', 150],
    ['Single', 'a', 450],
    ['TB', 'a', 750],
    ['B', 'a', 850],
    ['R', 'r', 100],
  ] as const;
  for (const [name, on, at] of blocks) block(d, name, on, at);
  return d;
}

function runner(d: LayoutDocument) {
  const { program } = compileSystem(d);
  const compiled = compileProgram(program);
  const run = new Interpreter(compiled);
  const named = (text: string) => ruleNamed(program, text);
  let now = 0;
  return {
    set: (name: string, value: number) => run.setInput(compiled.slots.get(named(name))!, value),
    pass: (ms: number) => {
      for (const end = now + ms; now < end; now += 20) run.scan(now);
    },
    shows: (name: string) => ['stop', 'caution', 'clear'][run.valueOf(named(`signal.${name}`))],
    is: (name: string) => run.valueOf(named(name)) === 1,
  };
}

describe('a single line with traffic both ways', () => {
  test.each(['E', 'W'] as const)('of two requests in the same scan the signal placed first wins (%s)', (first) => {
    const line = runner(meet(first));
    line.pass(10_000);
    line.set('detect.A', 1);
    line.set('detect.B', 1);
    line.pass(100);
    const other = first === 'E' ? 'W' : 'E';
    expect(line.shows(first)).not.toBe('stop');
    expect(line.shows(other)).toBe('stop');
    line.pass(60_000);
    expect(line.shows(other)).toBe('stop');
  });

  test('the direction is kept while the train is on the line, and given up when it has been empty for the release time', () => {
    const line = runner(meet('E'));
    line.pass(10_000);
    line.set('detect.A', 1);
    line.pass(100);
    expect([line.is('held.Single.onward'), line.is('held.Single.back')]).toEqual([true, false]);
    line.set('detect.TA', 1);
    line.pass(100);
    line.set('detect.A', 0);
    line.set('detect.B', 1);
    line.pass(20_000);
    expect(line.shows('W')).toBe('stop');
    line.set('detect.Single', 1);
    line.pass(100);
    line.set('detect.TA', 0);
    line.pass(30_000);
    expect([line.shows('E'), line.shows('W')]).toEqual(['stop', 'stop']);
    line.set('detect.Single', 0);
    // One second of hold time, and the release time of five where no train is surveyed.
    line.pass(1000 + 4900);
    expect(line.shows('W')).toBe('stop');
    line.pass(300);
    expect(line.shows('W')).not.toBe('stop');
  });

  test('at power-up both directions are held: nothing is cleared towards a train that may come either way', () => {
    const line = runner(meet('E'));
    line.set('detect.A', 1);
    line.set('detect.Single', 1);
    line.set('detect.B', 1);
    line.pass(20_000);
    expect([line.is('held.Single.onward'), line.is('held.Single.back')]).toEqual([true, true]);
    expect([line.shows('E'), line.shows('W')]).toEqual(['stop', 'stop']);
  });

  test('a person says which way a standing train came in; the other direction is then let go', () => {
    const line = runner(meet('E'));
    line.set('detect.Single', 1);
    line.pass(1000);
    line.set('tell.Single.onward', 1);
    line.pass(40);
    line.set('tell.Single.onward', 0);
    line.pass(1000);
    expect([line.is('held.Single.onward'), line.is('held.Single.back')]).toEqual([true, false]);
  });
});

describe('trying by hand', () => {
  test('with an axle in A the line clears eastward only; with one in the single block nothing clears', () => {
    const d = meet('E');
    const design = checkDesign(d);
    const shows = (occupied: string[]) => {
      const values = tryByHand(design, { occupied: blockIds(design, occupied), points: {} });
      return ['signal.E', 'signal.W'].map((text) => values[ruleNamed(design.system.program, text)]);
    };
    expect(shows([])).toEqual([0, 0]);
    expect(shows(['A'])[0]).toBeGreaterThan(0);
    expect(shows(['A', 'Single'])).toEqual([0, 0]);
  });
  test('the view of a design says what locks each turnout and where signals can stand', () => {
    const view = viewDesign(meet('E'));
    expect(view.blocks.find((b) => b.name === 'Single')!.ends).toEqual([
      { line: 'a', at: cm(200).tenthUm, governs: 'down' },
      { line: 'a', at: cm(700).tenthUm, governs: 'up' },
    ]);
  });
});

describe('a block that is made of several pieces of track', () => {
  /** A ring whose first block goes on over the join of its line, from 420 cm round to 60 cm, with signals both ways at 200 cm alone. */
  const joined = (at: number, facing: 'up' | 'down') => {
    const d = newDocument('Joined');
    d.lines = [{ id: 'a', name: 'a', length: cm(480), drawing: undefined }];
    d.referenceLine = 'a';
    d.joins = [{ id: 'j', a: { line: 'a', end: 'end' }, b: { line: 'a', end: 'start' } }];
    for (const [i, cut] of [60, 200, 420].entries()) {
      d.features.push(gap(`g${i}`, 'a', cut), signal(`U${i}`, 'a', cut, 'up'), signal(`D${i}`, 'a', cut, 'down'));
    }
    block(d, 'One', 'a', 20);
    block(d, 'Two', 'a', 100);
    block(d, 'Three', 'a', 300);
    d.vehicles = ['v', 'w'].map((id) => vehicle(id, id, 12, [2, 10], () => true, 100));
    const rates = { up: 90, down: 150, delayMs: 200, is: 'measured' } as const;
    d.trains = [
      train('t', 'T', ['v'], 30, { line: 'a', at, facing }, rates),
      train(
        'u',
        'U',
        ['w'],
        30,
        { line: 'a', at: facing === 'up' ? 120 : 360, facing: facing === 'up' ? 'down' : 'up' },
        rates,
      ),
    ];
    return d;
  };
  test.each([
    [460, 'up'],
    [40, 'up'],
    [40, 'down'],
    [460, 'down'],
  ] as const)('a train at %i cm that faces %s stands face to face with one in the next block', (at, facing) => {
    const run = new Rehearsal(compileSystem(joined(at, facing)), 1);
    expect(hazardsNow(run).map(({ id }) => id)).toContain('face to face');
  });
  test.each(['U', 'D'])('a train that comes to the signal %s out of it is cleared by the table as by a run', (way) => {
    const d = joined(way === 'U' ? 40 : 460, way === 'U' ? 'up' : 'down');
    const alone = { ...d, trains: d.trains.slice(0, 1) };
    const name = way === 'U' ? 'U0' : 'D2';
    const system = compileSystem(alone);
    const nth = system.readings.findIndex(({ signal }) => signal.name === name);
    const run = new Rehearsal(system, 1);
    run.command({ kind: 'run', train: 't', on: false });
    for (let tick = 0; tick < 500; tick++) run.step();
    const [from, to] = [nth, nth + 1];
    const { alone: shown } = new Bench(checkDesign(alone)).matrix({}, { from, to });
    expect(run.readOff(nth).id).not.toBe('stop');
    expect(shown[0]).toBe(run.readOff(nth).id);
  });
});

test('the rules of layouts drawn by chance compile, where a route comes round into a section once more, too', () => {
  for (let seed = 1; seed <= ofSweep(3000); seed++) {
    const { document } = drawnLayout(seed);
    expect(() => compileSystem(document).compiled, document.name).not.toThrow();
  }
});
