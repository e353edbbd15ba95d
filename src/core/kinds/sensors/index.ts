import { chainedBoard, timer, toggle, virtualEnd } from './assumed';
import { current, diode } from './current';
import { isolatedRail } from './isolated-rail';
import type { SensorKind } from './kind';
import type { Notice } from './notices';
import { contactRail, hall, opticalSpot, reed, treadle } from './spots';

/** Every kind of sensor, by the name that documents have for it. The first is the one proposed where track is not watched. */
export const SENSORS = {
  current,
  diode,
  'isolated rail': isolatedRail,
  optical: opticalSpot,
  reed,
  hall,
  treadle,
  'contact rail': contactRail,
  timer,
  'chained board': chainedBoard,
  toggle,
  'virtual end': virtualEnd,
} as const satisfies Record<string, SensorKind>;
export type SensorKindId = keyof typeof SENSORS;
export const SENSOR_KIND_IDS = Object.keys(SENSORS) as SensorKindId[];
export const sensorKind = (id: SensorKindId): SensorKind => SENSORS[id];

/** What any kind of sensor notices, once each. */
export const NOTICES: readonly Notice[] = [...new Set(SENSOR_KIND_IDS.map((id) => sensorKind(id).notices))];
