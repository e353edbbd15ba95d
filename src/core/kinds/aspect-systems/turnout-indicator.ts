import { type AspectSystem, NOWHERE } from './kind';

/**
 * Two heads for the two legs of a turnout, always opposite: which leg is set, and nothing of what stands there. It is wired straight to the contact of
 * the points. Common practice, no source.
 */
export const turnoutIndicator: AspectSystem = {
  name: 'Turnout indicator',
  lamps: [
    { shape: 'square', colour: 'stop', head: 0 },
    { shape: 'triangle', colour: 'clear', head: 0 },
    { shape: 'square', colour: 'stop', head: 1 },
    { shape: 'triangle', colour: 'clear', head: 1 },
  ],
  aspects: [
    { id: 'stop', means: 'Stop before this signal.', calls: 'whoever works the points', stopsIn: 0, lit: [0, 2] },
    {
      id: 'set aside',
      means: 'The points lead aside. Go on as slowly as they ask for, able to stop short of anything.',
      stopsIn: NOWHERE,
      onSight: true,
      /** Our choice, as for junction arms. */
      speed: { share: 0.5 },
      leads: 'aside',
      lit: [0, 3],
    },
    {
      id: 'set straight',
      means: 'The points lead straight on. Go on, able to stop short of anything.',
      stopsIn: NOWHERE,
      onSight: true,
      leads: 'straight',
      lit: [1, 2],
    },
  ],
};
