import type { FaultKind } from './kind';
import { detectorBlind, detectorDead, detectorStuck, linkDrops, moduleLost, roomLight } from './of-detectors';
import { contactReversed, pointsStay } from './of-motors';
import { relayDead, relayWelded } from './of-power';
import { controlDrifted, lampOut, signalDead } from './of-signals';

/** Every way in which a thing fails, in the order in which they are told. */
export const FAULTS = {
  'lamp out': lampOut,
  'signal dead': signalDead,
  'control drifted': controlDrifted,
  'detector dead': detectorDead,
  'detector stuck': detectorStuck,
  'detector blind': detectorBlind,
  'module lost': moduleLost,
  'link drops out': linkDrops,
  'room light': roomLight,
  'relay dead': relayDead,
  'relay welded': relayWelded,
  'points stay': pointsStay,
  'contact reversed': contactReversed,
} as const satisfies Record<string, FaultKind>;
export type FaultId = keyof typeof FAULTS;
export const FAULT_IDS = Object.keys(FAULTS) as FaultId[];
