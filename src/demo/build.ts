import { VEHICLES, type VehicleKindId } from '@/core/kinds';
import { cm } from '@/core/measure';
import type { Facing, Feature, LayoutDocument, Sensor, Train, Turnout, Vehicle } from '@/core/survey';

/** Short forms in which the demo layouts are written down: distances in centimetres. */

export const gap = (id: string, line: string, at: number): Feature => ({
  id,
  kind: 'gap',
  line,
  at: cm(at),
  rail: 'right',
  certainty: 'fixed',
});

export const signal = (name: string, line: string, at: number, governs: Facing): Feature => ({
  id: `s-${name}`,
  kind: 'signal',
  name,
  line,
  at: cm(at),
  governs,
  system: 'three-aspect',
  certainty: 'fixed',
});

export const turnout = (
  name: string,
  line: string,
  at: number,
  facing: Facing,
  hand: 'left' | 'right',
  leg: string,
): Turnout => ({
  id: `t-${name}`,
  name,
  line,
  kind: 'turnout',
  at: cm(at),
  facing,
  hand,
  legs: [{ line: leg, end: facing === 'up' ? 'start' : 'end' }],
  straight: undefined,
  clearance: cm(20),
  motor: 'slow',
  throwMs: 1500,
  spareContacts: 1,
  lies: ['straight'],
  throwsWith: undefined,
  certainty: 'fixed',
});

export const sensor = (name: string, kind: Sensor['kind'], line: string, at: number): Sensor => ({
  id: `d-${name}`,
  name,
  kind,
  anchor: { line, at: cm(at) },
  holdMs: 1000,
  input: undefined,
  certainty: 'fixed',
});

/** A block with its name and the detector that watches it. */
export function block(document: LayoutDocument, name: string, line: string, at: number): void {
  document.blocks.push({ id: `b-${name}`, name, anchor: { line, at: cm(at) } });
  document.sensors.push(sensor(name, 'current', line, at));
}

/**
 * A vehicle whose axles lie at the given distances; `seen` says which of them a current detector notices: by their motor where the kind
 * is driven, else by a resistor.
 */
export const vehicle = (
  id: string,
  name: string,
  length: number,
  axles: number[],
  seen: (axle: number) => boolean,
  grams: number,
  kind: VehicleKindId = 'engine',
): Vehicle => ({
  id,
  name,
  kind,
  length: cm(length),
  axles: axles.map((at, i) => ({
    at: cm(at),
    feeds: seen(i) ? (VEHICLES[kind].driven ? 'motor' : 'resistor') : 'nothing',
  })),
  grams,
  magnetAt: undefined,
});

/** The same with lamps that every axle feeds. */
export const lit = (unlit: Vehicle): Vehicle => ({
  ...unlit,
  axles: unlit.axles.map((axle) => ({ ...axle, feeds: 'lamp' })),
});

/** With wheels that join no rails. */
export const plastic = (metal: Vehicle): Vehicle => ({
  ...metal,
  axles: metal.axles.map((axle) => ({ ...axle, plastic: true })),
});

export const train = (
  id: string,
  name: string,
  vehicles: string[],
  topSpeedKmh: number,
  start: { line: string; at: number; facing: Facing },
  rates: { up: number; down: number; delayMs: number; is: 'measured' | 'assumed' },
): Train => ({
  id,
  name,
  vehicles,
  topSpeedKmh,
  accelerationMmPerS2: rates.up,
  brakingMmPerS2: rates.down,
  startDelayMs: rates.delayMs,
  measured: rates.is === 'measured' ? ['braking'] : [],
  start: { line: start.line, at: cm(start.at), facing: start.facing },
});
