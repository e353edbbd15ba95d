import { name } from '../logic';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';

/** Approach lighting: the lamps of a signal are lit only while a train is in the block from which it is read. */
export const approachLit: Pattern = {
  id: 'approach lit',
  chosen: { at: 'signal', says: 'Light its lamps only when a train comes', makes: 'lighting' },
  lighting: (scheme, { signal, rear }) =>
    isChosen(approachLit, signal)
      ? [
          {
            expr: name(names.occupied(scheme.partition.blocks[rear]!)),
            says: `a train is in ${scheme.partition.blocks[rear]!.name}`,
          },
        ]
      : [],
};
