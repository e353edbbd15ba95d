import type { SensorKind } from './kind';
import { CURRENT } from './notices';

/** A feeder wound through a small transformer, between two gaps; two turns are usual. Common practice, no source; what it notices is our assumption. */
export const current: SensorKind = {
  title: 'Current detector',
  names: 'D',
  means: 'Notices whatever draws current between two gaps: engines, lit cars, resistor axles.',
  getsWrong:
    'It says free while the track has no power and over cars that draw nothing, and occupied by damp ballast or a finger on the rails.',
  notices: CURRENT,
  reachMm: 'section',
  inFeeder: { dropV: 0, noticesMa: 2, turns: 2 },
  holdMs: 1000,
  sees: 'sees a train',
  seesNothing: 'sees nothing',
  wants: 'axle that a current detector can see',
  mark: '',
};

/** A feeder through two pairs of diodes, whose voltage is read. Common practice, no source; 0.7 V each is typical of silicon. */
export const diode: SensorKind = {
  ...current,
  title: 'Diode detector',
  means:
    'Notices whatever draws current between two gaps, by the voltage that diodes in the feeder keep from the trains.',
  inFeeder: { dropV: 1.4, noticesMa: 1 },
};
