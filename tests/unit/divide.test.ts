import { describe, expect, test } from 'vitest';
import { divideTrack, type Partition } from '@/core/detection';
import { type DivideWishes, divideEdit, suggestGaps, usualWishes } from '@/core/divide';
import { mostCuts, type Room, spreadCuts, toSteps } from '@/core/divide/spread-cuts';
import { cm } from '@/core/measure';
import { applyEdit, type LayoutDocument, readDocument } from '@/core/survey';
import { compileTrack } from '@/core/track';
import { generatedLine } from '@/demo/generated';
import { ring } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { PLANS, planned } from '@/demo/plans';
import { smallValley } from '@/demo/small-valley';
import { Draw } from '../../tools/fuzz/draw';
import { bare, circuits, wishes } from './dividing';
import { randomLine } from './random-line';
import { randomPlan } from './random-plan';

function divided(d: LayoutDocument, asked: DivideWishes): { document: LayoutDocument; partition: Partition } {
  const done = applyEdit(d, divideEdit(d, suggestGaps(d, asked), true));
  if (!done.ok) throw new Error(done.problem);
  const { document } = done.change;
  return { document, partition: divideTrack(document, compileTrack(document)) };
}

/** Blocks on a way in which a train of that length may stand: those with no blades in them, unless points belong to blocks. */
function placesOn(partition: Partition, way: readonly number[], longest: number, points = 'routes'): number[] {
  const blocks = new Set(way.flatMap((edge) => partition.piecesOfEdge[edge]!.map(({ block }) => block)));
  return [...blocks].filter(
    (b) => (points === 'blocks' || partition.blocks[b]!.points.length === 0) && partition.blocks[b]!.length >= longest,
  );
}

describe('cuts between two boundaries, against every set of places', () => {
  const room = (from: number, to: number, barred: [number, number][], before = 0, after = 0): Room => ({
    from,
    to,
    before,
    after,
    barred: barred.map(([a, b]) => ({ from: a, to: b })),
  });
  const sets = ({ from, to, barred }: Room): number[][] => {
    const free = Array.from({ length: to - from - 1 }, (_, i) => from + 1 + i).filter(
      (at) => !barred.some((b) => at > b.from && at < b.to),
    );
    return Array.from({ length: 2 ** free.length }, (_, bits) => free.filter((_, i) => (bits >> i) & 1));
  };
  const blocksOf = ({ from, to, before, after }: Room, cuts: readonly number[]) => {
    const ends = [from - before, ...cuts, to + after];
    return ends.slice(1).map((end, i) => end - ends[i]!);
  };
  test('as many as there can be, and the shortest block as long as can be', () => {
    let tried = 0;
    for (let seed = 1; seed <= 120; seed++) {
      const draw = new Draw(seed);
      const from = draw.below(5);
      const to = from + draw.whole(4, 13);
      const at = draw.whole(from, to);
      const one = room(from, to, draw.chance(0.6) ? [[at, at + draw.whole(1, 4)]] : [], draw.below(3), draw.below(3));
      const need = draw.whole(1, 5);
      const all = sets(one).filter((cuts) => Math.min(...blocksOf(one, cuts)) >= need);
      const most = Math.max(0, ...all.map((cuts) => cuts.length));
      expect({ seed, most: mostCuts(one, need) }).toEqual({ seed, most });
      for (let count = 1; count <= most; count++) {
        const best = Math.max(
          ...all.filter((cuts) => cuts.length === count).map((cuts) => Math.min(...blocksOf(one, cuts))),
        );
        const cuts = spreadCuts(one, count, need);
        expect({ seed, count, cuts: cuts.length, shortest: Math.min(...blocksOf(one, cuts)) }).toEqual({
          seed,
          count,
          cuts: count,
          shortest: best,
        });
        expect(cuts.every((cut) => cut > from && cut < to && !one.barred.some((b) => cut > b.from && cut < b.to))).toBe(
          true,
        );
        const stepped = toSteps(one, cuts, need, (x) => Math.round(x / 3) * 3);
        expect(Math.min(...blocksOf(one, stepped))).toBeGreaterThanOrEqual(need);
        tried += 1;
      }
    }
    expect(tried).toBeGreaterThan(150);
  });
});

describe('a ring', () => {
  /** References 10: N blocks on a ring let K trains go round just when K is at most N − 1. */
  test.each([1, 2, 3, 4, 5])('with %d trains gets one block more than trains, all alike', (trains) => {
    const d = bare(ring('Ring', 4, 120));
    const { cuts, places, impossible } = suggestGaps(d, wishes({ trains }));
    expect({ cuts: cuts.length, places, impossible }).toEqual({
      cuts: trains + 1,
      places: trains + 1,
      impossible: undefined,
    });
    const at = cuts.map((cut) => cut.at).sort((a, b) => a - b);
    const blocks = at.map((one, i) => (at[i + 1] ?? at[0]! + cm(480).tenthUm) - one);
    expect(Math.max(...blocks) - Math.min(...blocks)).toBeLessThanOrEqual(cm(1).tenthUm);
  });
  test('that is too short for them says what to give up, and as little of it as will do', () => {
    const d = bare(ring('Ring', 4, 120));
    const asked = wishes({ trains: 4, stopping: cm(50).tenthUm });
    const { impossible, cuts } = suggestGaps(d, asked);
    expect(cuts.length).toBe(1);
    /** 480 cm: four blocks of 110 cm, so three trains; without room to stop eight of 60 cm; five of 96 cm hold 46 cm and the room to stop. */
    expect(impossible).toEqual({
      lines: ['oval'],
      places: 4,
      giveUp: [{ stopping: 0 }, { trains: 3 }, { longest: cm(46).tenthUm }],
    });
    for (const change of impossible!.giveUp) expect(suggestGaps(d, { ...asked, ...change }).impossible).toBeUndefined();
  });
  test('keeps the gaps that are fixed, and those that are tentative only when that is wished for', () => {
    const d = bare(ring('Ring', 4, 120));
    const gap = (id: string, at: number, certainty: 'fixed' | 'tentative') =>
      ({ id, kind: 'gap', line: 'oval', at: cm(at), rail: 'right', certainty }) as const;
    d.features.push(gap('g1', 100, 'fixed'), gap('g2', 400, 'tentative'));
    expect(suggestGaps(d, wishes()).cuts.map(({ at }) => at)).toEqual([cm(250).tenthUm]);
    const anew = suggestGaps(d, wishes({ keep: 'fixed' }));
    expect(anew.without).toEqual(['g2']);
    expect(anew.cuts.map(({ at }) => at)).toEqual([cm(260).tenthUm, cm(420).tenthUm]);
    const done = applyEdit(d, divideEdit(d, anew, true));
    expect(done.ok && done.change.document.features.map(({ at }) => at.tenthUm)).toEqual(
      [100, 260, 420].map((at) => cm(at).tenthUm),
    );
    expect(done.ok && done.change.document.sensors.map(({ name }) => name)).toEqual(['D1', 'D2', 'D3']);
  });
  test('lays the others out around what is put somewhere', () => {
    const d = bare(ring('Ring', 4, 120));
    const at = (...some: number[]) => some.map((one) => ({ line: 'oval', at: cm(one).tenthUm }));
    const held = suggestGaps(d, wishes({ held: at(100) }));
    /** By hand: three blocks of 160 cm from 100 cm on. */
    expect(held.cuts.map((one) => [one.at / 1e5, one.reason.kind])).toEqual([
      [100, 'held'],
      [260, 'places'],
      [420, 'places'],
    ]);
    /** 30 cm between the first two hold no train of 60: the rest, 450 cm, is three blocks of 150 cm. */
    expect(suggestGaps(d, wishes({ held: at(100, 130) })).cuts.map((one) => one.at / 1e5)).toEqual([
      100, 130, 280, 430,
    ]);
    expect(suggestGaps(d, wishes({ held: at(481) }))).toEqual(suggestGaps(d, wishes()));
    d.features.push({ id: 'g', kind: 'gap', line: 'oval', at: cm(10), rail: 'right', certainty: 'fixed' });
    expect(suggestGaps(d, wishes({ held: at(100) })).without).toEqual([]);
  });
  test('is not cut along a platform', () => {
    const d = bare(ring('Ring', 4, 120));
    d.features.push({
      id: 'pl',
      kind: 'platform',
      line: 'oval',
      at: cm(140),
      to: cm(230),
      name: 'Halt',
      certainty: 'fixed',
    });
    const { cuts } = suggestGaps(d, wishes());
    expect(cuts.length).toBe(3);
    expect(cuts.filter(({ at }) => at > cm(140).tenthUm && at < cm(230).tenthUm)).toEqual([]);
  });
});

const RANDOM = [
  ...Array.from({ length: 60 }, (_, i) => bare(randomPlan(i + 1))),
  ...Array.from({ length: 40 }, (_, i) => bare(randomLine(i + 1))),
];
const CLASSIC = [...PLANS.map((plan) => bare(planned(plan))), bare(smallValley()), bare(ondrelValley())];

describe('divided as was suggested, looked at from outside', () => {
  test.each(['routes', 'blocks'] as const)(
    'points that belong to %s: every way round has places enough, and no block is fouled',
    (points) => {
      let possible = 0;
      for (const [i, d] of [...RANDOM, ...CLASSIC].entries()) {
        const asked = wishes({
          points,
          trains: 1 + (i % 4),
          longest: cm(30 + (i % 3) * 20).tenthUm,
          shortest: cm(20).tenthUm,
        });
        const suggestion = suggestGaps(d, asked);
        expect(suggestion.complete).toBe(true);
        const { document, partition } = divided(d, asked);
        expect(readDocument(JSON.parse(JSON.stringify(document))).ok).toBe(true);
        expect(partition.sections.every(({ sensors }) => sensors.length === 1)).toBe(true);
        /** Nothing more is suggested then. */
        expect({ name: d.name, cuts: suggestGaps(document, asked).cuts }).toEqual({ name: d.name, cuts: [] });
        /** Where two tracks foul each other, no train stands in a block without points. */
        for (const { a, b } of partition.graph.fouling)
          for (const { edge, from, to } of [...a, ...b])
            for (const piece of partition.piecesOfEdge[edge]!) {
              const touches = piece.from < to && piece.to > from;
              const block = partition.blocks[piece.block]!;
              if (touches && block.points.length === 0 && block.length >= asked.shortest)
                expect(d.crossings.length, `${d.name}: ${block.name}`).toBeGreaterThan(0);
            }
        if (suggestion.impossible) continue;
        possible += 1;
        for (const way of circuits(partition.graph))
          expect(placesOn(partition, way, asked.longest, points).length, `${d.name}: ${way}`).toBeGreaterThan(
            asked.trains,
          );
      }
      expect(possible).toBeGreaterThan(60);
    },
  );

  /** The plain blocks that there are with one train, each cut into as many as its length holds: every combination with fewer cuts fails. */
  test('with as few gaps as will do, and a division wherever there is one', () => {
    let [fewest, none] = [0, 0];
    for (const [i, d] of [...RANDOM, ...CLASSIC].entries()) {
      if (d.crossings.length > 0 || d.features.some(({ kind }) => kind === 'platform')) continue;
      const asked = wishes({
        trains: 2 + (i % 3),
        longest: cm(40).tenthUm,
        stopping: cm((i % 2) * 30).tenthUm,
        shortest: cm(20).tenthUm,
      });
      const suggestion = suggestGaps(d, asked);
      const own = suggestion.cuts.filter(({ reason }) => reason.kind === 'places').length;
      const { partition } = divided(d, { ...asked, trains: 0 });
      const need = asked.longest + asked.stopping;
      const ways = circuits(partition.graph).map((way) => placesOn(partition, way, asked.longest));
      const usable = [...new Set(ways.flat())];
      if (ways.length === 0 || usable.length > 9) continue;
      const more = usable.map((b) => Math.max(0, Math.floor(partition.blocks[b]!.length / need) - 1));
      let best = Number.POSITIVE_INFINITY;
      const tryAll = (k: number, counts: number[], sum: number) => {
        if (sum >= best) return;
        if (k < usable.length) {
          for (let n = 0; n <= Math.min(more[k]!, asked.trains + 1); n++) tryAll(k + 1, [...counts, n], sum + n);
          return;
        }
        if (ways.every((way) => way.reduce((n, b) => n + 1 + counts[usable.indexOf(b)]!, 0) > asked.trains)) best = sum;
      };
      tryAll(0, [], 0);
      if (best === Number.POSITIVE_INFINITY) {
        none += 1;
        expect(suggestion.impossible, d.name).toBeDefined();
      } else {
        fewest += 1;
        expect({ name: d.name, own, impossible: suggestion.impossible }).toEqual({
          name: d.name,
          own: best,
          impossible: undefined,
        });
      }
    }
    expect({ fewest: fewest > 30, none: none > 5 }).toEqual({ fewest: true, none: true });
  });
});

test('the valley that is divided already is left as it is; its usual wishes are of its trains', () => {
  const d = smallValley();
  const asked = usualWishes(d);
  /** By hand: Quarry empties is the longest of four, 145 cm. */
  expect([asked.trains, asked.longest]).toEqual([4, cm(145).tenthUm]);
  const stopper = d.trains.find(({ name }) => name === 'Morning stopper')!;
  const movement = {
    id: 'm',
    from: 'Undercroft',
    to: 'Marrowick',
    facing: 'up',
    perHour: 2,
    turnsBack: 'no',
    notes: '',
  } as const;
  /** Once there is a timetable, only the trains that run by it count. */
  expect(usualWishes({ ...d, movements: [{ ...movement, train: stopper.id }] }).trains).toBe(1);
  expect(suggestGaps(d, { ...asked, points: 'routes' })).toMatchObject({ cuts: [], without: [] });
});

test('a hundred blocks, to the end', () => {
  const d = bare(generatedLine(100));
  expect(suggestGaps(d, wishes({ trains: 8 })).complete).toBe(true);
});
