import { applyEdit, type Change, type Edit, type LayoutDocument } from '@/core/survey';

/** What an edit does; one that is refused fails the test with what was said. */
export function done(document: LayoutDocument, edit: Edit): Change {
  const result = applyEdit(document, edit);
  if (!result.ok) throw new Error(result.problem);
  return result.change;
}

/** Why an edit is refused. */
export function refused(document: LayoutDocument, edit: Edit): string {
  const result = applyEdit(document, edit);
  return result.ok ? 'done' : result.problem;
}
