import { mmOf } from '../measure';
import type { LayoutDocument, Train } from '../survey';

/** An overhang behind the last detectable axle up to this long is let pass; our assumption: a buffer beam and a coupler. */
export const MOST_UNSEEN_TAIL_MM = 100;

/** A train as the track sees it, measured from its nose back, in mm. */
export interface Consist {
  lengthMm: number;
  /** Detectable axles, nose first. */
  axlesMm: number[];
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
  for (const id of train.vehicles) {
    const vehicle = vehicles.get(id);
    if (!vehicle) throw new Error(`Train “${train.name}” names a vehicle “${id}” that does not exist.`);
    for (const axle of vehicle.axles) if (axle.detectable) axlesMm.push(at + mmOf(axle.at.tenthUm));
    at += mmOf(vehicle.length.tenthUm);
  }
  axlesMm.sort((a, b) => a - b);
  const marks = [0, ...axlesMm, at];
  let blindMm = 0;
  for (let i = 1; i < marks.length; i++) blindMm = Math.max(blindMm, marks[i]! - marks[i - 1]!);
  return { lengthMm: at, axlesMm, blindMm, unseenTailMm: at - (axlesMm[axlesMm.length - 1] ?? 0) };
}

/**
 * Current sensing: which sections read occupied, given the sections that detectable axles stand in. The plant calls
 * this and nothing else, so the physics of a detector is written once.
 */
export function senseCurrent(axleSections: Iterable<number>, occupied: Uint8Array): void {
  occupied.fill(0);
  for (const section of axleSections) if (section >= 0) occupied[section] = 1;
}
