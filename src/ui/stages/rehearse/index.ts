import type { StageKind } from '../kind';
import { RehearseStage } from './rehearse-stage';

/** Trains on the line. */
export const rehearse: StageKind = {
  id: 'rehearse',
  name: 'Rehearse',
  knows: 'run',
  Main: RehearseStage,
  letters: [
    ['Space', 'play or pause a rehearsal'],
    ['.', 'one scan on'],
  ],
};
