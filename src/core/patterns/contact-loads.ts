import type { Motor } from '../track';
import { isPositionAssumed } from './assumed-position';
import { contactArms } from './contact-arms';
import { isChosen } from './pattern';
import { pointsIndicator } from './points-indicator';
import { pointsOf } from './points-of';
import type { Scheme } from './scheme';

/**
 * What the contacts of a motor work, beside that for a frog that needs current: each takes a changeover contact of its own, since two supplies must
 * not meet in one. Common practice, no source.
 */
export function contactLoads(scheme: Scheme, motor: Motor): string[] {
  const over = scheme.routesOver[motor.index]!;
  const byContact = over.filter(({ reading: { signal } }) => isChosen(contactArms, signal));
  const arms = [...new Set(byContact.map(({ reading: { signal } }) => signal.name))];
  const tells = !isPositionAssumed(scheme, motor) && byContact.length < over.length;
  return [
    ...(tells ? [`tells the rules how ${motor.name} lies`] : []),
    ...(isChosen(pointsIndicator, pointsOf(scheme, motor)) ? ['works the indicator beside it'] : []),
    ...(arms.length > 0 ? [`works ${arms.join(', ')}`] : []),
  ];
}
