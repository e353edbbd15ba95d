import { checkDesign, placeProposed, proposeSignals } from '@/core/design';
import { divideTrack, fewestAxles, seenLimits } from '@/core/detection';
import { divideEdit, suggestGaps, usualWishes } from '@/core/divide';
import type { LayoutDocument } from '@/core/survey';
import { compileTrack } from '@/core/track';
import { bare } from './dividing';
import { done } from './editing';

/** A layout on which everything was accepted that Detect and Signal propose: gaps with detectors, resistor axles, signals. */
export function withAllAccepted(survey: LayoutDocument) {
  const undivided = bare(survey);
  const suggestion = suggestGaps(undivided, usualWishes(undivided));
  const divided = done(undivided, divideEdit(undivided, suggestion, true)).document;
  const { places, hopeless } = fewestAxles(divided, seenLimits(divideTrack(divided, compileTrack(divided))));
  const seen = places.length > 0 ? done(divided, { do: 'fit axles', places }).document : divided;
  const { signals } = proposeSignals(seen);
  const document = signals.length > 0 ? done(seen, placeProposed(signals)).document : seen;
  return { document, suggestion, hopeless, findings: checkDesign(document).findings };
}
