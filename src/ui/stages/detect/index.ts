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
    'detector too dull for a resistor axle',
    'detector that leakage occupies',
    'block told by spots alone',
    'block told by spots at one end only',
    'block told by counting',
    'train that a count loses',
    'block told by a timer',
    'timer shorter than a train takes',
    'timer that nothing sets off',
    'virtual end',
    'toggle that can fall out of step',
    'spots farther apart than a train is long',
    'two sensors at one place',
    'hold longer than a train takes',
    'detector blind at a closed throttle',
    'detector that needs current in the track',
  ],
};
