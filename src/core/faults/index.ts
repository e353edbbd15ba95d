/**
 * What can fail: `fault-list.ts` lists the ways, each of which says which terminals of a System it strikes and what these have while it lasts.
 * `faulty-system.ts` makes it part of the System, for whoever looks at everything that can come to pass; a rehearsal puts it between
 * controller and plant. `missed-pulses.ts` is what sensors do that give pulses.
 */
export {
  type Fault,
  type FaultChoice,
  type FaultGroup,
  faultsAbout,
  faultsIn,
  faultsOf,
  isKnown,
  sayFault,
  struckBy,
  thingsStruck,
} from './fault';
export { FAULT_IDS, FAULTS, type FaultId } from './fault-list';
export { withFault } from './faulty-system';
export type { FaultKind } from './kind';
export { MissedPulses } from './missed-pulses';
