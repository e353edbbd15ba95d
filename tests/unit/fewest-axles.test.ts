import highs from 'highs';
import { describe, expect, test } from 'vitest';
import { bestAxles, fewestAxles, type SeenLimits } from '@/core/detection';
import { cm } from '@/core/measure';
import {
  type AxlePlace,
  applyEdit,
  type LayoutDocument,
  newDocument,
  readDocument,
  type Train,
  type Vehicle,
} from '@/core/survey';
import { Draw } from '../../tools/fuzz/draw';

/** Trains by chance of wagons by chance; some wagons serve in several trains, some twice in one, some turned, some take none. */
function yard(seed: number, wagons: number, trains: number, longest: number): LayoutDocument {
  const draw = new Draw(seed);
  const d = newDocument(`Yard ${seed}`);
  d.vehicles = Array.from({ length: wagons }, (_, i): Vehicle => {
    const length = draw.whole(9, 26);
    const at = [...new Set([draw.whole(1, 3), draw.whole(4, 6), length - draw.whole(1, 3)])].sort((a, b) => a - b);
    return {
      id: `v${i}`,
      name: `Wagon ${i}`,
      kind: 'wagon',
      length: cm(length),
      axles: at.map((one) => ({ at: cm(one), feeds: draw.chance(0.12) ? 'lamp' : 'nothing', plastic: undefined })),
      grams: 0,
      takesNone: draw.chance(0.15) ? true : undefined,
    } as Vehicle;
  });
  d.trains = Array.from({ length: trains }, (_, t): Train => {
    const vehicles = Array.from({ length: draw.whole(1, longest) }, () => draw.pick(d.vehicles).id);
    return {
      id: `t${t}`,
      name: `Train ${t}`,
      vehicles,
      turned: vehicles.map((_, i) => i).filter(() => draw.chance(0.3)),
      topSpeedKmh: 40,
      accelerationMmPerS2: 60,
      brakingMmPerS2: 60,
      startDelayMs: 0,
      measured: [],
      start: undefined,
    };
  });
  return d;
}

/** Every axle of a train by its place from the nose in cm: by the words of the roster, and nothing of the search. */
function axlesOf(d: LayoutDocument, train: Train) {
  const seen = new Map<string, number>();
  let from = 0;
  const all = train.vehicles.flatMap((id, i) => {
    const { length, axles, takesNone } = d.vehicles.find((one) => one.id === id)!;
    const long = length.tenthUm / 1e5;
    const nth = seen.get(id) ?? 0;
    seen.set(id, nth + 1);
    const own = axles.map(({ at, feeds }, axle) => ({
      at: from + (train.turned!.includes(i) ? long - at.tenthUm / 1e5 : at.tenthUm / 1e5),
      key: JSON.stringify({ vehicle: id, nth, axle }),
      lit: feeds !== 'nothing',
      can: !takesNone,
    }));
    from += long;
    return own;
  });
  return { all, long: from };
}
const inCm = ({ blind, tail }: SeenLimits) => ({ blind: blind / 1e5, tail: tail / 1e5 });

/** Whether a train is seen enough with these axles, told from where they stand. */
function isSeen({ all, long }: ReturnType<typeof axlesOf>, fitted: ReadonlySet<string>, limits: SeenLimits): boolean {
  const { blind, tail } = inCm(limits);
  const at = all
    .filter(({ key, lit }) => lit || fitted.has(key))
    .map((one) => one.at)
    .sort((a, b) => a - b);
  if (at.length === 0 || long - at.at(-1)! > tail) return false;
  return [0, ...at].every((from, i) => (at[i] ?? long) - from <= blind);
}
const keysOf = (places: readonly AxlePlace[]) =>
  new Set(places.map(({ vehicle, nth, axle }) => JSON.stringify({ vehicle, nth, axle })));

/** The fewest by trying every set, smallest first; none where all that can be fitted is not enough. */
function byTrying(d: LayoutDocument, limits: SeenLimits): { count: number; hopeless: string[] } {
  const trains = d.trains.map((train) => ({ id: train.id, ...axlesOf(d, train) }));
  const can = [
    ...new Set(trains.flatMap(({ all }) => all.filter(({ lit, can: fits }) => fits && !lit).map(({ key }) => key))),
  ];
  const hopeless = trains.filter((train) => !isSeen(train, new Set(can), limits)).map(({ id }) => id);
  const rest = trains.filter(({ id }) => !hopeless.includes(id));
  const holds = (chosen: string[]) => rest.every((train) => isSeen(train, new Set(chosen), limits));
  const choose = (left: number, from: number, chosen: string[]): boolean => {
    if (left === 0) return holds(chosen);
    for (let i = from; i + left <= can.length; i++) if (choose(left - 1, i + 1, [...chosen, can[i]!])) return true;
    return false;
  };
  for (let count = 0; ; count++) if (choose(count, 0, [])) return { count, hopeless };
}

describe('the fewest resistor axles', () => {
  test('one train by hand: an engine, three wagons of 12 cm and a limit of 20 cm', () => {
    const d = yard(1, 1, 0, 1);
    const axles = (feeds: 'motor' | 'nothing') => [3, 9].map((at) => ({ at: cm(at), feeds, plastic: undefined }));
    d.vehicles = [
      { ...d.vehicles[0]!, id: 'e', length: cm(12), axles: axles('motor'), takesNone: undefined },
      { ...d.vehicles[0]!, id: 'w', length: cm(12), axles: axles('nothing'), takesNone: undefined },
    ];
    d.trains = [{ ...yard(1, 1, 1, 1).trains[0]!, vehicles: ['e', 'w', 'w', 'w'], turned: [] }];
    const limits = { blind: cm(20).tenthUm, tail: cm(5).tenthUm };
    /** Seen at 9; the tail asks for 45; from 9 to 45 one at 27 does: that is 18 and 18. */
    expect(fewestAxles(d, limits)).toEqual({
      places: [
        { vehicle: 'w', nth: 1, axle: 0 },
        { vehicle: 'w', nth: 2, axle: 1 },
      ],
      hopeless: [],
    });
    d.vehicles[1]!.takesNone = true;
    expect(fewestAxles(d, limits)).toEqual({ places: [], hopeless: ['t0'] });
  });
  test('as few as there are by trying every set, on 150 small yards', () => {
    let fitted = 0;
    let hopeless = 0;
    for (let seed = 1; seed <= 150; seed++) {
      const d = yard(seed, 4, 2, 4);
      const draw = new Draw(seed + 7000);
      const limits = { blind: cm(draw.whole(8, 40)).tenthUm, tail: cm(draw.whole(2, 14)).tenthUm };
      const found = fewestAxles(d, limits);
      const tried = byTrying(d, limits);
      expect({ seed, count: found.places.length, hopeless: found.hopeless }).toEqual({ seed, ...tried });
      const keys = keysOf(found.places);
      for (const train of d.trains.filter(({ id }) => !found.hopeless.includes(id)))
        expect(isSeen(axlesOf(d, train), keys, limits)).toBe(true);
      if (found.places.length > 0) {
        const done = applyEdit(d, { do: 'fit axles', places: found.places });
        if (!done.ok) throw new Error(done.problem);
        const { document } = done.change;
        expect(readDocument(JSON.parse(JSON.stringify(document))).ok).toBe(true);
        /** Fitted, every train is seen with nothing more, and none has changed but for that. */
        expect(fewestAxles(document, limits)).toEqual({ places: [], hopeless: found.hopeless });
        expect(document.trains.map((train) => axlesOf(document, train).all.map(({ at }) => at))).toEqual(
          d.trains.map((train) => axlesOf(d, train).all.map(({ at }) => at)),
        );
        for (const train of document.trains.filter(({ id }) => !found.hopeless.includes(id)))
          expect(isSeen(axlesOf(document, train), new Set(), limits)).toBe(true);
      }
      fitted += found.places.length;
      hopeless += found.hopeless.length;
    }
    expect(fitted).toBeGreaterThan(100);
    expect(hopeless).toBeGreaterThan(20);
  });
  test('with so many axles as many trains as can be, and no axle more than those need, by trying every set', () => {
    let [some, all] = [0, 0];
    for (let seed = 1; seed <= 60; seed++) {
      const d = yard(seed, 4, 3, 3);
      const draw = new Draw(seed + 9000);
      const limits = { blind: cm(draw.whole(8, 40)).tenthUm, tail: cm(draw.whole(2, 14)).tenthUm };
      const trains = d.trains.map((train) => ({ id: train.id, ...axlesOf(d, train) }));
      const can = [
        ...new Set(trains.flatMap((t) => t.all.filter(({ lit, can: fits }) => fits && !lit).map(({ key }) => key))),
      ];
      const unseenWith = (keys: ReadonlySet<string>) =>
        trains.filter((train) => !isSeen(train, keys, limits)).map(({ id }) => id);
      /** The fewest trains unseen, and with how few axles, of all sets of at most so many. */
      const best: { unseen: number; axles: number }[] = [];
      const choose = (from: number, chosen: string[]) => {
        const unseen = unseenWith(new Set(chosen)).length;
        for (let count = chosen.length; count <= 3; count++) {
          const known = best[count];
          if (!known || unseen < known.unseen || (unseen === known.unseen && chosen.length < known.axles))
            best[count] = { unseen, axles: chosen.length };
        }
        if (chosen.length < 3) for (let i = from; i < can.length; i++) choose(i + 1, [...chosen, can[i]!]);
      };
      choose(0, []);
      for (let count = 0; count <= 3; count++) {
        const found = bestAxles(d, limits, count);
        expect({ seed, count, unseen: found.unseen.length, axles: found.places.length }).toEqual({
          seed,
          count,
          ...best[count]!,
        });
        expect([...found.unseen].sort()).toEqual(unseenWith(keysOf(found.places)).sort());
        if (found.unseen.length > found.hopeless.length) some += 1;
        else all += 1;
      }
      expect(bestAxles(d, limits, 99).places.length).toBe(fewestAxles(d, limits).places.length);
    }
    expect(Math.min(some, all)).toBeGreaterThan(30);
  });
  /** An integer solver of another make (HiGHS), on the condition written anew: of every two places farther apart than the limit one between is seen. */
  test('as few as another solver finds, 60 wagons and 10 trains', async () => {
    const solver = await highs();
    for (let seed = 1; seed <= 6; seed++) {
      const d = yard(seed + 500, 60, 10, 20);
      const limits = { blind: cm(30).tenthUm, tail: cm(8).tenthUm };
      const found = fewestAxles(d, limits);
      const { blind, tail } = inCm(limits);
      const rows: string[] = [];
      const names = new Map<string, string>();
      const nameOf = (key: string) => names.get(key) ?? names.set(key, `x${names.size}`).get(key)!;
      for (const train of d.trains.filter(({ id }) => !found.hopeless.includes(id))) {
        const { all, long } = axlesOf(d, train);
        const one = (low: number, high: number) => {
          const within = all.filter(({ at }) => at > low && at < high);
          if (within.some(({ lit }) => lit)) return;
          rows.push(
            within
              .filter(({ can }) => can)
              .map(({ key }) => nameOf(key))
              .join(' + '),
          );
        };
        one(long - tail - 1e-9, long + 1);
        const marks = [0, ...all.filter(({ lit, can }) => lit || can).map(({ at }) => at), long].sort((a, b) => a - b);
        for (let i = 0; i < marks.length; i++)
          for (let k = i + 1; k < marks.length; k++) {
            if (marks[k]! - marks[i]! <= blind + 1e-9) continue;
            /** Both ends of the stretch may be seen themselves; something between them must be. */
            one(marks[i]! - (i === 0 ? 1 : 0), marks[k]! + (k === marks.length - 1 ? 1 : 0));
          }
      }
      const text = `Minimize\n obj: ${[...names.values()].join(' + ')}\nSubject To\n${[...new Set(rows)].map((row, i) => ` r${i}: ${row} >= 1`).join('\n')}\nBinary\n ${[...names.values()].join(' ')}\nEnd`;
      const { Status, ObjectiveValue } = solver.solve(text);
      expect({ seed, Status, count: Math.round(ObjectiveValue) }).toEqual({
        seed,
        Status: 'Optimal',
        count: found.places.length,
      });
    }
  });
});
