import { FAULT_IDS } from '../../src/core/faults';
import {
  ADMISSION_IDS,
  ASPECT_SYSTEM_IDS,
  CROSSING_KIND_IDS,
  CROSSINGS,
  EMPTY_POST_IDS,
  FEEDS,
  legsOf,
  MOTOR_KIND_IDS,
  NOTHING,
  SENSOR_KIND_IDS,
  sensorKind,
  TRACK_POWER_IDS,
  TURNOUT_KIND_IDS,
  TURNOUTS,
} from '../../src/core/kinds';
import { cm } from '../../src/core/measure';
import { CHOOSABLE, OPTIONS } from '../../src/core/patterns';
import { isKind, type LayoutDocument, signalsOf } from '../../src/core/survey';
import { block, gap, sensor, signal } from '../../src/demo/build';
import type { Draw } from './draw';

/** Brings one of a kind onto a layout; nothing where a part of it has gone. */
export type Put = (d: LayoutDocument) => void;

/** A table of kinds as the fuzz draws from it: whatever is added to the table is drawn from then on. */
export interface KindTable<Id extends string = string> {
  of: string;
  ids: readonly Id[];
  /** How often one of it comes onto a layout. */
  chance: number;
  /** Draws where and how; undefined where such a layout can have none. */
  draw(draw: Draw, document: LayoutDocument, id: Id): Put | undefined;
}
const table = <Id extends string>(own: KindTable<Id>): KindTable => own as unknown as KindTable;

const cmOf = ({ tenthUm }: { tenthUm: number }): number => tenthUm / 1e5;
const lengthOf = (d: LayoutDocument, line: string): number => cmOf(d.lines.find(({ id }) => id === line)!.length);
const someOf = <T>(draw: Draw, list: readonly T[]): T[] => {
  const some = list.filter(() => draw.chance(0.5));
  return some.length > 0 || list.length === 0 ? some : [draw.pick(list)];
};
/** What can work in a way that somebody chose. */
type Thing = Pick<LayoutDocument['sensors'][number], 'id' | 'patterns' | 'settings'>;
const thingsAt: Record<(typeof CHOOSABLE)[number]['at'], (d: LayoutDocument) => Thing[]> = {
  signal: signalsOf,
  sensor: (d: LayoutDocument) => d.sensors,
  points: (d: LayoutDocument) => [...d.turnouts, ...d.crossings],
};

const SPOTS = SENSOR_KIND_IDS.filter((id) => {
  const { reachMm, notices } = sensorKind(id);
  return reachMm !== 'section' && notices !== NOTHING;
});
const SECTIONS = SENSOR_KIND_IDS.filter((id) => sensorKind(id).reachMm === 'section');

/** Where the block around a place on a line ends, as far as gaps of that line tell. */
const endsAround = (d: LayoutDocument, line: string, at: number): number[] => {
  const cuts = d.features
    .filter(isKind('gap'))
    .filter((one) => one.line === line)
    .map((one) => cmOf(one.at));
  const [below, above] = [cuts.filter((c) => c < at), cuts.filter((c) => c > at)];
  return [...(below.length > 0 ? [Math.max(...below)] : []), ...(above.length > 0 ? [Math.min(...above)] : [])];
};

const sensors = table({
  of: 'sensor',
  ids: SENSOR_KIND_IDS,
  chance: 0.9,
  draw(draw, d, id) {
    const kind = sensorKind(id);
    const watching = d.sensors.filter((one) => SECTIONS.includes(one.kind));
    if (watching.length === 0) return undefined;
    const { id: gone, anchor } = draw.pick(watching);
    const [line, at] = [anchor.line, cmOf(anchor.at)];
    const size = lengthOf(d, line);
    const name = `${kind.names}${draw.whole(100, 999)}`;
    const holdMs = draw.pick([0, 300, kind.holdMs]);
    const made = (name: string, of: typeof id, on: string, where: number) => ({
      ...sensor(name, of, on, Math.min(lengthOf(d, on), Math.max(0, where))),
      holdMs,
    });
    const magnets = (after: LayoutDocument) => {
      for (const vehicle of after.vehicles) vehicle.magnetAt ??= cm(Math.round(cmOf(vehicle.length) / 2));
    };
    const replace = (after: LayoutDocument, others: LayoutDocument['sensors']) => {
      after.sensors = [...after.sensors.filter((one) => one.id !== gone), ...others];
      magnets(after);
    };
    if (kind.reachMm === 'section')
      return (after) => {
        for (const one of after.sensors) if (one.id === gone) Object.assign(one, { kind: id, holdMs });
      };
    if (kind.tells) {
      const spot = draw.pick(SPOTS);
      const ends = endsAround(d, line, at);
      const within = ends.map((end, i) => made(`${name}w${i}`, spot, line, end + (end < at ? 1 : -1)));
      const beyond = ends.map((end, i) => made(`${name}b${i}`, spot, line, end + (end < at ? -1 : 1)));
      return (after) => replace(after, [made(name, id, line, at), ...within, ...beyond]);
    }
    if (kind.inPairs && draw.chance(0.6)) {
      const apart = kind.inPairs.counts ? 0.3 : 1;
      const pairs = endsAround(d, line, at).flatMap((end, i) =>
        [-apart, apart].map((by) => made(`${name}p${i}${by < 0 ? 'a' : 'b'}`, id, line, end + by)),
      );
      return (after) => replace(after, pairs);
    }
    const extra = made(name, id, line, draw.whole(0, Math.floor(size)));
    return (after) => {
      after.sensors.push(extra);
      magnets(after);
    };
  },
});

const patterns = table({
  of: 'way of working',
  ids: CHOOSABLE.map(({ id }) => id),
  chance: 0.6,
  draw(draw, d, id) {
    const { at } = CHOOSABLE.find((one) => one.id === id)!;
    const chosen = someOf(draw, thingsAt[at](d)).map((thing) => thing.id);
    if (chosen.length === 0) return undefined;
    return (after) => {
      for (const thing of thingsAt[at](after))
        if (chosen.includes(thing.id)) thing.patterns = [...new Set([...(thing.patterns ?? []), id])];
    };
  },
});

const options = table({
  of: 'option',
  ids: OPTIONS.map(({ pattern, option }) => `${pattern}: ${option}`),
  chance: 0.4,
  draw(draw, d, id) {
    const option = OPTIONS.find((one) => `${one.pattern}: ${one.option}` === id)!;
    const things = thingsAt[option.at](d);
    if (things.length === 0) return undefined;
    const { id: chosen } = draw.pick(things);
    const isChosen = CHOOSABLE.some((one) => one.id === option.pattern);
    const value = draw.whole(option.least, Math.min(option.most, option.least + 20_000));
    return (after) => {
      for (const thing of thingsAt[option.at](after)) {
        if (thing.id !== chosen) continue;
        if (isChosen) thing.patterns = [...new Set([...(thing.patterns ?? []), option.pattern])];
        thing.settings = [...(thing.settings ?? []), { pattern: option.pattern, option: option.option, value }];
      }
    };
  },
});

const systems = table({
  of: 'aspect system',
  ids: ASPECT_SYSTEM_IDS,
  chance: 0.5,
  draw(draw, d, id) {
    const chosen = someOf(draw, signalsOf(d)).map((one) => one.id);
    return (after) => {
      for (const one of signalsOf(after)) if (chosen.includes(one.id)) one.system = id;
    };
  },
});

const powers = table({
  of: 'track power',
  ids: TRACK_POWER_IDS,
  chance: 0.25,
  draw: (_draw, _d, id) => (after) => {
    after.power = id;
  },
});

/** A track that leads from points, with a detector behind a gap and a signal back. */
function addLeg(after: LayoutDocument, id: string, facing: 'up' | 'down'): { line: string; end: 'start' | 'end' } {
  const length = 90;
  after.lines.push({ id, name: id, length: cm(length), drawing: undefined });
  const at = facing === 'up' ? 30 : length - 30;
  after.features.push(gap(`g-${id}`, id, at), signal(`B-${id}`, id, at, facing === 'up' ? 'down' : 'up'));
  block(after, `Leg ${id}`, id, facing === 'up' ? length - 20 : 20);
  return { line: id, end: facing === 'up' ? 'start' : 'end' };
}

const turnouts = table({
  of: 'turnout',
  ids: TURNOUT_KIND_IDS,
  chance: 0.25,
  draw(draw, d, id) {
    if (d.turnouts.length === 0) return undefined;
    const { id: chosen } = draw.pick(d.turnouts);
    const lies = TURNOUTS[id].motors.map(() => draw.pick(['straight', 'diverging'] as const));
    return (after) => {
      const points = after.turnouts.find((one) => one.id === chosen);
      if (!points) return;
      const wanted = legsOf(id).length;
      while (points.legs.length < wanted)
        points.legs.push(addLeg(after, `${chosen}-${points.legs.length}`, points.facing));
      if (points.legs.length === wanted) Object.assign(points, { kind: id, lies });
    };
  },
});

const crossings = table({
  of: 'crossing',
  ids: CROSSING_KIND_IDS,
  chance: 0.2,
  draw(draw, d, id) {
    const lies = CROSSINGS[id].motors.map(() => draw.pick(['straight', 'diverging'] as const));
    const own = { kind: id, lies: lies.length > 0 ? lies : undefined, throwMs: draw.pick([200, 1500]) };
    if (d.crossings.length > 0) {
      const { id: chosen } = draw.pick(d.crossings);
      return (after) => {
        for (const one of after.crossings) if (one.id === chosen) Object.assign(one, own);
      };
    }
    const [a, b] = [draw.pick(d.lines), draw.pick(d.lines)];
    if (a.id === b.id) return undefined;
    const [at, bt] = [a, b].map(({ length }) => cm(draw.whole(20, Math.max(21, Math.floor(cmOf(length)) - 20))));
    const angleDegrees = draw.whole(10, 90);
    const clearance = cm(draw.whole(4, 18));
    return (after) =>
      after.crossings.push({
        id: 'xx',
        name: 'XX',
        a: { line: a.id, at: at! },
        b: { line: b.id, at: bt! },
        angleDegrees,
        clearance,
        certainty: 'fixed',
        ...own,
      });
  },
});

const motors = table({
  of: 'motor',
  ids: MOTOR_KIND_IDS,
  chance: 0.3,
  draw(draw, d, id) {
    const chosen = someOf(draw, d.turnouts).map((one) => one.id);
    if (chosen.length === 0) return undefined;
    return (after) => {
      for (const one of after.turnouts)
        if (chosen.includes(one.id)) Object.assign(one, { motor: id, throwMs: undefined });
    };
  },
});

/** The area is all of a line, with an operator’s signals on it where it is for that. */
const posted = (
  draw: Draw,
  d: LayoutDocument,
): { line: string; length: LayoutDocument['lines'][number]['length']; by: string[] } => {
  const { id: line, length } = draw.pick(d.lines);
  return { line, length, by: someOf(draw, signalsOf(d)).map(({ id }) => id) };
};
const addArea = (
  after: LayoutDocument,
  { line, length, by }: ReturnType<typeof posted>,
  own: Partial<LayoutDocument['areas'][number]>,
) => {
  after.areas.push({ id: `ar-${line}`, name: `Area ${line}`, line, from: cm(0), to: length, purpose: '', ...own });
  for (const one of signalsOf(after))
    if (by.includes(one.id) && own.admits === 'operator')
      one.patterns = [...new Set([...(one.patterns ?? []), 'authority'])];
};
/** Kinds that an area says, each by a field of its own. */
const ofAreas = <Id extends string>(
  of: string,
  ids: readonly Id[],
  own: (id: Id) => Partial<LayoutDocument['areas'][number]>,
): KindTable =>
  table({
    of,
    ids,
    chance: 0.15,
    draw(draw, d, id) {
      const where = posted(draw, d);
      return (after) => addArea(after, where, own(id));
    },
  });
const admissions = ofAreas('way of letting in', ADMISSION_IDS, (admits) => ({ admits }));
const emptyPosts = ofAreas('empty post', EMPTY_POST_IDS, (whenEmpty) => ({ admits: 'operator', whenEmpty }));

const feeds = table({
  of: 'axle that feeds',
  ids: FEEDS,
  chance: 0.2,
  draw(draw, d, id) {
    const chosen = d.vehicles.flatMap(({ id: of, axles }) => someOf(draw, [...axles.keys()]).map((k) => `${of} ${k}`));
    return (after) => {
      for (const { id: of, axles } of after.vehicles)
        for (const [k, axle] of axles.entries()) if (chosen.includes(`${of} ${k}`)) axle.feeds = id;
    };
  },
});

const running = table({
  of: 'line run one way',
  ids: ['up', 'down'] as const,
  chance: 0.15,
  draw(draw, d, id) {
    const { id: chosen } = draw.pick(d.lines);
    return (after) => {
      for (const line of after.lines) if (line.id === chosen) line.running = id;
    };
  },
});

/** Everything that makes one layout work otherwise than another, in the order in which it comes onto it. */
export const KIND_TABLES: readonly KindTable[] = [
  turnouts,
  crossings,
  motors,
  sensors,
  systems,
  patterns,
  options,
  powers,
  admissions,
  emptyPosts,
  feeds,
  running,
];

/** What fails on some layouts, each in one way. */
export const FAULTS_DRAWN = { of: 'fault', ids: FAULT_IDS, chance: 0.25 } as const;

/** Says how everything is wired, so that it can fail in every way. */
export function wire(draw: Draw, d: LayoutDocument): Put {
  const sensorsRead = draw.pick(['occupied', 'free'] as const);
  const signalsShow = draw.pick(['stop', 'clear'] as const);
  const relays = draw.pick(['off', 'fed'] as const);
  const [cut] = signalsOf(d);
  return (after) => {
    for (const [i, one] of after.sensors.entries())
      Object.assign(one, { broken: sensorsRead, input: { module: `${1 + (i % 2)}`, number: 1 + i } });
    for (const one of signalsOf(after)) {
      Object.assign(one, { broken: signalsShow, relay: relays });
      if (one.id === cut?.id) one.patterns = [...new Set([...(one.patterns ?? []), 'stop section'])];
    }
  };
}
