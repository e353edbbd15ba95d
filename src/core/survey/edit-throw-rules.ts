import { asItWas } from './draft';
import { LISTS } from './lists';
import type { ThrowRule } from './lists/throw-rules';
import { freshId } from './new-document';
import { refuse } from './refused';
import type { LayoutDocument } from './schema';

/** What is done about rules by which trains throw turnouts. */
export type ThrowRuleEdit = { do: 'add throw rule'; rule: Omit<ThrowRule, 'id'> };

/** Does it to the draft; what was done, in words. */
export function editThrowRules(document: LayoutDocument, { rule }: ThrowRuleEdit): string {
  const known = asItWas(document).throwRules;
  const key = ({ motor, position, comesInto, from, free }: Omit<ThrowRule, 'id'>) =>
    JSON.stringify([motor, position, comesInto, from, [...free].sort()]);
  if (rule.from === rule.comesInto) refuse('A train comes into a block from another one. Choose two.');
  if (rule.free.includes(rule.comesInto)) refuse('A block that a train has just come into is not free.');
  if (known.some((one) => key(one) === key(rule))) refuse('There is such a rule already.');
  if (known.length >= LISTS.throwRules.most) refuse(`There are ${LISTS.throwRules.most} throw rules already.`);
  document.throwRules = [...known, { ...rule, id: freshId(asItWas(document), LISTS.throwRules.prefix) }];
  return 'Add a throw rule';
}
