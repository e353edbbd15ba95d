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
};
