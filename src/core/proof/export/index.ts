/** The machine that a proof looks at, written for other checkers. Loaded where it is asked for, and imported by nothing in the core. */
export { hazardFlag } from './promela-text';
export { writePlantPromela } from './write-plant';
export { writePromela } from './write-promela';
