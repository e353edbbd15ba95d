import type { FaultKind } from './kind';
import { detectorBlind, detectorDead, detectorStuck, moduleLost } from './of-detectors';
import { contactReversed, pointsStay } from './of-motors';
import { relayDead, relayWelded } from './of-power';
import { lampOut, signalDead } from './of-signals';

/** Every way in which a thing fails, in the order in which they are told. */
export const FAULTS = {
  'lamp out': lampOut,
  'signal dead': signalDead,
  'detector dead': detectorDead,
  'detector stuck': detectorStuck,
  'detector blind': detectorBlind,
  'module lost': moduleLost,
  'relay dead': relayDead,
  'relay welded': relayWelded,
  'points stay': pointsStay,
  'contact reversed': contactReversed,
} as const satisfies Record<string, FaultKind>;
export type FaultId = keyof typeof FAULTS;
export const FAULT_IDS = Object.keys(FAULTS) as FaultId[];
