import type { Severity } from '../findings';
import { asItWas } from './draft';
import { LISTS } from './lists';
import { LONGEST_SAID } from './lists/acceptances';
import { freshId } from './new-document';
import { refuse } from './refused';
import type { LayoutDocument } from './schema';

/** What is done about findings that somebody lives with, by their ids. */
export type AcceptanceEdit =
  | { do: 'accept'; finding: string; severity: Severity; says: string; why: string }
  | { do: 'accept no longer'; finding: string };

/** Does it to the draft; what was done, in words. */
export function editAcceptances(document: LayoutDocument, edit: AcceptanceEdit): string {
  const others = asItWas(document).acceptances.filter(({ finding }) => finding !== edit.finding);
  if (edit.do === 'accept no longer') {
    if (others.length === document.acceptances.length) refuse('It is accepted no longer.');
    document.acceptances = [...others];
    return 'Accept a finding no longer';
  }
  const { finding, severity } = edit;
  const why = edit.why.trim();
  if (why === '') refuse('Write why it may stay as it is.');
  if (why.length > 300) refuse('Write why in 300 characters or fewer.');
  if (severity === 'note') return refuse('A note needs no accepting.');
  const id = freshId(asItWas(document), LISTS.acceptances.prefix);
  document.acceptances = [...others, { id, finding, severity, why, said: edit.says.slice(0, LONGEST_SAID) }];
  return `Accept a finding: ${why}`;
}
