import { type AspectSystem, NOWHERE } from './kind';

/** Stop or go, for places where trains come slowly. It announces nothing. Common practice, no source. */
export const twoAspect: AspectSystem = {
  name: 'Two aspects',
  lamps: [
    { shape: 'square', colour: 'stop' },
    { shape: 'circle', colour: 'clear' },
  ],
  aspects: [
    { id: 'stop', means: 'Stop before this signal.', stopsIn: 0, lit: [0] },
    { id: 'clear', means: 'Go on: the next signal shows proceed too.', stopsIn: NOWHERE, lit: [1] },
  ],
};
