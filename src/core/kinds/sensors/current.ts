import type { SensorKind } from './kind';

/** A feeder through a small transformer or a diode drop, between two gaps. Common practice, no source. */
export const current: SensorKind = {
  title: 'Current detector',
  names: 'D',
  means: 'Notices whatever draws current between two gaps: engines, lit cars, resistor axles.',
  notices: 'current',
  reachMm: 'section',
  holdMs: 1000,
  sees: 'sees a train',
  seesNothing: 'sees nothing',
  wants: 'axle that a current detector can see',
  mark: '',
};
