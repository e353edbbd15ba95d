import { NOTICES, SENSOR_KIND_IDS, sensorKind, TRACK_POWERS } from '../kinds';
import { mmOf, type TypedLength } from '../measure';
import type { LayoutDocument, Train, Vehicle } from '../survey';

/** A part of a train that something can be noticed of, from its nose back, in mm. An axle or a magnet has no length. */
export interface Part {
  from: number;
  to: number;
}

/** By what sensors notice (`Notice.id`), where a train has it. */
export type Parts = Record<'current' | 'vehicle' | 'magnet', Part[]> & { [notice: string]: Part[] };

/** Where a train has what some sensors notice. */
export const partsOf = ({ parts }: Pick<Consist, 'parts'>, notice: string): Part[] => parts[notice] ?? [];

/** A train as the track sees it, measured from its nose back, in mm. */
export interface Consist {
  lengthMm: number;
  /** What can be noticed of it, nose first. */
  parts: Parts;
  /** Its first and its last wheel, seen or not; the ends of the train where no axle is known. */
  wheelsMm: [number, number];
  /** Where its engines take up power: their wheels. Where no vehicle is driven, the first is taken for the engine. */
  pickUpsMm: number[];
}

const point = (at: number): Part => ({ from: at, to: at });

/** A vehicle with its other end leading. */
export function otherWayRound<V extends Pick<Vehicle, 'length' | 'axles' | 'magnetAt'>>(vehicle: V): V {
  const back = (at: TypedLength): TypedLength => ({ tenthUm: vehicle.length.tenthUm - at.tenthUm, typed: '' });
  return {
    ...vehicle,
    axles: vehicle.axles.map((axle) => ({ ...axle, at: back(axle.at) })).reverse(),
    magnetAt: vehicle.magnetAt && back(vehicle.magnetAt),
  };
}

/** It moves by itself. */
const isDriven = ({ axles }: Pick<Vehicle, 'axles'>): boolean => axles.some(({ feeds }) => feeds === 'motor');

/** The vehicles of a train as they stand in it, nose first. */
export function vehiclesOf(document: Pick<LayoutDocument, 'vehicles'>, train: Train): Vehicle[] {
  const vehicles = new Map(document.vehicles.map((vehicle) => [vehicle.id, vehicle]));
  return train.vehicles.map((id, place) => {
    const vehicle = vehicles.get(id);
    if (!vehicle) throw new Error(`Train “${train.name}” names a vehicle “${id}” that does not exist.`);
    return train.turned?.includes(place) ? otherWayRound(vehicle) : vehicle;
  });
}

/** Puts a train's vehicles one behind the other. Couplers are part of a vehicle's length. */
export function consistOf(document: Pick<LayoutDocument, 'vehicles' | 'power'>, train: Train): Consist {
  let at = 0;
  const parts = Object.fromEntries(NOTICES.map(({ id }) => [id, [] as Part[]])) as Parts;
  const each = vehiclesOf(document, train).map((vehicle) => {
    const length = mmOf(vehicle.length.tenthUm);
    for (const { id, of } of NOTICES)
      for (const { from, to } of of(vehicle)) parts[id]!.push({ from: at + mmOf(from), to: at + mmOf(to) });
    const places = vehicle.axles.length > 0 ? vehicle.axles.map((axle) => mmOf(axle.at.tenthUm)) : [0, length];
    const wheels = places.map((place) => at + place);
    at += length;
    return { wheels, driven: isDriven(vehicle) };
  });
  for (const { id } of NOTICES) parts[id]!.sort((a, b) => a.from - b.from);
  if (!TRACK_POWERS[document.power].inTrack) parts.current = [];
  parts.vehicle = [{ from: 0, to: at }];
  const wheels = each.flatMap((one) => one.wheels);
  const driven = each.filter((one) => one.driven);
  const engines = driven.length > 0 ? driven : each.slice(0, 1);
  return {
    lengthMm: at,
    parts,
    wheelsMm: [Math.min(...wheels), Math.max(...wheels)],
    pickUpsMm: engines.flatMap((one) => one.wheels),
  };
}

/** The same train running the other way: its tail is its nose. */
export function turnedRound({ lengthMm, parts, wheelsMm, pickUpsMm }: Consist): Consist {
  const back = (at: number) => lengthMm - at;
  const turned = (own: Part[]) => own.map(({ from, to }) => ({ from: back(to), to: back(from) })).reverse();
  return {
    lengthMm,
    parts: Object.fromEntries(Object.entries(parts).map(([notice, own]) => [notice, turned(own)])) as Parts,
    wheelsMm: [back(wheelsMm[1]), back(wheelsMm[0])],
    pickUpsMm: pickUpsMm.map(back),
  };
}

/** What the sensors of a layout that watch whole sections notice; what the first kind of sensor does where there are none. */
export function noticedInSections({ sensors }: Pick<LayoutDocument, 'sensors'>): string[] {
  const kinds = sensors.map(({ kind }) => sensorKind(kind)).filter(({ reachMm }) => reachMm === 'section');
  const noticed = new Set(kinds.map(({ notices }) => notices.id));
  return noticed.size > 0 ? [...noticed].sort() : [sensorKind(SENSOR_KIND_IDS[0]!).notices.id];
}

/** How much of a train escapes the sensors of a layout that watch sections. */
export interface Unseen {
  /** Some kind of them notices nothing of it at all. */
  all: boolean;
  /** The longest stretch of it without anything that they notice, ends included. */
  blindMm: number;
  /** From the last part that they notice to the tail. */
  tailMm: number;
}

/** The stretches of a train in which a kind of sensor notices nothing, ends included. */
function stretchesWithout(notice: string, consist: Consist): Part[] {
  const found: Part[] = [];
  let last = 0;
  for (const { from, to } of [...partsOf(consist, notice), point(consist.lengthMm)]) {
    if (from > last) found.push({ from: last, to: from });
    last = Math.max(last, to);
  }
  return found;
}
const lengthOf = ({ from, to }: Part): number => to - from;

/** Where the sensors of a layout that watch sections notice nothing of a train: those that leave the longest such stretch. */
export function unseenStretches(document: LayoutDocument, consist: Consist): Part[] {
  const each = noticedInSections(document).map((notice) => stretchesWithout(notice, consist));
  const longest = (stretches: Part[]) => Math.max(0, ...stretches.map(lengthOf));
  return each.reduce((a, b) => (longest(b) > longest(a) ? b : a));
}

/** The most that any kind of sensor of a layout that watches sections leaves unseen. */
export function unseenOf(document: LayoutDocument, consist: Consist): Unseen {
  const each = noticedInSections(document).map((notice): Unseen => {
    const stretches = stretchesWithout(notice, consist);
    const last = stretches.at(-1);
    return {
      all: partsOf(consist, notice).length === 0,
      blindMm: Math.max(0, ...stretches.map(lengthOf)),
      tailMm: last?.to === consist.lengthMm ? lengthOf(last) : 0,
    };
  });
  return {
    all: each.some(({ all }) => all),
    blindMm: Math.max(...each.map(({ blindMm }) => blindMm)),
    tailMm: Math.max(...each.map(({ tailMm }) => tailMm)),
  };
}
