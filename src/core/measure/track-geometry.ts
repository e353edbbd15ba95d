import { type ScaleId, scaleOf, scaleRatio } from './scale';

/** Angles in degrees, lengths in mm on the layout. Plane geometry; the worked examples are in the tests. */

/** The angle of a crossing of one in so many, by the centre-line measure: 2·atan(1/2N). */
export const crossingAngle = (number: number): number => (2 * Math.atan(1 / (2 * number)) * 180) / Math.PI;

/** How far the middle of a vehicle with so far from bogie to bogie is thrown to the inside of a curve: R − √(R² − B²/4). */
export const throwInside = (radius: number, bogies: number): number =>
  radius - Math.sqrt(radius * radius - (bogies * bogies) / 4);

/** How far the ends of a vehicle of a length are thrown to the outside: √((R − m)² + L²/4) − R. */
export function throwOutside(radius: number, bogies: number, length: number): number {
  const inner = radius - throwInside(radius, bogies);
  return Math.sqrt(inner * inner + (length * length) / 4) - radius;
}

/** How far from where two centre lines cross they are so far apart: s / tan θ. */
export const apartAfter = (spacing: number, number: number): number =>
  spacing / Math.tan((crossingAngle(number) * Math.PI) / 180);

/** A vehicle’s width and the room it needs beside it, in life; common practice, no source. */
const WIDE_MM = 3000;

/**
 * From the blade tips of a turnout to its clearance point: to where its centre lines cross, and on until two vehicles have room. A curve
 * that leaves the straight at the tips and meets the frog at one in N has its frog 2·N·gauge from the tips (derived), and the centre
 * lines cross halfway there.
 */
export function clearanceOf(number: number, scale: ScaleId): number {
  const gauge = scaleOf(scale).gaugeTenthsMm / 10;
  return number * gauge + apartAfter(WIDE_MM / scaleRatio(scale), number);
}
