import type { AspectSystem } from './kind';
import { lowSignal } from './low-signal';

const [, onSight] = lowSignal.aspects;

/**
 * At the edge of an area into which somebody at a post lets trains: on sight while nobody is there to ask, and stop or entry by his word. No sensor is
 * asked, so that both entries are on sight. Common practice, no source.
 */
export const authoritySignal: AspectSystem = {
  name: 'Authority signal',
  lamps: [
    { shape: 'diamond', colour: 'stop' },
    { shape: 'slant', colour: 'white' },
  ],
  aspects: [
    { id: 'stop', means: 'Stop before this signal.', calls: 'the operator of the post', stopsIn: 0, lit: [0] },
    { ...onSight, calls: 'a crew inside, if there is one', lit: [1] },
  ],
};
