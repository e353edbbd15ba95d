import { type AspectSystem, NOWHERE } from './kind';

/** A stop is announced two signals before, for blocks shorter than trains brake. The order of aspects is that of prototype four-aspect practice. */
export const fourAspect: AspectSystem = {
  name: 'Four aspects',
  lamps: [
    { shape: 'square', colour: 'stop' },
    { shape: 'triangle', colour: 'caution' },
    { shape: 'triangle', colour: 'caution' },
    { shape: 'circle', colour: 'clear' },
  ],
  aspects: [
    { id: 'stop', means: 'Stop before this signal.', stopsIn: 0, lit: [0] },
    { id: 'caution', means: 'Go on, ready to stop before the next signal.', stopsIn: 1, lit: [1] },
    { id: 'early caution', means: 'Go on, ready to stop before the second signal from here.', stopsIn: 2, lit: [1, 2] },
    { id: 'clear', means: 'Go on: the next signal shows proceed too.', stopsIn: NOWHERE, lit: [3] },
  ],
};
