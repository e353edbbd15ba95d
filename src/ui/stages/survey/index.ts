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
    'block shorter than the longest train',
    'crossing read as a diamond',
    'track end without a buffer',
    'train that cannot be placed',
    'trains in each other’s way at the start',
    'two things with one name',
    'way of working that does not exist',
    'line that meets nothing',
    'cut inside clearance',
    'leg that leads nowhere',
    'tapes that disagree',
    'things that overlap',
    'curve tighter than a vehicle takes',
    'clearance too short for a vehicle’s throw',
    'brakes not measured on a gradient',
    'lift-out without protection',
    'track that meets itself the other way round',
    'reversing section shorter than a train',
    'gap in the other rail',
    'section without a feeder',
    'two boosters in one section',
    'boosters joined by a rail',
    'feeder of no booster',
    'reversing section that nothing reverses',
  ],
};
