import { asItWas } from './draft';
import { LISTS } from './lists';
import { freshId } from './new-document';
import { refuse } from './refused';
import type { LayoutDocument } from './schema';

/** Rules of somebody's own: put in the place of generated ones, by name, or taken back. */
export type RuleEdit = {
  do: 'own rules';
  put: readonly { name: string; text: string; type?: string; about?: string }[];
  drop: readonly string[];
  /** What they are about, for people. */
  about: string;
};

/** Does it to the draft; what was done, in words. */
export function editRules(document: LayoutDocument, { put, drop, about }: RuleEdit): string {
  if (put.length + drop.length === 0) refuse('Nothing of the rules has changed.');
  document.rules = asItWas(document)
    .rules.filter(({ name }) => !drop.includes(name))
    .map((rule) => ({ ...rule }));
  for (const { name, text, type, about: of } of put) {
    const known = document.rules.find((rule) => rule.name === name);
    if (known) Object.assign(known, { text, type });
    else document.rules.push({ id: freshId(document, LISTS.rules.prefix), name, text, type, about: of });
  }
  return put.length === 0 ? `Put back the rules of ${about}` : `Change the rules of ${about}`;
}
