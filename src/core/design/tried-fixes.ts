import { type Finding, type Fix, GRAVITY } from '../findings';
import { applyEdit, type Edit, type LayoutDocument } from '../survey';
import { checkDesign } from './check-design';

/** A fix that was tried on a copy and does what it is for. */
export interface TriedFix extends Fix<Edit> {
  /** What there is to say after it that was not before: none of it as grave as what it mends, unless it is withheld. */
  brings: string[];
}

/** What came of trying the fixes of a finding. */
export interface TriedFixes {
  offered: TriedFix[];
  /** They mend it, and bring something as grave. */
  withheld: TriedFix[];
}

/** Of more fixes than this each alone is not tried, only all together. */
const MOST_ALONE = 6;

/**
 * Each fix of a finding, applied to a copy that is checked again: offered are those that mend it and bring nothing as grave. Where none
 * does so alone, all that do the same are tried together, as one step. `findings`: all that there is to say of the layout as it is.
 */
export function triedFixes(
  document: LayoutDocument,
  findings: readonly Finding<Edit>[],
  finding: Finding<Edit>,
): TriedFixes {
  const { fixes } = finding;
  const withheld: TriedFix[] = [];
  const known = new Set(findings.map(({ id }) => id));
  const tried = (fix: Fix<Edit>): TriedFix[] => {
    const done = applyEdit(document, fix.edit);
    if (!done.ok) return [];
    const after = checkDesign(done.change.document).findings;
    if (after.some(({ id }) => id === finding.id)) return [];
    const fresh = after.filter(({ id }) => !known.has(id));
    const grave = fresh.filter(({ severity }) => GRAVITY[severity] >= GRAVITY[finding.severity]);
    if (grave.length > 0) withheld.push({ ...fix, brings: grave.map(({ says }) => says) });
    return grave.length > 0 ? [] : [{ ...fix, brings: fresh.map(({ says }) => says) }];
  };
  const alone = fixes.length > MOST_ALONE ? [] : fixes.flatMap(tried);
  if (alone.length > 0) return { offered: alone, withheld };
  const kinds = [...new Set(fixes.map(({ edit }) => edit.do))];
  const offered = kinds.flatMap((kind) => {
    const alike = fixes.filter(({ edit }) => edit.do === kind);
    return alike.length > 1 ? tried(together(alike)) : [];
  });
  return { offered, withheld: offered.length > 0 ? [] : withheld };
}

/** Several fixes as one step. */
function together(fixes: readonly Fix<Edit>[]): Fix<Edit> {
  const says = sayTogether(fixes.map((fix) => fix.says));
  const edits = fixes.flatMap(({ edit }) => (edit.do === 'one after another' ? edit.edits : [edit]));
  return { says, edit: { do: 'one after another', edits, says } };
}

/** “Place a buffer at 0 cm” and “Place a buffer at 260 cm”: “Place a buffer at 0 cm and 260 cm”. */
export function sayTogether(says: readonly string[]): string {
  const words = says.map((one) => one.split(' '));
  const [first] = words;
  let same = 0;
  while (words.every((one) => same < one.length - 1 && one[same] === first![same])) same += 1;
  if (same === 0) return says.map((one, i) => (i === 0 ? one : one[0]!.toLowerCase() + one.slice(1))).join(', and ');
  const rests = words.map((one) => one.slice(same).join(' '));
  return `${first!.slice(0, same).join(' ')} ${rests.slice(0, -1).join(', ')} and ${rests.at(-1)}`;
}
