/** Lengths, speeds and scales: how people type them, how they are stored, and the arithmetic of motion. */
export * from './driving';
export * from './kinematics';
export * from './length';
export * from './scale';
export * from './speed';
export * from './steps';
