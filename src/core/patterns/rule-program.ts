import type { Program } from '../logic';
import { automaticBlockRules } from './automatic-block';
import { directionMemoryRules } from './direction-memory';
import { occupancyRules } from './occupancy';
import { assemble, type Scheme } from './scheme';
import { turnoutRules } from './turnout-control';

/** The rule program of a layout: the single truth of what its signals and turnouts do. */
export function writeRuleProgram(scheme: Scheme): Program {
  return assemble(
    scheme,
    occupancyRules(scheme),
    turnoutRules(scheme),
    automaticBlockRules(scheme),
    directionMemoryRules(scheme),
  );
}
