import type { VehicleKind } from './kind';

/** Every kind of vehicle. */
export const VEHICLES = {
  engine: {
    title: 'Engine',
    lifeMm: 15_000,
    axles: [0.14, 0.3, 0.7, 0.86],
    driven: true,
    outline: [
      [0.01, 0],
      [0.01, 0.55],
      [0.14, 0.6],
      [0.2, 1],
      [0.8, 1],
      [0.86, 0.6],
      [0.99, 0.55],
      [0.99, 0],
    ],
  },
  tenderEngine: {
    title: 'Engine with tender',
    lifeMm: 20_000,
    axles: [0.1, 0.22, 0.33, 0.44, 0.7, 0.8, 0.9],
    driven: true,
    outline: [
      [0.01, 0],
      [0.01, 0.7],
      [0.06, 0.7],
      [0.06, 1],
      [0.1, 1],
      [0.1, 0.7],
      [0.42, 0.7],
      [0.42, 1],
      [0.58, 1],
      [0.58, 0.25],
      [0.62, 0.25],
      [0.62, 0.7],
      [0.99, 0.7],
      [0.99, 0],
    ],
  },
  railcar: {
    title: 'Railcar',
    lifeMm: 22_000,
    axles: [0.1, 0.22, 0.78, 0.9],
    driven: true,
    outline: [
      [0.01, 0],
      [0.01, 0.6],
      [0.05, 0.95],
      [0.95, 0.95],
      [0.99, 0.6],
      [0.99, 0],
    ],
  },
  coach: {
    title: 'Coach',
    lifeMm: 22_000,
    axles: [0.1, 0.22, 0.78, 0.9],
    driven: false,
    outline: [
      [0.01, 0],
      [0.01, 0.85],
      [0.03, 0.95],
      [0.97, 0.95],
      [0.99, 0.85],
      [0.99, 0],
    ],
  },
  bogieWagon: {
    title: 'Bogie wagon',
    lifeMm: 14_000,
    axles: [0.12, 0.25, 0.75, 0.88],
    driven: false,
    outline: [
      [0.01, 0],
      [0.01, 0.9],
      [0.99, 0.9],
      [0.99, 0],
    ],
  },
  wagon: {
    title: 'Two-axle wagon',
    lifeMm: 9_000,
    axles: [0.22, 0.78],
    driven: false,
    outline: [
      [0.02, 0],
      [0.02, 0.7],
      [0.98, 0.7],
      [0.98, 0],
    ],
  },
  van: {
    title: 'Guard’s van',
    lifeMm: 8_500,
    axles: [0.22, 0.78],
    driven: false,
    outline: [
      [0.02, 0],
      [0.02, 0.85],
      [0.4, 0.85],
      [0.4, 1],
      [0.6, 1],
      [0.6, 0.85],
      [0.98, 0.85],
      [0.98, 0],
    ],
  },
} as const satisfies Record<string, VehicleKind>;

export type VehicleKindId = keyof typeof VEHICLES;
export const VEHICLE_KIND_IDS = Object.keys(VEHICLES) as VehicleKindId[];

/** What draws current through an axle. */
export const FEEDS = ['nothing', 'motor', 'lamp', 'resistor'] as const;
export type Feed = (typeof FEEDS)[number];

/** What a decoder can do beyond driving; common practice, no source. */
export const ABILITIES = ['lights', 'sound', 'stops on asymmetry', 'reports back'] as const;
export type Ability = (typeof ABILITIES)[number];
