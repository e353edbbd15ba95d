/** The track graph compiled from the survey (edges, turnouts, what fouls what), and the straightened drawing of it. */
export * from './fouling';
export * from './graph';
export * from './measure-between';
export * from './onward';
export * from './straighten';
