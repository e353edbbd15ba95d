import { greaterEq, solve } from 'yalps';
import { TRACK_POWERS } from '../kinds';
import type { TenthUm } from '../measure';
import type { AxlePlace, LayoutDocument, Train } from '../survey';
import { vehiclesOf } from './consist';

/** How much of a train may be unseen: at most so long a stretch, ends included, and so much behind the last axle that is seen. */
export interface SeenLimits {
  blind: TenthUm;
  tail: TenthUm;
}

export interface FewestAxles {
  places: AxlePlace[];
  /** Ids of trains that no resistor axle makes seen enough. They have a say in nothing. */
  hopeless: string[];
}

/** An axle of a train, from its nose back. */
interface Place {
  at: TenthUm;
  /** The axle that could be fitted there; none where it is seen already. */
  column?: string;
}

/** Marks the place of an axle: what is one axle in two trains has one key. */
const keyOf = ({ vehicle, nth, axle }: AxlePlace) => `${vehicle} ${nth} ${axle}`;

/** The axles of a train in order, those that are seen and those that could be, and its length. Adds to the columns. */
function placesOf(document: LayoutDocument, train: Train, columns: Map<string, AxlePlace>) {
  const inTrack = TRACK_POWERS[document.power].inTrack;
  const places: Place[] = [];
  const count = new Map<string, number>();
  let from: TenthUm = 0;
  vehiclesOf(document, train).forEach((vehicle, position) => {
    const nth = count.get(vehicle.id) ?? 0;
    count.set(vehicle.id, nth + 1);
    const turned = train.turned?.includes(position);
    vehicle.axles.forEach(({ at, feeds }, i) => {
      const axle = turned ? vehicle.axles.length - 1 - i : i;
      if (feeds !== 'nothing') places.push({ at: from + at.tenthUm });
      else if (!vehicle.takesNone) {
        const place = { vehicle: vehicle.id, nth, axle };
        columns.set(keyOf(place), place);
        places.push({ at: from + at.tenthUm, column: keyOf(place) });
      }
    });
    from += vehicle.length.tenthUm;
  });
  return { places: inTrack ? places.sort((a, b) => a.at - b.at) : [], length: from };
}

/**
 * Of which axles at least one must be fitted, group by group, so that a train is seen enough. No stretch longer than the limit is unseen
 * just when beyond the nose, and beyond every axle, something is seen within that distance, or the end of the train is.
 */
function groupsOf({ places, length }: ReturnType<typeof placesOf>, { blind, tail }: SeenLimits): string[][] {
  const groups: string[][] = [];
  const need = (from: TenthUm, to: TenthUm, fromIncluded = false) => {
    const within = places.filter(({ at }) => (fromIncluded ? at >= from : at > from) && at <= to);
    if (within.some(({ column }) => column === undefined)) return;
    groups.push(within.map(({ column }) => column!));
  };
  need(0, length, true);
  need(length - tail, length, true);
  if (length > blind) need(0, blind, true);
  for (const { at } of places) if (at + blind < length) need(at, at + blind);
  return groups;
}

/** Groups that hold another whole group say nothing more than that one. */
function withoutNeedless(groups: readonly string[][]): string[][] {
  const ordered = [...new Map(groups.map((group) => [[...group].sort().join('|'), group])).values()];
  ordered.sort((a, b) => a.length - b.length);
  const kept: Set<string>[] = [];
  for (const group of ordered) {
    const own = new Set(group);
    if (!kept.some((other) => other.size <= own.size && [...other].every((column) => own.has(column)))) kept.push(own);
  }
  return kept.map((group) => [...group]);
}

/** What could be fitted, with its cost, and for each train of which axles at least one must be; trains that nothing helps by themselves. */
function needsOf(document: LayoutDocument, limits: SeenLimits, trains: readonly Train[]) {
  const columns = new Map<string, AxlePlace>();
  const lastAxle = new Map(document.vehicles.map(({ id, axles }) => [id, axles.length - 1]));
  const hopeless: string[] = [];
  const needs = trains.flatMap((train) => {
    const groups = groupsOf(placesOf(document, train, columns), limits);
    if (!groups.some((group) => group.length === 0)) return [{ train: train.id, groups: withoutNeedless(groups) }];
    hopeless.push(train.id);
    return [];
  });
  /** Of as many, those at the ends of vehicles are taken: of all together these cost less than one axle more. */
  const costOf = (column: string) => {
    const { vehicle, axle } = columns.get(column)!;
    return axle === 0 || axle === lastAxle.get(vehicle) ? 1 : 1 + 0.5 / columns.size;
  };
  const placesFor = (own: readonly string[]) => {
    const chosen = new Set(own);
    return [...columns].filter(([key]) => chosen.has(key)).map(([, place]) => place);
  };
  return { needs, hopeless, costOf, placesFor };
}

/** Which groups each axle is in. */
function inGroups(groups: readonly string[][]): Map<string, number[]> {
  const found = new Map<string, number[]>();
  groups.forEach((group, g) => {
    for (const column of group) found.set(column, [...(found.get(column) ?? []), g]);
  });
  return found;
}

/** The smallest set of axles that has one of every group. */
function coverOf(groups: readonly string[][], costOf: (column: string) => number): string[] {
  const needed = withoutNeedless(groups);
  if (needed.length === 0) return [];
  const solution = solve({
    direction: 'minimize',
    objective: 'cost',
    constraints: new Map(needed.map((_, g) => [`g${g}`, greaterEq(1)])),
    variables: new Map(
      [...inGroups(needed)].map(([column, own]) => [
        column,
        { cost: costOf(column), ...Object.fromEntries(own.map((g) => [`g${g}`, 1])) },
      ]),
    ),
    binaries: true,
  });
  if (solution.status !== 'optimal') throw new Error(`The search for resistor axles ended ${solution.status}.`);
  return solution.variables.filter(([, count]) => count > 0.5).map(([column]) => column);
}

/**
 * The fewest resistor axles with which every train is seen as well as the limits ask, exactly: the smallest set of axles that has one of
 * every group. Trains for which there is none are left out and named.
 */
export function fewestAxles(document: LayoutDocument, limits: SeenLimits, trains = document.trains): FewestAxles {
  const { needs, hopeless, costOf, placesFor } = needsOf(document, limits, trains);
  return {
    places: placesFor(
      coverOf(
        needs.flatMap(({ groups }) => groups),
        costOf,
      ),
    ),
    hopeless,
  };
}

/** More sets of trains are not looked at for one number of axles. */
const MOST_SETS = 400;

export interface BestAxles extends FewestAxles {
  /** Ids of the trains that then still are not seen enough, those that nothing helps among them. */
  unseen: string[];
  /** False when there were more sets of trains than could be looked at: then another choice may help one train more. */
  certain: boolean;
}

/** With no more axles than that: those with which as many trains as can be are seen as well as the limits ask, and no more than these need. */
export function bestAxles(document: LayoutDocument, limits: SeenLimits, count: number): BestAxles {
  const { needs, hopeless, costOf, placesFor } = needsOf(document, limits, document.trains);
  const alone = needs.map((one) => ({ ...one, few: coverOf(one.groups, costOf).length }));
  alone.sort((a, b) => a.few - b.few);
  let best = { trains: [] as string[], axles: [] as string[] };
  let sets = 0;
  /** Sets with the next train first: more trains never need fewer axles. */
  const search = (next: number, trains: string[], groups: string[][], axles: string[]) => {
    const better = trains.length - best.trains.length;
    if (better > 0 || (better === 0 && axles.length < best.axles.length)) best = { trains, axles };
    const train = alone[next];
    if (!train || trains.length + alone.length - next < best.trains.length || sets >= MOST_SETS) return;
    if (train.few <= count) {
      sets += 1;
      const more = [...groups, ...train.groups];
      const needed = coverOf(more, costOf);
      if (needed.length <= count) search(next + 1, [...trains, train.train], more, needed);
    }
    search(next + 1, trains, groups, axles);
  };
  search(0, [], [], []);
  return {
    places: placesFor(best.axles),
    hopeless,
    unseen: document.trains.map(({ id }) => id).filter((id) => !best.trains.includes(id)),
    certain: sets < MOST_SETS,
  };
}
