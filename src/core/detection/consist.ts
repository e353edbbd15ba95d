import { mmOf } from '../measure';
import type { LayoutDocument, Train } from '../survey';

/** A train as the track sees it, measured from its nose back, in mm. */
export interface Consist {
  lengthMm: number;
  /** Detectable axles, nose first. */
  axlesMm: number[];
  /** Its first and its last wheel, seen or not; the ends of the train where no axle is known. */
  wheelsMm: [number, number];
  /** The longest stretch of it without a detectable axle, ends included. */
  blindMm: number;
  /** From the last detectable axle to the tail. */
  unseenTailMm: number;
}

/** Puts a train's vehicles one behind the other. Couplers are part of a vehicle's length. */
export function consistOf(document: LayoutDocument, train: Train): Consist {
  const vehicles = new Map(document.vehicles.map((vehicle) => [vehicle.id, vehicle]));
  let at = 0;
  const axlesMm: number[] = [];
  const wheels: number[] = [];
  for (const id of train.vehicles) {
    const vehicle = vehicles.get(id);
    if (!vehicle) throw new Error(`Train “${train.name}” names a vehicle “${id}” that does not exist.`);
    for (const axle of vehicle.axles) {
      wheels.push(at + mmOf(axle.at.tenthUm));
      if (axle.detectable) axlesMm.push(at + mmOf(axle.at.tenthUm));
    }
    if (vehicle.axles.length === 0) wheels.push(at, at + mmOf(vehicle.length.tenthUm));
    at += mmOf(vehicle.length.tenthUm);
  }
  axlesMm.sort((a, b) => a - b);
  const marks = [0, ...axlesMm, at];
  let blindMm = 0;
  for (let i = 1; i < marks.length; i++) blindMm = Math.max(blindMm, marks[i]! - marks[i - 1]!);
  const wheelsMm: [number, number] = [Math.min(...wheels), Math.max(...wheels)];
  return { lengthMm: at, axlesMm, wheelsMm, blindMm, unseenTailMm: at - (axlesMm[axlesMm.length - 1] ?? 0) };
}

/** The same train running the other way: its tail is its nose. */
export function turnedRound(consist: Consist): Consist {
  const { lengthMm, axlesMm, wheelsMm } = consist;
  const back = (at: number) => lengthMm - at;
  return {
    ...consist,
    axlesMm: axlesMm.map(back).reverse(),
    wheelsMm: [back(wheelsMm[1]), back(wheelsMm[0])],
    unseenTailMm: axlesMm[0] ?? lengthMm,
  };
}

/**
 * Current sensing: which sections read occupied, given the sections that detectable axles stand in. The plant calls
 * this and nothing else, so the physics of a detector is written once.
 */
export function senseCurrent(axleSections: Iterable<number>, occupied: Uint8Array): void {
  occupied.fill(0);
  for (const section of axleSections) if (section >= 0) occupied[section] = 1;
}
