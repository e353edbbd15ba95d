import { boolean, type InferType } from 'yup';
import { choice, id, list, record, text } from '../schema-parts';
import type { ListKind } from './kind';

/** At most so many blocks are asked to be free. */
const MOST_FREE = 12;

/** Somebody's own rule for a turnout: when a train comes into a block, from another if that is said, while some are free, the points are to lie so. */
export const throwRuleSchema = record({
  id: id(),
  /** The id of a motor, and how its points are to lie. */
  motor: text(60),
  position: choice('straight', 'diverging'),
  /** Ids of blocks. */
  comesInto: text(60),
  from: text(60).optional().default(undefined),
  free: list(text(60), MOST_FREE),
  /** The points are thrown whatever locks them. */
  unlocked: boolean().typeError('must be true or false').optional().default(undefined),
});
export type ThrowRule = InferType<typeof throwRuleSchema>;

export const throwRules: ListKind<ThrowRule> = {
  title: 'Throw rule',
  prefix: 'th',
  since: 9,
  most: 1000,
  schema: throwRuleSchema,
  refers: [],
  goesWith: ({ motor, comesInto, from, free }, gone) =>
    [motor.split(':')[0]!, comesInto, from ?? '', ...free].some((one) => gone.has(one)),
};
