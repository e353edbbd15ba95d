/** The schools: each pattern turns a design into rules. `scheme.ts` gathers what they need, `rule-program.ts` what they write. */
export * as names from './names';
export { writeRuleProgram } from './rule-program';
export { compileScheme, type Scheme } from './scheme';
export { foulingBlocks } from './turnout-control';
