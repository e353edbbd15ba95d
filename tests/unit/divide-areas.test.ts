import { describe, expect, test } from 'vitest';
import { divideTrack } from '@/core/detection';
import { type DivideWishes, divideEdit, suggestGaps } from '@/core/divide';
import { cm } from '@/core/measure';
import { type Area, applyEdit, type LayoutDocument } from '@/core/survey';
import { compileTrack, type TrackGraph } from '@/core/track';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { ring } from '@/demo/learning-oval';
import { PLANS, planned } from '@/demo/plans';
import { Draw } from '../../tools/fuzz/draw';
import { bare, circuits, wishes } from './dividing';
import { randomLine } from './random-line';
import { randomPlan } from './random-plan';

/** Where crews look out for each other nothing has to be cut: a decision to protect nothing is followed by the gaps that are suggested. */

const area = (line: string, from: number, to: number, admits: Area['admits'], id = 'a1'): Area =>
  ({ id, name: id, line, from: cm(from), to: cm(to), purpose: '', admits }) as Area;
const places = (d: LayoutDocument, asked: DivideWishes) =>
  suggestGaps(d, asked).cuts.map(({ at, reason }) => [at / 1e5, reason.kind]);

describe('a ring of 480 cm', () => {
  const oval = bare(ring('Ring', 4, 120));
  const withArea = (...areas: Area[]) => ({ ...oval, areas });
  test('with an area on sight is cut at its edges and in the rest', () => {
    /** By hand: 200 cm on sight hold three trains of 60; that is enough for two trains, so that nothing more is cut. */
    expect(places(withArea(area('oval', 100, 300, 'on sight')), wishes())).toEqual([
      [100, 'area'],
      [300, 'area'],
    ]);
    /** Six places are asked for: three there, and three in 280 cm from 300 round to 100. */
    const six = suggestGaps(withArea(area('oval', 100, 300, 'on sight')), wishes({ trains: 5 })).cuts;
    expect(six.filter(({ reason }) => reason.kind === 'places').length).toBe(2);
    expect(six.filter(({ at }) => at > cm(100).tenthUm && at < cm(300).tenthUm)).toEqual([]);
  });
  test('all of it on sight is not cut at all, however many trains there are', () => {
    const all = withArea(area('oval', 0, 480, 'nothing'));
    const { cuts, impossible } = suggestGaps(all, wishes({ trains: 20 }));
    expect({ cuts, impossible }).toEqual({ cuts: [], impossible: undefined });
  });
  test('two areas that touch have no gap between them', () => {
    const two = withArea(area('oval', 100, 200, 'on sight'), area('oval', 200, 300, 'nothing', 'a2'));
    expect(places(two, wishes())).toEqual([
      [100, 'area'],
      [300, 'area'],
    ]);
  });
  test('an area with signals, one that nobody has decided on, and areas not kept whole change nothing', () => {
    const without = suggestGaps(oval, wishes()).cuts;
    for (const admits of ['automatic', 'operator', 'interlocked', undefined] as const)
      expect(suggestGaps(withArea(area('oval', 100, 300, admits)), wishes()).cuts).toEqual(without);
    const divided = suggestGaps(withArea(area('oval', 100, 300, 'on sight')), wishes({ wholeAreas: false }));
    expect(divided.cuts).toEqual(without);
  });
  test('a gap that is there a little beside its edge serves', () => {
    const d = withArea(area('oval', 100, 300, 'on sight'));
    d.features = [{ id: 'g', kind: 'gap', line: 'oval', at: cm(110), rail: 'right', certainty: 'fixed' } as const];
    expect(places(d, wishes())).toEqual([[300, 'area']]);
  });
  test('too many trains for what is left: dividing the area is one of the things to give up', () => {
    const d = withArea(area('oval', 0, 130, 'on sight'));
    /** By hand: two places of 60 on sight and five in 350 cm are seven; eight are asked for, and 480 cm hold eight. */
    const { impossible } = suggestGaps(d, wishes({ trains: 7 }));
    expect(impossible?.places).toBe(7);
    expect(impossible?.giveUp).toContainEqual({ wholeAreas: false });
  });
});

const isIn = (areas: readonly Area[], line: string, at: number, by = 0) =>
  areas.some((one) => one.line === line && at > one.from.tenthUm + by && at < one.to.tenthUm - by);

/** The areas, and the track that one comes to only over points whose blades lie in them: followed from joint to joint. */
function withReached(d: LayoutDocument, graph: TrackGraph): Area[] {
  const overlaps = (edge: number) => {
    const { line, from, to } = graph.edges[edge]!;
    return d.areas.some((one) => one.line === line && one.from.tenthUm < to && one.to.tenthUm > from);
  };
  const more: Area[] = [];
  for (const { index } of graph.edges) {
    const run = new Set([index]);
    const met: string[] = [];
    for (const edge of run)
      for (const end of graph.edges[edge]!.ends) {
        if (end.kind === 'track') run.add(end.edge);
        if (end.kind === 'points') met.push(graph.points[end.points]!.id);
      }
    const inside = met.every((id) => d.turnouts.some((t) => t.id === id && isIn(d.areas, t.line, t.at.tenthUm)));
    if (met.length === 0 || !inside || [...run].some(overlaps)) continue;
    const { line, from, to } = graph.edges[index]!;
    more.push({ ...d.areas[0]!, line, from: { tenthUm: from, typed: '' }, to: { tenthUm: to, typed: '' } });
  }
  return [...d.areas, ...more];
}

test('a yard on sight is not divided, nor what is reached only through it; its edge and the line outside are', () => {
  /** By hand: Yard from 20 cm behind T1 on; T2 in it leads to Road 2. T1 keeps its gap on the yard track, 35 cm before that edge. */
  const d = bare(exampleLayout(EXAMPLES.find(({ id }) => id === 'worth')!));
  const all = suggestGaps(d, wishes({ longest: cm(30).tenthUm, shortest: cm(30).tenthUm, trains: 1 }));
  const road = d.lines.find(({ name }) => name === 'Road 2')!.id;
  const yard = d.areas.find(({ admits }) => admits === 'on sight')!;
  expect(all.cuts.filter(({ line }) => line === road)).toEqual([]);
  expect(all.cuts.filter(({ line, at }) => isIn([yard], line, at))).toEqual([]);
  expect(all.cuts.filter(({ line, at }) => line === yard.line && at <= yard.from.tenthUm)).toHaveLength(2);
  const before = suggestGaps(
    { ...d, areas: [] },
    wishes({ longest: cm(30).tenthUm, shortest: cm(30).tenthUm, trains: 1 }),
  );
  expect(before.cuts.filter(({ line }) => line === road)).toHaveLength(1);
});

test.each(['routes', 'blocks'] as const)('random areas on random layouts, points that belong to %s', (points) => {
  const layouts = [
    ...Array.from({ length: 60 }, (_, i) => bare(randomPlan(i + 1))),
    ...Array.from({ length: 40 }, (_, i) => bare(randomLine(i + 1))),
    ...PLANS.map((plan) => bare(planned(plan))),
  ];
  let [cutInside, apart, ways] = [0, 0, 0];
  for (const [i, plain] of layouts.entries()) {
    const draw = new Draw(7000 + i);
    const given = Array.from({ length: 1 + draw.below(2) }, (_, n): Area => {
      const line = plain.lines[draw.below(plain.lines.length)]!;
      const length = Math.floor(line.length.tenthUm / 1e5);
      const whole = draw.chance(0.4) || length < 20;
      const from = whole ? 0 : draw.below(length - 10);
      const one = area(
        line.id,
        from,
        whole ? 1 : draw.whole(from + 5, length),
        draw.pick(['on sight', 'nothing']),
        `a${n}`,
      );
      return whole ? { ...one, to: line.length } : one;
    });
    const d = { ...plain, areas: given };
    const asked = wishes({ points, trains: 1 + (i % 3), longest: cm(40).tenthUm, shortest: cm(20).tenthUm });
    const suggestion = suggestGaps(d, asked);
    const { graph } = divideTrack(d, compileTrack(d));
    const areas = withReached(d, graph);
    /** Points with a track outside the areas, as far as its clearance point. */
    const edges = graph.points.filter(({ index, clearance }) =>
      graph.edges.some(({ line, from, to, ends }) =>
        ends.some((end, e) => {
          if (end.kind !== 'points' || end.points !== index) return false;
          const far = Math.min(clearance, to - from);
          return [10, far / 2, far].some((off) => !isIn(areas, line, e === 0 ? from + off : to - off, -1));
        }),
      ),
    );
    for (const { line, at, reason } of suggestion.cuts) {
      if (!isIn(areas, line, at)) continue;
      cutInside += 1;
      const of = 'points' in reason ? [reason.points].flat() : [];
      const says = `${d.name}: ${reason.kind} at ${at / 1e5} on ${line} for ${points}`;
      expect(
        of.some((id) => edges.some((one) => one.id === id)),
        says,
      ).toBe(true);
    }
    const done = applyEdit(d, divideEdit(d, suggestion, true));
    if (!done.ok) throw new Error(done.problem);
    const { document } = done.change;
    expect({ name: d.name, cuts: suggestGaps(document, asked).cuts }).toEqual({ name: d.name, cuts: [] });
    expect(document.sensors.filter((one) => 'line' in one && isIn(areas, one.line as string, 0))).toEqual([]);
    const partition = divideTrack(document, compileTrack(document));
    for (const { sensors, blocks } of partition.sections) {
      const inside = blocks.every((b) =>
        partition.blocks[b]!.pieces.every((p) => {
          const { line, from, to } = partition.pieces[p]!;
          return isIn(areas, line, (from + to) / 2);
        }),
      );
      if (inside) expect(sensors.length, d.name).toBe(0);
    }
    /** No block holds much of both: beyond what points foul, and what is shorter than any train. */
    const foul = Math.max(0, ...graph.fouling.flatMap(({ a, b }) => [...a, ...b].map(({ from, to }) => to - from)));
    for (const block of partition.blocks) {
      let [inside, outside] = [0, 0];
      for (const p of block.pieces) {
        const { line, from, to } = partition.pieces[p]!;
        for (let at = from; at < to; at += 1e5) {
          if (isIn(areas, line, at, -1)) inside += 1e5;
          else outside += 1e5;
        }
      }
      apart += 1;
      const most = 2 * foul + asked.longest;
      expect(Math.min(inside, outside), `${d.name}: ${block.name}, for ${points}`).toBeLessThan(most);
    }
    if (suggestion.impossible) continue;
    for (const way of circuits(partition.graph)) {
      const some = way.some((edge) => {
        const { line, from, to } = partition.graph.edges[edge]!;
        return areas.some((one) => one.line === line && one.from.tenthUm < to && one.to.tenthUm > from);
      });
      if (some) continue;
      ways += 1;
      const held = new Set(way.flatMap((edge) => partition.piecesOfEdge[edge]!.map(({ block }) => block)));
      const count = [...held].filter(
        (b) =>
          (points === 'blocks' || partition.blocks[b]!.points.length === 0) &&
          partition.blocks[b]!.length >= asked.longest,
      ).length;
      expect(count, `${d.name}: ${way}`).toBeGreaterThan(asked.trains);
    }
  }
  expect({ inside: cutInside > 5, apart: apart > 300, ways: ways > 20 }).toEqual({
    inside: true,
    apart: true,
    ways: true,
  });
});
