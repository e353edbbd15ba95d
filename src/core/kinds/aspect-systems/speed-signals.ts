import { type AspectSystem, NOWHERE } from './kind';

/** 30 mph, which one old rule book calls medium; common practice, no source. */
const MEDIUM = { kmh: 48 };

/** Two heads on a mast: the upper one for the straight way, the lower one for ways that lead aside, at medium speed. */
export const speedSignals: AspectSystem = {
  name: 'Speed signals',
  lamps: [
    { shape: 'square', colour: 'stop', head: 0 },
    { shape: 'triangle', colour: 'caution', head: 0 },
    { shape: 'circle', colour: 'clear', head: 0 },
    { shape: 'square', colour: 'stop', head: 1 },
    { shape: 'triangle', colour: 'caution', head: 1 },
    { shape: 'circle', colour: 'clear', head: 1 },
  ],
  aspects: [
    { id: 'stop', means: 'Stop before this signal.', stopsIn: 0, lit: [0, 3] },
    {
      id: 'medium caution',
      means: 'The route diverges: go on at medium speed, ready to stop before the next signal.',
      stopsIn: 1,
      speed: MEDIUM,
      leads: 'aside',
      lit: [0, 4],
    },
    {
      id: 'caution',
      means: 'Go on, ready to stop before the next signal.',
      stopsIn: 1,
      leads: 'straight',
      lit: [1, 3],
    },
    {
      id: 'medium clear',
      means: 'The route diverges: go on at medium speed; the next signal shows proceed too.',
      stopsIn: NOWHERE,
      speed: MEDIUM,
      leads: 'aside',
      lit: [0, 5],
      flashing: [5],
    },
    {
      id: 'approach medium',
      means: 'Go on, and be at medium speed at the next signal, whose route diverges.',
      stopsIn: NOWHERE,
      speedAtNext: MEDIUM,
      leads: 'straight',
      lit: [1, 5],
    },
    {
      id: 'clear',
      means: 'Go on: the next signal shows proceed too.',
      stopsIn: NOWHERE,
      leads: 'straight',
      lit: [2, 3],
    },
  ],
};
