import { and } from '../logic';
import { isChosen, type Pattern } from './pattern';
import { pointsLie } from './scheme';

/** Arms wired straight to the contact of the points: they show which way is set, and hold no train. */
export const contactArms: Pattern = {
  id: 'from the contact',
  chosen: {
    at: 'signal',
    says: 'Follow the points alone, wired straight to their contact: it shows the way, and holds no train',
    makes: 'aspect',
    holdsNothing: true,
    wired: true,
  },
  instead: (scheme, { reading: { signal }, route }) =>
    isChosen(contactArms, signal) && route.blocks.length + route.conditions.length > 0
      ? [{ expr: and(...pointsLie(scheme, route)), says: 'the points are set for the route' }]
      : [],
};
