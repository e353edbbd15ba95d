import { describe, expect, test } from 'vitest';
import { checkDesign, tryByHand, viewDesign } from '@/core/design';
import { compileProgram, Interpreter } from '@/core/logic';
import { cm } from '@/core/measure';
import { type LayoutDocument, newDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { block, gap, signal, turnout } from '@/demo/build';
import { blockIds } from './block-ids';
import { ruleNamed } from './rule-named';

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
