import { describe, expect, test } from 'vitest';
import type { Facing, LayoutDocument } from '@/core/survey';
import { readDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { explored } from '../../tools/fuzz/covering';
import { Draw } from '../../tools/fuzz/draw';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { randomPoints } from '../../tools/fuzz/random-points';
import { whatHappens, whatIsSaid } from './same-layout';

type Typed = { tenthUm: number; typed: string };
const other = (facing: Facing): Facing => (facing === 'up' ? 'down' : 'up');

/** The same layout with one line taped from its other end: by the words of the document, whatever says a distance or a way on it. */
function fromOtherEnd(document: LayoutDocument, line: string): LayoutDocument {
  const d = structuredClone(document);
  const long = d.lines.find(({ id }) => id === line)!.length.tenthUm;
  const back = ({ tenthUm }: Typed): Typed => ({ tenthUm: long - tenthUm, typed: '' });
  const end = (one: { line: string; end: 'start' | 'end' }) => {
    if (one.line === line) one.end = one.end === 'start' ? 'end' : 'start';
  };
  for (const one of d.lines) if (one.id === line && one.running) one.running = other(one.running);
  for (const { a, b } of d.joins) [a, b].forEach(end);
  for (const turnout of d.turnouts) {
    for (const leg of [...turnout.legs, turnout.straight]) if (leg) end(leg);
    if (turnout.line !== line) continue;
    turnout.at = back(turnout.at);
    turnout.facing = other(turnout.facing);
  }
  for (const crossing of d.crossings) {
    const turned = (['a', 'b'] as const).map((side) => {
      const mine = crossing[side].line === line;
      if (mine) crossing[side].at = back(crossing[side].at);
      return mine !== (crossing.turned === side || crossing.turned === 'both');
    });
    crossing.turned = turned[0] ? (turned[1] ? 'both' : 'a') : turned[1] ? 'b' : undefined;
  }
  for (const feature of d.features) {
    if (feature.line !== line) continue;
    if ('to' in feature) [feature.at, feature.to] = [back(feature.to), back(feature.at)];
    else feature.at = back(feature.at);
    if (feature.kind === 'signal') feature.governs = other(feature.governs);
    if (feature.kind === 'stopMark') feature.facing = other(feature.facing);
    if (feature.kind === 'gradient') feature.percent = -feature.percent;
    if (feature.kind === 'curve') feature.hand = feature.hand === 'left' ? 'right' : 'left';
    if (feature.kind === 'gap' && feature.rail !== 'both') feature.rail = feature.rail === 'left' ? 'right' : 'left';
  }
  for (const { anchor } of [...d.blocks, ...d.sensors]) if (anchor.line === line) anchor.at = back(anchor.at);
  for (const area of d.areas) if (area.line === line) [area.from, area.to] = [back(area.to), back(area.from)];
  for (const { start } of d.trains)
    if (start?.line === line) {
      start.at = back(start.at);
      start.facing = other(start.facing);
    }
  return d;
}

const LAYOUTS = [
  smallValley(),
  learningOval(),
  ...EXAMPLES.map(exampleLayout),
  ...Array.from({ length: 80 }, (_, seed) => randomLayout(seed + 100)),
  ...Array.from({ length: 60 }, (_, seed) => randomPoints(seed)),
];

describe('a line taped from its other end changes nothing but the numbers', () => {
  test.each(LAYOUTS.map((d) => [d.name, d] as const))('%s', (_, d) => {
    const before = whatIsSaid(d);
    const runs = whatHappens(d);
    for (const { id } of d.lines) {
      const turned = fromOtherEnd(d, id);
      expect(readDocument(JSON.parse(JSON.stringify(turned))).ok).toBe(true);
      expect(whatIsSaid(turned)).toEqual(before);
      expect(whatHappens(turned)).toEqual(runs);
    }
  });
  test('and the proof of it says the same, over as many states', () => {
    let proved = 0;
    for (let seed = 0; seed < 60; seed++) {
      const d = randomLayout(seed);
      const one = explored(compileSystem(d), 4000);
      if (!one) continue;
      const line = new Draw(seed).pick(d.lines).id;
      const two = explored(compileSystem(fromOtherEnd(d, line)), 8000);
      expect(`${seed} ${two?.explorer.states}`).toBe(`${seed} ${one.explorer.states}`);
      proved += 1;
    }
    expect(proved).toBeGreaterThan(15);
  });
});
