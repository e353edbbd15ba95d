import Graph, { DirectedGraph } from 'graphology';
import { connectedComponents } from 'graphology-components';
import { dijkstra } from 'graphology-shortest-path';
import { describe, expect, test } from 'vitest';
import { divideTrack } from '@/core/detection';
import { cm } from '@/core/measure';
import { type LayoutDocument, newDocument, readDocument } from '@/core/survey';
import { compileTrack, measureBetween, railsOf } from '@/core/track';
import { turnout } from '@/demo/build';
import { Draw } from '../../tools/fuzz/draw';
import { randomPlan } from './random-plan';

/**
 * Referees from a general library of graphs, on plans drawn at random. The graphs are built from the survey by the words of the document,
 * from nothing that the program compiles of it: two rails for each stretch of a line, and a state for each place and direction on it.
 */
type End = { line: string; end: 'start' | 'end' };

const plans = Array.from({ length: 500 }, (_, seed) => randomPlan(seed));
const lengthOf = (d: LayoutDocument, line: string) => d.lines.find(({ id }) => id === line)!.length.tenthUm;

/** Where a line is divided: by its turnouts, and by places beside. */
const placesOf = (d: LayoutDocument, line: string, besides: number[] = []): number[] =>
  [
    ...new Set([
      0,
      ...d.turnouts.filter((t) => t.line === line).map(({ at }) => at.tenthUm),
      ...besides,
      lengthOf(d, line),
    ]),
  ].sort((a, b) => a - b);

/** A state is a stretch of a line and a direction on it; one leads to the next. Stretches are named by their lower place. */
function statesOf(d: LayoutDocument, besides: Record<string, number[]>): DirectedGraph {
  const graph = new DirectedGraph();
  const stretches = (line: string) => {
    const at = placesOf(d, line, besides[line]);
    return at.slice(1).map((to, i) => ({ from: at[i]!, to }));
  };
  const name = (line: string, from: number, way: 'up' | 'down') => `${line} ${from} ${way}`;
  const lower = (line: string, at: number) => stretches(line).find(({ to }) => to === at)!.from;
  /** Coming onto a line by an end of it, and leaving it there. */
  const into = ({ line, end }: End) =>
    end === 'start' ? name(line, 0, 'up') : name(line, lower(line, lengthOf(d, line)), 'down');
  const outOf = ({ line, end }: End) =>
    end === 'start' ? name(line, 0, 'down') : name(line, lower(line, lengthOf(d, line)), 'up');
  for (const { id } of d.lines)
    for (const { from, to } of stretches(id))
      for (const way of ['up', 'down'] as const) graph.addNode(name(id, from, way), { length: to - from });
  const leads = (one: string, two: string) =>
    graph.mergeEdge(one, two, { weight: graph.getNodeAttribute(two, 'length') });
  for (const { id } of d.lines)
    for (const { from } of stretches(id).slice(1)) {
      leads(name(id, lower(id, from), 'up'), name(id, from, 'up'));
      leads(name(id, from, 'down'), name(id, lower(id, from), 'down'));
    }
  for (const { a, b } of d.joins) {
    leads(outOf(a), into(b));
    leads(outOf(b), into(a));
  }
  for (const { line, at, facing, legs } of d.turnouts) {
    const diverging = legs[0]!;
    const stem = facing === 'up' ? lower(line, at.tenthUm) : at.tenthUm;
    leads(name(line, stem, facing), into(diverging));
    leads(outOf(diverging), name(line, stem, facing === 'up' ? 'down' : 'up'));
  }
  return graph;
}

describe('against a library of graphs, on 500 plans', () => {
  test('the shortest way between two places, and whether there is one', () => {
    let ways = 0;
    let none = 0;
    plans.forEach((d, seed) => {
      expect(readDocument(JSON.parse(JSON.stringify(d))).ok).toBe(true);
      const draw = new Draw(9000 + seed);
      const graph = compileTrack(d);
      for (let i = 0; i < 4; i++) {
        const place = () => {
          const line = draw.pick(d.lines);
          return { line: line.id, at: draw.whole(1, line.length.tenthUm - 1) };
        };
        const [from, to] = [place(), place()];
        const besides: Record<string, number[]> = {};
        for (const { line, at } of [from, to]) besides[line] = [...(besides[line] ?? []), at];
        const states = statesOf(d, besides);
        const lower = ({ line, at }: typeof from) =>
          placesOf(d, line, besides[line])
            .filter((one) => one < at)
            .at(-1)!;
        /** Set out up or down from the place; arrive at it from below or from above. */
        const starts = [`${from.line} ${from.at} up`, `${from.line} ${lower(from)} down`];
        const ends = [`${to.line} ${lower(to)} up`, `${to.line} ${to.at} down`];
        let best = from.line === to.line && from.at === to.at ? 0 : Number.POSITIVE_INFINITY;
        for (const start of starts) {
          const path = (end: string) => dijkstra.bidirectional(states, start, end, 'weight');
          for (const end of ends) {
            const way = path(end);
            if (way)
              best = Math.min(
                best,
                way.reduce((sum, node) => sum + states.getNodeAttribute(node, 'length'), 0),
              );
          }
        }
        const ours = measureBetween(graph, from, to);
        if (best === Number.POSITIVE_INFINITY) none += 1;
        else ways += 1;
        expect(`plan ${seed}, way ${i}: ${ours?.length ?? 'none'}`).toBe(
          `plan ${seed}, way ${i}: ${best === Number.POSITIVE_INFINITY ? 'none' : best}`,
        );
      }
    });
    expect([ways, none].every((count) => count > 300)).toBe(true);
  });

  test('which rails are joined, and whether left meets right', () => {
    let clashing = 0;
    plans.forEach((d, seed) => {
      const cuts = d.features.map(({ line, at }) => ({ line, at: at.tenthUm }));
      const { spans, clashes } = railsOf(compileTrack(d), cuts);
      /** Two rails for each stretch between turnouts and cuts; a cut joins nothing. */
      const rails = new Graph({ type: 'undirected', multi: true });
      const rail = (line: string, from: number, side: string) => `${line} ${from} ${side}`;
      const divided = (line: string) =>
        placesOf(
          d,
          line,
          cuts.filter((cut) => cut.line === line).map(({ at }) => at),
        );
      for (const { id } of d.lines)
        for (const from of divided(id).slice(0, -1))
          for (const side of ['left', 'right']) rails.addNode(rail(id, from, side));
      const stretchAt = ({ line, end }: End) => (end === 'start' ? 0 : divided(line).at(-2)!);
      const other = (side: string) => (side === 'left' ? 'right' : 'left');
      const meet = (a: [string, number], b: [string, number], sameWay: boolean) => {
        for (const side of ['left', 'right']) rails.addEdge(rail(...a, side), rail(...b, sameWay ? side : other(side)));
      };
      for (const { a, b } of d.joins) meet([a.line, stretchAt(a)], [b.line, stretchAt(b)], a.end !== b.end);
      for (const { line, at, facing, legs } of d.turnouts) {
        const diverging = legs[0]!;
        const below = divided(line)
          .filter((one) => one < at.tenthUm)
          .at(-1)!;
        meet([line, below], [line, at.tenthUm], true);
        const stem: [string, number] = [line, facing === 'up' ? below : at.tenthUm];
        meet(stem, [diverging.line, stretchAt(diverging)], (facing === 'up') === (diverging.end === 'start'));
      }
      const component = new Map(connectedComponents(rails).flatMap((own, i) => own.map((node) => [node, i] as const)));
      const ours = new Map(spans.map((span) => [`${span.line} ${span.from}`, span]));
      expect([...ours.keys()].sort()).toEqual(
        [...new Set(rails.nodes().map((node) => node.replace(/ \w+$/, '')))].sort(),
      );
      const shorted = new Set(clashes.map(({ zone }) => zone));
      if (shorted.size > 0) clashing += 1;
      for (const [key, span] of ours) {
        const short = component.get(`${key} left`) === component.get(`${key} right`);
        expect(`plan ${seed} ${key}: ${shorted.has(span.zone)}`).toBe(`plan ${seed} ${key}: ${short}`);
        for (const [key2, span2] of ours) {
          const straight = component.get(`${key} left`) === component.get(`${key2} left`);
          const crossed = component.get(`${key} left`) === component.get(`${key2} right`);
          const joined = span.zone === span2.zone;
          expect(joined).toBe(straight || crossed);
          if (joined && !short) expect(span.flipped !== span2.flipped).toBe(crossed);
        }
      }
    });
    expect(clashing).toBeGreaterThan(50);
  });
});

test('every point of every line belongs to one piece, one block and one section', () => {
  for (const d of plans) {
    const { pieces, blocks, sections } = divideTrack(d, compileTrack(d));
    for (const { id, length } of d.lines) {
      const own = pieces.filter(({ line }) => line === id).sort((a, b) => a.from - b.from || a.to - b.to);
      expect(own[0]!.from).toBe(0);
      expect(own.at(-1)!.to).toBe(length.tenthUm);
      own.slice(1).forEach((piece, i) => {
        expect(piece.from).toBe(own[i]!.to);
      });
    }
    const inBlocks = blocks.flatMap((block) => block.pieces);
    expect([...inBlocks].sort((a, b) => a - b)).toEqual(pieces.map((_, i) => i));
    const inSections = sections.flatMap((section) => section.blocks);
    expect([...inSections].sort((a, b) => a - b)).toEqual(blocks.map((_, i) => i));
    for (const piece of pieces) {
      expect(blocks[piece.block]!.pieces).toContain(piece.index);
      expect(sections[piece.section]!.blocks).toContain(piece.block);
    }
  }
});

test('a loop that comes back to its turnout meets itself, and not once both rails are cut twice: by hand', () => {
  const d = newDocument('Loop');
  d.lines = [{ id: 'm', name: 'M', length: cm(400), drawing: undefined }];
  d.turnouts = [{ ...turnout('T', 'm', 100, 'up', 'left', 'm'), legs: [{ line: 'm', end: 'end' }] }];
  expect(railsOf(compileTrack(d), []).clashes).toEqual([{ zone: expect.any(Number), points: 't-T' }]);
  const both = [150, 350].map((at) => ({ line: 'm', at: cm(at).tenthUm }));
  expect(railsOf(compileTrack(d), both).clashes).toEqual([]);
});
