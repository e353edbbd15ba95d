import { DOCUMENT_VERSION, type LayoutDocument, readDocument, type Step } from '@/core/survey';

/**
 * What this browser keeps of a window's work on a layout, so that neither a reload nor a closed browser nor a database that
 * is away loses an edit or the way back.
 */
export interface JournalState {
  document: LayoutDocument;
  /** The document the server last acknowledged, and its number. */
  base: LayoutDocument;
  revision: number;
  unsaved: boolean;
  past: Step[];
  future: Step[];
}

/**
 * What a browser kept, in the present version of the document. The way back through edits belongs to the version in which they were
 * made, and is dropped with it. Undefined where it cannot be read any more.
 */
export function broughtUp(kept: JournalState): JournalState | undefined {
  if (kept.document.version === DOCUMENT_VERSION && kept.base.version === DOCUMENT_VERSION) return kept;
  const [document, base] = [readDocument(kept.document), readDocument(kept.base)];
  if (!document.ok || !base.ok) return undefined;
  return {
    ...kept,
    document: document.document,
    base: kept.unsaved ? base.document : document.document,
    past: [],
    future: [],
  };
}
