import type { StageKind } from '../kind';
import { DetectStage } from './detect-stage';

/** What is watched, by what, and what of each train is seen. */
export const detect: StageKind = {
  id: 'detect',
  name: 'Detect',
  knows: 'nothing',
  edits: true,
  names: true,
  Main: DetectStage,
};
