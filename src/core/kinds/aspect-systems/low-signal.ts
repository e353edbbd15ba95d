import type { AspectSystem } from './kind';

/** A low signal beside a track for shunting and slow entries: on sight, or stop. Common practice, no source. */
export const lowSignal: AspectSystem = {
  name: 'Low signal',
  lamps: [
    { shape: 'bar', colour: 'white' },
    { shape: 'slant', colour: 'white' },
  ],
  aspects: [
    { id: 'stop', means: 'Stop before this signal.', stopsIn: 0, lit: [0] },
    {
      id: 'on sight',
      means: 'Go on at restricted speed, able to stop short of anything within half of what you see.',
      stopsIn: 1,
      onSight: true,
      /** 15 mph; common practice, no source. */
      speed: { kmh: 24 },
      lit: [1],
    },
  ],
};
