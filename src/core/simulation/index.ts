/** Plant and rule program in one seeded, deterministic loop, with its trace hash. */
export * from './harms';
export * from './orders';
export * from './random';
export * from './recording';
export * from './rehearsal';
export * from './rehearsal-frame';
export * from './run-summary';
export * from './spoken-event';
export * from './tell-direction';
export * from './trace-hash';
