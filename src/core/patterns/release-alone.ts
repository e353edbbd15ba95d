import { and } from '../logic';
import { isChosen, type Pattern } from './pattern';
import { pointsLie } from './scheme';

/** What releases a signal decides alone: nothing looks whether the route ahead is free. It is as safe as the number of trains is right. Common practice, no source. */
export const releaseAlone: Pattern = {
  id: 'release alone',
  chosen: {
    at: 'signal',
    says: 'What releases it, or whose turn it is, decides alone: nothing looks whether the route ahead is free',
    makes: 'aspect',
  },
  keepsReleases: true,
  instead: (scheme, { route, reading }) =>
    isChosen(releaseAlone, reading.signal)
      ? [{ expr: and(...pointsLie(scheme, route)), says: 'the points are set for the route' }]
      : [],
};
