/**
 * The schools: each pattern says what it asks for at each place, in the slots of `pattern.ts`. `scheme.ts` gathers what they need,
 * `rule-program.ts` lists them and makes rules of the slots.
 */

export { unspokenAtFirst } from './caution-at-first';
export { foulingBlocks } from './detector-locking';
export * as names from './names';
export { calledName, OWN, type OwnRuleFault, problemOf, standsAlone, withOwnRules } from './own-rules';
export { GIVEN_FOR_MS, type Post, postsOf, rivalsOf } from './posts';
export {
  besidesOf,
  CHOOSABLE,
  chosenOutputs,
  cutsOff,
  expectedOf,
  needsOf,
  type PutTerm,
  writeRules,
} from './rule-program';
export { compileScheme, type NamedRoute, type Scheme } from './scheme';
export { USUAL_STEP_MS } from './timed-caution';
