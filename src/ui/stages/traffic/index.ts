import type { StageKind } from '../kind';
import { TrafficStage } from './traffic-stage';

/** Who runs where, what is worth protecting, and at what price. */
export const traffic: StageKind = {
  id: 'traffic',
  name: 'Traffic',
  knows: 'nothing',
  edits: true,
  names: true,
  Main: TrafficStage,
};
