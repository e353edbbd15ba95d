import type { LayoutDocument } from './schema';

type Field = keyof LayoutDocument;

/**
 * A step of the way from the document to what is said of it, with the fields of the document that it reads. Asked again with the
 * same fields and the same results of earlier steps, it gives what it gave last. Only what is frozen counts as the same, since
 * anything else may have been changed in its place; a document made by an edit is frozen.
 */
export function remembered<F extends Field, E extends readonly unknown[], R>(
  fields: readonly F[],
  step: (document: Pick<LayoutDocument, F>, ...earlier: E) => R,
): (document: Pick<LayoutDocument, F>, ...earlier: E) => R {
  let last: { read: unknown[]; earlier: E; result: R } | undefined;
  return (document, ...earlier) => {
    const read = fields.map((field) => document[field] as unknown);
    const isSame =
      last !== undefined &&
      read.every((value, i) => value === last!.read[i] && Object.isFrozen(value)) &&
      earlier.every((value, i) => value === last!.earlier[i]);
    if (!isSame) last = { read, earlier, result: step(document, ...earlier) };
    return last!.result;
  };
}
