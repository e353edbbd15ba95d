import { and, name, not, or } from '../logic';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import { AUTHORITY, postOf } from './posts';
import { pointsLie } from './scheme';

/**
 * Authority: no sensor clears the signal, but an operator at a post does, for one train at a time (`posts.ts`). With the post empty it shows what was chosen for that. It clears trains
 * go at its most restrictive aspect only: nobody has looked whether the track beyond is free.
 */
export const authority: Pattern = {
  id: AUTHORITY,
  chosen: {
    at: 'signal',
    says: 'Cleared by somebody at a post, for one train at a time; no sensor is asked',
    makes: 'aspect',
    byPost: true,
  },
  instead(scheme, { reading, route }) {
    const { signal } = reading;
    if (!isChosen(authority, signal) || route.blocks.length === 0) return [];
    const post = postOf(scheme, reading);
    const manned = name(names.manned(post));
    const given = name(names.given(signal));
    const open = post.whenEmpty === 'caution' ? or(given, not(manned)) : given;
    const empty = post.whenEmpty === 'caution' ? ', or nobody is at the post' : '';
    return [
      { expr: and(...pointsLie(scheme, route)), says: 'the points are set for the route' },
      { expr: open, says: `the operator of ${post.name} has cleared it for this train${empty}` },
    ];
  },
  expects: (_, { signal }) =>
    isChosen(authority, signal)
      ? [{ expr: { op: 'true' }, says: 'nobody has looked whether the track beyond is free' }]
      : [],
};
