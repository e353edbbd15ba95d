import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { divideTrack, fewestAxles, seenLimits } from '@/core/detection';
import { ProofRun } from '@/core/proof';
import { hazardOfEvent, Rehearsal } from '@/core/simulation';
import { applyEdit, type LayoutDocument, readDocument, referenceFaults } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { compileTrack, straighten, xOf } from '@/core/track';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { PLANS, planned } from '@/demo/plans';
import { fitView, type Point, SheetGeometry } from '@/ui/sheet/sheet-geometry';
import { randomLine } from './random-line';

const WIDTH = 1400;

function geometryOf(document: LayoutDocument): SheetGeometry {
  const drawing = straighten(document);
  return new SheetGeometry(drawing, fitView(drawing, WIDTH), 100, 54, WIDTH);
}
const pointsOf = (path: string): Point[] =>
  [...path.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map(([, x, y]) => ({ x: Number(x), y: Number(y) }));

/** Where two stretches of line cross, properly and not only at their ends. */
function crossing([a, b]: [Point, Point], [c, d]: [Point, Point]): Point | undefined {
  const side = (p: Point, q: Point, r: Point) => (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x);
  const [one, two, three, four] = [side(a, b, c), side(a, b, d), side(c, d, a), side(c, d, b)];
  if (one * two >= 0 || three * four >= 0) return undefined;
  const share = three / (three - four);
  return { x: a.x + share * (b.x - a.x), y: a.y + share * (b.y - a.y) };
}

/** Where drawn lines cross each other though nothing is there: no turnout and no crossing within a few pixels. */
function falseCrossings(document: LayoutDocument): string[] {
  const geometry = geometryOf(document);
  const meant = [
    ...document.turnouts.map(({ line, at }) => geometry.at(line, at.tenthUm)),
    ...document.crossings.flatMap(({ a, b }) => [a, b].map(({ line, at }) => geometry.at(line, at.tenthUm))),
  ];
  const strokes = document.lines.map(({ id, name, length }) => {
    const points = pointsOf(geometry.path(id, 0, length.tenthUm));
    return { name, parts: points.slice(1).map((to, i): [Point, Point] => [points[i]!, to]) };
  });
  return strokes.flatMap((one, i) =>
    strokes.slice(i + 1).flatMap((two) =>
      one.parts.flatMap((mine) =>
        two.parts.flatMap((theirs) => {
          const at = crossing(mine, theirs);
          const known = at && meant.some(({ x, y }) => Math.hypot(x - at.x, y - at.y) < 6);
          return at && !known ? [`${one.name} and ${two.name} at ${Math.round(at.x)}, ${Math.round(at.y)}`] : [];
        }),
      ),
    ),
  );
}

/** Lines that lie on one another: of one row, over a common stretch. */
function overlaps(document: LayoutDocument): string[] {
  const lines = [...straighten(document).lines.values()].filter(({ slants }) => !slants);
  return lines.flatMap((one, i) =>
    lines.slice(i + 1).flatMap((two) => {
      const [low, high] = [
        Math.max(Math.min(one.xAtStart, one.xAtEnd), Math.min(two.xAtStart, two.xAtEnd)),
        Math.min(Math.max(one.xAtStart, one.xAtEnd), Math.max(two.xAtStart, two.xAtEnd)),
      ];
      return one.row === two.row && high - low > 1 ? [`${one.line} and ${two.line}`] : [];
    }),
  );
}

test('there are twenty plans, each of its own', () => {
  expect(PLANS).toHaveLength(20);
  expect(new Set(PLANS.map(({ text }) => text)).size).toBe(20);
});

describe.each(PLANS)('$name', (plan) => {
  const document = planned(plan);
  test('is sound, and can be compiled', () => {
    expect(referenceFaults(document)).toEqual([]);
    expect(() => compileSystem(document).program).not.toThrow();
  });
  test('is drawn with no lines across each other but where they cross, and none upon another', () => {
    expect(falseCrossings(document)).toEqual([]);
    expect(overlaps(document)).toEqual([]);
  });
  test('is true to the ruler along its reference line, and keeps the order on every line', () => {
    const drawing = straighten(document);
    expect(drawing.lines.get(document.referenceLine)).toMatchObject({ row: 0, stretch: 1, xAtStart: 0 });
    for (const line of drawing.lines.values()) {
      const xs = [0, 0.25, 0.5, 0.75, 1].map((share) => xOf(line, share * line.length));
      const sorted = [...xs].sort((a, b) => (line.xAtEnd >= line.xAtStart ? a - b : b - a));
      expect(xs).toEqual(sorted);
    }
  });
});

const toMend = (document: LayoutDocument) =>
  checkDesign(document).findings.filter(({ severity }) => severity !== 'note');

describe.each(EXAMPLES)('the example $name', (example) => {
  const taught = exampleLayout(example);
  /** As it is once somebody has mended what it is about. */
  const mended = (): LayoutDocument => {
    const limits = seenLimits(divideTrack(taught, compileTrack(taught)));
    const done = applyEdit(taught, { do: 'fit axles', places: fewestAxles(taught, limits).places });
    if (!done.ok) throw new Error(done.problem);
    return done.change.document;
  };
  const mends = example.teaches?.includes('unseen over points');
  const document = mends ? mended() : taught;
  test('is a layout with nothing to mend but what it is about, on which every train finds its place', () => {
    expect(readDocument(taught)).toMatchObject({ ok: true });
    expect(new Set(toMend(taught).map(({ kind }) => kind))).toEqual(new Set(example.teaches));
    if (mends) expect(toMend(document)).toEqual([]);
    expect(new Rehearsal(compileSystem(document), 1).plant.notPlaced).toEqual([]);
    expect(falseCrossings(document)).toEqual([]);
  });
  test('is run for ten minutes with points thrown all the while, and nothing happens to anybody', () => {
    const run = new Rehearsal(compileSystem(document), 7);
    const hazards = new Set<string>();
    for (const { id } of document.trains) run.command({ kind: 'run', train: id, on: true });
    const { commanded, readings } = run.system;
    for (let tick = 0; tick < 30_000; tick++) {
      /** Where people set routes, somebody does so, one after the other. */
      const nth = commanded[Math.floor(tick / 600) % commanded.length];
      if (nth && tick % 300 === 0) {
        const { id } = readings[nth.signal]!.signal;
        if (tick % 600 === 0) run.command({ kind: 'set route', signal: id, route: nth.route });
        else if (run.aspectAt(nth.signal).stopsIn === 0) run.command({ kind: 'cancel routes', signal: id });
      }
      if (tick % 400 === 0)
        for (const [i, motor] of run.motors.entries())
          if ((tick / 400 + i) % 3 === 0)
            run.command({ kind: 'throw', turnout: motor.id, to: tick % 800 === 0 ? 'diverging' : 'straight' });
      run.step((event) => {
        const hazard = hazardOfEvent(event);
        if (hazard) hazards.add(hazard);
      });
    }
    expect([...hazards]).toEqual([]);
    if (document.trains.length > 0) expect(run.plant.trains.some(({ head }) => head > 2000)).toBe(true);
  });
});
test.each(EXAMPLES.filter(({ id }) => id === 'circuits' || id === 'reverse-loop'))(
  'the example $name is proved',
  (example) => {
    const proof = new ProofRun(compileSystem(exampleLayout(example)), 400_000);
    while (!proof.step(20_000));
    expect(proof.result().verdicts.filter(({ result }) => result !== 'holds')).toEqual([]);
  },
);

test.each([3, 6, 8, 12])('a ladder of %d roads is drawn road beside road', (roads) => {
  const text = `line Lead ${200 + roads * 34}\nladder 80 roads ${roads} every 34 left Road long 170 no 4`;
  const ladder = planned({ name: 'Ladder', text });
  expect(falseCrossings(ladder)).toEqual([]);
  const rows = [...straighten(ladder).lines.values()].map(({ row }) => row).sort((a, b) => b - a);
  expect(rows).toEqual(Array.from({ length: roads + 1 }, (_, i) => 0 - i));
});
test('the check of drawings can fail: a ladder whose first road lies nearest is seen', () => {
  const ladder = planned(PLANS.find(({ name }) => name.startsWith('Ladder'))!);
  const rows = ladder.lines.map((line, i) => (i === 0 ? line : { ...line, drawing: { row: -i } }));
  expect(falseCrossings({ ...ladder, lines: rows }).length).toBeGreaterThan(3);
});
test('what is meant to be one thing looks like one: a crossover is a slope, a reverse loop comes round', () => {
  const lineOf = (name: string, line: string) => {
    const document = planned(PLANS.find((plan) => plan.name === name)!);
    return straighten(document).lines.get(document.lines.find((one) => one.name === line)!.id)!;
  };
  expect(lineOf('Two circuits and a crossover', 'Track 3')).toMatchObject({ slants: true, row: 0.5, stretch: 1 });
  expect(lineOf('Reverse loop', 'Round')).toMatchObject({ roundAtEnd: { row: 0 } });
  expect(lineOf('Reverse loop', 'Main')).toMatchObject({ roundAtEnd: { row: -1 } });
  expect(lineOf('Reverse loop', 'Main').cutAtEnd).toBeUndefined();
});
test('thirty random lines are drawn without lines across or upon each other', () => {
  for (let seed = 1; seed <= 30; seed++) {
    const document = randomLine(seed);
    expect({ seed, across: falseCrossings(document), upon: overlaps(document) }).toEqual({
      seed,
      across: [],
      upon: [],
    });
  }
});
