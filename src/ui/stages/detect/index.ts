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
  findings: [
    'track without detection',
    'two detectors in one section',
    'train no detector sees',
    'spot that can miss a train',
    'unseen tail',
    'unseen over points',
    'overhang over points',
    'detector that needs current in the track',
  ],
};
