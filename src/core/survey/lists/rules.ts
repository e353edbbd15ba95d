import type { InferType } from 'yup';
import { id, record, text } from '../schema-parts';
import type { ListKind } from './kind';

/** A rule of somebody's own, in place of one that is generated or beside them: its name and condition, with ids in the place of names. */
export const ruleSchema = record({ id: id(), name: text(200), text: text(20_000) });
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
