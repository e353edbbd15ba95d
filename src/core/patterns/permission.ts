import { and, name } from '../logic';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import { AUTHORITY, PERMISSION, postOf } from './posts';
import { pointsLie } from './scheme';

/**
 * A stop that may be passed by permission: the signal works as it does, and where it is at stop somebody at a post can let one train
 * past, on sight, once the points lie (`posts.ts`). Common practice, no source.
 */
export const permission: Pattern = {
  id: PERMISSION,
  chosen: {
    at: 'signal',
    says: 'Its stop may be passed by permission: somebody at a post lets one train on, on sight',
    makes: 'aspect',
    byPost: true,
    onSight: true,
  },
  besides(scheme, { reading, route }) {
    const { signal } = reading;
    if (!isChosen(permission, signal) || signal.patterns!.includes(AUTHORITY) || route.blocks.length === 0) return [];
    const says = `somebody at the post of ${postOf(scheme, reading).name} lets one train past on sight`;
    return [{ expr: and(...pointsLie(scheme, route), name(names.given(signal))), says }];
  },
  expects: (_scheme, reading) =>
    isChosen(permission, reading.signal)
      ? [{ expr: name(names.given(reading.signal)), says: 'it is passed by permission, on sight', onSight: true }]
      : [],
};
