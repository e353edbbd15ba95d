import type { LayoutDocument } from '@/core/survey';

/** From the document that a worker has to the next one: fields that are others than before, and those that are no longer there. */
export interface DocumentStep {
  /** The version that the worker is to have; 0 where all fields are sent. */
  from: number;
  to: number;
  put: Partial<LayoutDocument>;
  gone: readonly string[];
}

/** An edit leaves the fields that it does not touch as they are, the same object. */
export function stepBetween(
  before: { version: number; document: LayoutDocument } | undefined,
  now: LayoutDocument,
  to: number,
): DocumentStep {
  const old: Record<string, unknown> = before ? { ...before.document } : {};
  const fields = Object.entries(now);
  return {
    from: before?.version ?? 0,
    to,
    put: Object.fromEntries(fields.filter(([field, value]) => !(field in old) || old[field] !== value)),
    gone: Object.keys(old).filter((field) => !(field in now)),
  };
}

/** The document that a worker has, by its version. */
export class FollowedDocument {
  version = 0;
  document: LayoutDocument | undefined;

  /** Goes on to the next version. False when the step begins at another one than this: then all of the document is wanted. */
  take({ from, to, put, gone }: DocumentStep): boolean {
    if (from !== 0 && from !== this.version) return false;
    for (const value of Object.values(put)) Object.freeze(value);
    const next: Record<string, unknown> = { ...(from === 0 ? {} : this.document), ...put };
    for (const field of gone) delete next[field];
    this.document = next as unknown as LayoutDocument;
    this.version = to;
    return true;
  }
}
