import type { StageKind } from '../kind';
import { FirstLine } from './first-line';
import { SurveyStage } from './survey-stage';

/** The track and the trains as they are taped. */
export const survey: StageKind = {
  id: 'survey',
  name: 'Survey',
  knows: 'nothing',
  edits: true,
  names: true,
  Main: SurveyStage,
  Empty: FirstLine,
  letters: [['W', 'say what comes next along the line']],
  findings: [
    'track without detection',
    'two detectors in one section',
    'block shorter than the longest train',
    'train no detector sees',
    'spot that can miss a train',
    'unseen tail',
    'unseen over points',
    'overhang over points',
    'crossing read as a diamond',
    'track end without a buffer',
    'train that cannot be placed',
    'trains in each other’s way at the start',
    'no block to spare on a circuit',
    'two things with one name',
    'way of working that there is not',
    'line that meets nothing',
    'cut inside clearance',
  ],
};
