import type { LayoutDocument } from '@/core/survey';
import type { JournalState } from './journal-state';
import type { WorkbenchState } from './store';

/** A layout as the server has it. */
export interface StoredLayout {
  document: LayoutDocument;
  revision: number;
  /** The window that saved it. */
  token: string;
}

type Taken = Pick<WorkbenchState, 'saving'> & Partial<WorkbenchState>;

const AWAY =
  'The database does not answer. This is the version kept in this browser; edits are kept here and saved when it is back.';

/**
 * Where a window goes on, given what its browser kept and what the server has. A version that this very window saved, or
 * the one its edits were made from, is simply gone on from; any other beside unsaved edits is a conflict; without unsaved
 * edits the server's version counts, and the way back that belonged to an older one is dropped.
 */
export function takeUp(
  kept: JournalState | undefined,
  server: StoredLayout | undefined,
  tab: string | undefined,
): Taken {
  if (!server) {
    if (!kept) return { saving: 'failed', missing: true };
    const { unsaved, ...state } = kept;
    return { ...state, base: unsaved ? kept.base : kept.document, saving: 'failed', problem: AWAY };
  }
  const fresh = { document: server.document, base: server.document, revision: server.revision, past: [], future: [] };
  if (!kept) return { ...fresh, saving: 'saved' };
  const { past, future, document } = kept;
  if (server.revision === kept.revision || server.token === tab) {
    if (kept.unsaved) return { ...fresh, document, past, future, saving: 'waiting' };
    if (server.revision === kept.revision) return { ...fresh, past, future, saving: 'saved' };
  }
  if (!kept.unsaved) return { ...fresh, saving: 'saved' };
  return {
    document,
    base: kept.base,
    revision: kept.revision,
    past,
    future,
    saving: 'conflict',
    theirs: { document: server.document, revision: server.revision },
  };
}
