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
  findings: [
    'signal not at a block’s end',
    'signal with nothing to protect',
    'signal into undetected track',
    'signal with too many routes',
    'no signal at the end of a block',
    'points without protection',
    'signal inside clearance',
    'braking longer than its warning',
    'aspects alike without colours',
    'lamp that fails to a less restrictive aspect',
    'wiring that fails to a false clear',
    'limit of speed that nobody announces',
    'one head for several tracks',
    'signal that holds no train',
    'permission by an aspect that says too much',
    'lamp that passes for a signal',
    'head that a curve hides',
    'head where nobody sees it',
    'rule of your own that does not work',
  ],
};
