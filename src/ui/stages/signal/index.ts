import type { StageKind } from '../kind';
import { SignalStage } from './signal-stage';

/** What signals show, tried by hand. */
export const signal: StageKind = {
  id: 'signal',
  name: 'Signal',
  knows: 'trial',
  edits: true,
  tries: true,
  Main: SignalStage,
};
