import type { StageKind } from '../kind';
import { LockStage } from './lock-stage';

/** Routes beside each other, what keeps them apart, and what holds each turnout. */
export const lock: StageKind = {
  id: 'lock',
  name: 'Lock',
  knows: 'trial',
  edits: true,
  tries: true,
  Main: LockStage,
};
