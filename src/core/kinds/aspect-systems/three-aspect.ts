import { type AspectSystem, NOWHERE } from './kind';

/** Stop, a warning of stop, and line clear: the least that lets a train run at speed. Common practice, no source. */
export const threeAspect: AspectSystem = {
  name: 'Three aspects',
  lamps: [
    { shape: 'square', colour: 'stop' },
    { shape: 'triangle', colour: 'caution' },
    { shape: 'circle', colour: 'clear' },
  ],
  aspects: [
    { id: 'stop', means: 'Stop before this signal.', stopsIn: 0, lit: [0] },
    { id: 'caution', means: 'Go on, ready to stop before the next signal.', stopsIn: 1, lit: [1] },
    { id: 'clear', means: 'Go on: the next signal shows proceed too.', stopsIn: NOWHERE, lit: [2] },
  ],
};
