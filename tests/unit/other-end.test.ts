import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { type RehearsalEvent, replay } from '@/core/simulation';
import type { Facing, LayoutDocument } from '@/core/survey';
import { readDocument } from '@/core/survey';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { learningOval } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { explored } from '../../tools/fuzz/covering';
import { Draw } from '../../tools/fuzz/draw';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { randomPoints } from '../../tools/fuzz/random-points';

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
  for (const { a, b } of d.joins) [a, b].forEach(end);
  for (const turnout of d.turnouts) {
    for (const leg of [turnout.diverging, turnout.straight, turnout.second]) if (leg) end(leg);
    if (turnout.line !== line) continue;
    turnout.at = back(turnout.at);
    turnout.facing = other(turnout.facing);
  }
  for (const crossing of d.crossings)
    for (const place of [crossing.a, crossing.b]) if (place.line === line) place.at = back(place.at);
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

/** What is said of a layout with no number in it. */
function whatIsSaid(document: LayoutDocument) {
  const { findings, scheme } = checkDesign(document);
  const { blocks, sections, graph } = scheme.partition;
  /** A block that nobody named is called after where it begins, which is a number. */
  const nameOf = (name: string) => name.replace(/^(\w+) \d+$/, 'some of $1');
  const called = new Map<string, string>(blocks.map(({ id, name }) => [id, nameOf(name)]));
  return {
    blocks: blocks
      .map(({ name, length, points }) => `${nameOf(name)} ${length} ${points.map((p) => graph.points[p]!.id)}`)
      .sort(),
    sections: sections
      .map(({ blocks: own, sensors }) => `${own.map((b) => nameOf(blocks[b]!.name)).sort()} ${[...sensors].sort()}`)
      .sort(),
    findings: findings
      .map(({ kind, severity, subject }) => `${severity} ${kind}: ${called.get(subject) ?? subject}`)
      .sort(),
  };
}

/** What happens in a minute, with the numbers of things put into names, and no place. */
function whatHappens(document: LayoutDocument): string[] {
  const said: string[] = [];
  const motors = checkDesign(document).scheme.partition.graph.motors;
  const seen = ({ tick, event }: { tick: number; event: RehearsalEvent }) => {
    const { kind } = event;
    if (kind === 'aspect') {
      const signals = document.features.filter((feature) => feature.kind === 'signal');
      said.push(`${tick} ${(signals[event.signal] as { name: string }).name} ${event.aspect.id}`);
    } else if (kind === 'passes')
      said.push(`${tick} passes ${JSON.stringify({ ...event, at: undefined, place: undefined })}`);
    else if (kind !== 'told') said.push(`${tick} ${kind}`);
  };
  const commands = document.trains.map(({ id }) => ({
    tick: 5,
    command: { kind: 'run' as const, train: id, on: true },
  }));
  for (let i = 0; i < 12 && motors.length > 0; i++) {
    const turnout = [...motors].sort((a, b) => (a.id < b.id ? -1 : 1))[(i * 5) % motors.length]!.id;
    commands.push({
      tick: 200 + 230 * i,
      command: { kind: 'throw', turnout, to: i % 3 === 0 ? 'straight' : 'diverging' } as never,
    });
  }
  replay(document, 5, 3000, commands, seen);
  /** What comes in one tick has no order of its own. */
  return said.sort();
}

const LAYOUTS = [
  ondrelValley(),
  learningOval(),
  ...EXAMPLES.map(exampleLayout),
  ...Array.from({ length: 80 }, (_, seed) => randomLayout(seed + 100)),
  /** A slip or a crossover leads by the words of the document from the lower to the upper end of its lines: turned alone, it is another. */
  ...Array.from({ length: 60 }, (_, seed) => randomPoints(seed)).filter(({ crossings }) => crossings.length === 0),
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
      const one = explored(d, 4000);
      if (!one) continue;
      const line = new Draw(seed).pick(d.lines).id;
      const two = explored(fromOtherEnd(d, line), 8000);
      expect(`${seed} ${two?.explorer.set.size}`).toBe(`${seed} ${one.explorer.set.size}`);
      proved += 1;
    }
    expect(proved).toBeGreaterThan(15);
  });
});
