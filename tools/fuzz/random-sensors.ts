import { SENSOR_KIND_IDS, sensorKind } from '../../src/core/kinds';
import { cm } from '../../src/core/measure';
import type { LayoutDocument } from '../../src/core/survey';
import { Draw } from './draw';

const [PLACES, SECTIONS] = [true, false].map((place) =>
  SENSOR_KIND_IDS.filter((id) => (sensorKind(id).reachMm !== 'section') === place),
) as [typeof SENSOR_KIND_IDS, typeof SENSOR_KIND_IDS];

/** A layout of which some sections are watched otherwise, with sensors at places, magnets, and wheels of plastic, on digital power or plain DC. */
export function withRandomSensors(document: LayoutDocument, seed: number): LayoutDocument {
  const draw = new Draw(seed, 4321);
  const d = structuredClone(document);
  for (const sensor of d.sensors) if (draw.chance(0.4)) sensor.kind = draw.pick(SECTIONS);
  const count = draw.whole(1, 3);
  for (let i = 0; i < count; i++) {
    const line = draw.pick(d.lines);
    const kind = draw.pick(PLACES);
    d.sensors.push({
      id: `p${i}`,
      name: `P${i}`,
      kind,
      anchor: { line: line.id, at: cm(draw.whole(0, line.length.tenthUm / 1e5)) },
      holdMs: draw.pick([0, 300, 2000]),
      input: undefined,
      certainty: 'fixed',
    });
  }
  for (const vehicle of d.vehicles) {
    if (draw.chance(0.7)) vehicle.magnetAt = cm(draw.whole(1, Math.max(1, vehicle.length.tenthUm / 1e5 - 1)));
    for (const axle of vehicle.axles) if (draw.chance(0.1)) axle.plastic = true;
  }
  if (draw.chance(0.2)) d.power = 'two-rail DC';
  return d;
}
