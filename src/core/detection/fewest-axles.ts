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

/**
 * The fewest resistor axles with which every train is seen as well as the limits ask, exactly: the smallest set of axles that has one of
 * every group. Trains for which there is none are left out and named.
 */
export function fewestAxles(document: LayoutDocument, limits: SeenLimits, trains = document.trains): FewestAxles {
  const columns = new Map<string, AxlePlace>();
  const lastAxle = new Map(document.vehicles.map(({ id, axles }) => [id, axles.length - 1]));
  /** Of as many, those at the ends of vehicles are taken: of all together these cost less than one axle more. */
  const costOf = (column: string) => {
    const { vehicle, axle } = columns.get(column)!;
    return axle === 0 || axle === lastAxle.get(vehicle) ? 1 : 1 + 0.5 / columns.size;
  };
  const hopeless: string[] = [];
  const groups = trains.flatMap((train) => {
    const own = groupsOf(placesOf(document, train, columns), limits);
    if (!own.some((group) => group.length === 0)) return own;
    hopeless.push(train.id);
    return [];
  });
  const needed = withoutNeedless(groups);
  if (needed.length === 0) return { places: [], hopeless };
  const inGroups = new Map<string, number[]>();
  needed.forEach((group, g) => {
    for (const column of group) inGroups.set(column, [...(inGroups.get(column) ?? []), g]);
  });
  const solution = solve({
    direction: 'minimize',
    objective: 'cost',
    constraints: new Map(needed.map((_, g) => [`g${g}`, greaterEq(1)])),
    variables: new Map(
      [...inGroups].map(([column, own]) => [
        column,
        { cost: costOf(column), ...Object.fromEntries(own.map((g) => [`g${g}`, 1])) },
      ]),
    ),
    binaries: true,
  });
  if (solution.status !== 'optimal') throw new Error(`The search for resistor axles ended ${solution.status}.`);
  const chosen = new Set(solution.variables.filter(([, count]) => count > 0.5).map(([column]) => column));
  return { places: [...columns].filter(([key]) => chosen.has(key)).map(([, place]) => place), hopeless };
}
