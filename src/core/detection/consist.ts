import { NOTICES, type Notice, SENSOR_KIND_IDS, sensorKind } from '../kinds';
import { mmOf } from '../measure';
import type { LayoutDocument, Train, Vehicle } from '../survey';

/** A part of a train that something can be noticed of, from its nose back, in mm. An axle or a magnet has no length. */
export interface Part {
  from: number;
  to: number;
}

/** A train as the track sees it, measured from its nose back, in mm. */
export interface Consist {
  lengthMm: number;
  /** What can be noticed of it, nose first. */
  parts: Record<Notice, Part[]>;
  /** Its first and its last wheel, seen or not; the ends of the train where no axle is known. */
  wheelsMm: [number, number];
  /** Where its engine takes up power: its wheels. The engine is the first of the vehicles. */
  pickUpsMm: number[];
}

const point = (at: number): Part => ({ from: at, to: at });

/** What can be noticed of one vehicle, from its leading end. */
const NOTICED: Record<Notice, (vehicle: Vehicle) => Part[]> = {
  current: ({ axles }) => axles.filter(({ detectable }) => detectable).map(({ at }) => point(mmOf(at.tenthUm))),
  metal: ({ axles }) => axles.filter(({ plastic }) => !plastic).map(({ at }) => point(mmOf(at.tenthUm))),
  vehicle: ({ length }) => [{ from: 0, to: mmOf(length.tenthUm) }],
  magnet: ({ magnetAt }) => (magnetAt ? [point(mmOf(magnetAt.tenthUm))] : []),
};

/** Puts a train's vehicles one behind the other. Couplers are part of a vehicle's length. */
export function consistOf(document: LayoutDocument, train: Train): Consist {
  const vehicles = new Map(document.vehicles.map((vehicle) => [vehicle.id, vehicle]));
  let at = 0;
  const parts: Consist['parts'] = { current: [], metal: [], vehicle: [], magnet: [] };
  const wheels: number[] = [];
  let pickUpsMm: number[] | undefined;
  for (const id of train.vehicles) {
    const vehicle = vehicles.get(id);
    if (!vehicle) throw new Error(`Train “${train.name}” names a vehicle “${id}” that does not exist.`);
    for (const notice of NOTICES)
      for (const { from, to } of NOTICED[notice](vehicle)) parts[notice].push({ from: at + from, to: at + to });
    for (const axle of vehicle.axles) wheels.push(at + mmOf(axle.at.tenthUm));
    if (vehicle.axles.length === 0) wheels.push(at, at + mmOf(vehicle.length.tenthUm));
    pickUpsMm ??= [...wheels];
    at += mmOf(vehicle.length.tenthUm);
  }
  for (const notice of NOTICES) parts[notice].sort((a, b) => a.from - b.from);
  parts.vehicle = [{ from: 0, to: at }];
  return { lengthMm: at, parts, wheelsMm: [Math.min(...wheels), Math.max(...wheels)], pickUpsMm: pickUpsMm ?? [] };
}

/** The same train running the other way: its tail is its nose. */
export function turnedRound({ lengthMm, parts, wheelsMm, pickUpsMm }: Consist): Consist {
  const back = (at: number) => lengthMm - at;
  const turned = (own: Part[]) => own.map(({ from, to }) => ({ from: back(to), to: back(from) })).reverse();
  return {
    lengthMm,
    parts: Object.fromEntries(NOTICES.map((notice) => [notice, turned(parts[notice])])) as Consist['parts'],
    wheelsMm: [back(wheelsMm[1]), back(wheelsMm[0])],
    pickUpsMm: pickUpsMm.map(back),
  };
}

/** What the sensors of a layout that watch whole sections notice; what the first kind of sensor does where there are none. */
export function noticedInSections({ sensors }: Pick<LayoutDocument, 'sensors'>): Notice[] {
  const kinds = sensors.map(({ kind }) => sensorKind(kind)).filter(({ reachMm }) => reachMm === 'section');
  const noticed = new Set(kinds.map(({ notices }) => notices));
  return noticed.size > 0 ? [...noticed].sort() : [sensorKind(SENSOR_KIND_IDS[0]!).notices];
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

/** The most that any kind of sensor of a layout that watches sections leaves unseen. */
export function unseenOf(document: LayoutDocument, { lengthMm, parts }: Consist): Unseen {
  const each = noticedInSections(document).map((notice): Unseen => {
    let [blindMm, last] = [0, 0];
    for (const { from, to } of parts[notice]) {
      blindMm = Math.max(blindMm, from - last);
      last = to;
    }
    return { all: parts[notice].length === 0, blindMm: Math.max(blindMm, lengthMm - last), tailMm: lengthMm - last };
  });
  return {
    all: each.some(({ all }) => all),
    blindMm: Math.max(...each.map(({ blindMm }) => blindMm)),
    tailMm: Math.max(...each.map(({ tailMm }) => tailMm)),
  };
}
