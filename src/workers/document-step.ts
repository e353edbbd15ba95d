import type { LayoutDocument } from '@/core/survey';
import { type ListStep, listStep, takeListStep } from './list-step';

/** From the document that a worker has to the next one: what is other than before, and the fields that are no longer there. */
export interface DocumentStep {
  /** The version that the worker is to have; 0 where all fields are sent. */
  from: number;
  to: number;
  put: Partial<LayoutDocument>;
  /** Of lists that were there before only what is new in them. */
  lists: Record<string, ListStep<unknown>>;
  gone: readonly string[];
}

/** An edit leaves the fields that it does not touch as they are, and the things of a list that it does not touch: the same objects. */
export function stepBetween(
  before: { version: number; document: LayoutDocument } | undefined,
  now: LayoutDocument,
  to: number,
): DocumentStep {
  const old: Record<string, unknown> = before ? { ...before.document } : {};
  const fields: [string, unknown][] = Object.entries(now);
  const put: Record<string, unknown> = {};
  const lists: DocumentStep['lists'] = {};
  for (const [field, value] of fields) {
    const was = old[field];
    if (field in old && was === value) continue;
    if (Array.isArray(value) && Array.isArray(was)) lists[field] = listStep(was, value as unknown[], (one) => one);
    else put[field] = value;
  }
  return {
    from: before?.version ?? 0,
    to,
    put,
    lists,
    gone: Object.keys(old).filter((field) => !(field in now)),
  };
}

/** The document that a worker has, by its version. */
export class FollowedDocument {
  version = 0;
  document: LayoutDocument | undefined;

  /** Goes on to the next version. False when the step begins at another one than this: then all of the document is wanted. */
  take({ from, to, put, lists, gone }: DocumentStep): boolean {
    if (from !== 0 && from !== this.version) return false;
    const old: Record<string, unknown> = from === 0 ? {} : { ...this.document };
    const stepped = Object.entries(lists).map(([field, step]) => [field, takeListStep(old[field] as unknown[], step)]);
    const next: Record<string, unknown> = { ...old, ...put, ...Object.fromEntries(stepped) };
    for (const value of Object.values(next)) Object.freeze(value);
    for (const field of gone) delete next[field];
    this.document = next as unknown as LayoutDocument;
    this.version = to;
    return true;
  }
}
