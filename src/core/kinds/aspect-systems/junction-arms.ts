import { type AspectSystem, NOWHERE } from './kind';

/** Two arms on a mast, the upper one for the straight way; never both clear, each with control of its own, so that it can hold a train. */
export const junctionArms: AspectSystem = {
  name: 'Junction arms',
  lamps: [
    { shape: 'bar', colour: 'stop', head: 0 },
    { shape: 'slant', colour: 'clear', head: 0 },
    { shape: 'bar', colour: 'stop', head: 1 },
    { shape: 'slant', colour: 'clear', head: 1 },
  ],
  aspects: [
    { id: 'stop', means: 'Stop before this signal.', stopsIn: 0, lit: [0, 2] },
    {
      id: 'clear aside',
      means: 'The route diverges: go on, as slowly as its turnouts ask for.',
      stopsIn: NOWHERE,
      /** Our choice: a turnout says how fast it is to be run. */
      speed: { share: 0.5 },
      leads: 'aside',
      lit: [0, 3],
    },
    {
      id: 'clear ahead',
      means: 'The straight route is cleared: go on.',
      stopsIn: NOWHERE,
      leads: 'straight',
      lit: [1, 2],
    },
  ],
};
