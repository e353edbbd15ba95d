import type { StageKind } from '../kind';
import { ProveStage } from './prove-stage';

/** Everything that can happen, looked at. */
export const prove: StageKind = {
  id: 'prove',
  name: 'Prove',
  knows: 'trial',
  edits: true,
  Main: ProveStage,
  proves: true,
};
