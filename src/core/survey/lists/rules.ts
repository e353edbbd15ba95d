import type { InferType } from 'yup';
import { id, record, text } from '../schema-parts';
import type { ListKind } from './kind';

/**
 * A rule of somebody's own: its name and condition, with ids in the place of names. With a dot in its name it stands in the place of the one that is generated so;
 * with a name of one word it stands beside them, and says of what type it is and what it was written for.
 */
export const ruleSchema = record({
  id: id(),
  name: text(200),
  text: text(20_000),
  /** Yes or no, where nothing is said. */
  type: text(40).optional().default(undefined),
  /** The id of the thing in whose window it was written. */
  about: text(60).optional().default(undefined),
});
export type OwnRule = InferType<typeof ruleSchema>;

export const rules: ListKind<OwnRule> = {
  title: 'Rule of your own',
  prefix: 'ru',
  since: 6,
  most: 2000,
  schema: ruleSchema,
  refers: [],
  faults({ name }, tell, { claim }) {
    const first = claim(`rule ${name}`);
    if (first)
      tell('name', `There are two rules of your own for “${name}”.`, `Delete one of them; the first is ${first}.`);
  },
};
