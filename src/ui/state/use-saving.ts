'use client';
import { useEffect } from 'react';
import { compareDocuments } from '@/core/survey';
import { askServer, sendServer } from '@/ui/parts/ask-server';
import { Journal } from './journal';
import { useWorkbenchStore, type WorkbenchState } from './store';
import { type StoredLayout, takeUp } from './take-up';

const PAUSE_MS = 600;
const RETRY_MS = 3000;

/**
 * Keeps the work: every edit goes at once into the browser's own journal, and after a pause to the server, over the draft it
 * was made from. What the server has not acknowledged is tried again, also after a reload.
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one queue of saves, which has to be ended as a whole.
export function useSaving(server: StoredLayout | undefined): void {
  const store = useWorkbenchStore();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the server's version is where it starts, once
  // biome-ignore lint/complexity/noExcessiveLinesPerFunction: one queue of saves, which has to be ended as a whole.
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let busy = false;
    let over = false;
    let journal: Journal | undefined;
    const later = (ms: number) => {
      clearTimeout(timer);
      timer = setTimeout(() => void save(), ms);
    };

    const save = async () => {
      const { id, document, base, revision, saving, set } = store.getState();
      if (busy || over || saving === 'opening' || saving === 'conflict') return;
      busy = true;
      if (document === base) {
        await lookUp();
        busy = false;
        return;
      }
      set({ saving: 'saving' });
      await keeping;
      const asked = await sendServer<{ revision: number }>('PUT', `/api/layouts/${id}`, {
        revision,
        document,
        token: journal?.tab ?? '',
      });
      busy = false;
      const edited = store.getState().document !== document;
      if (asked.ok) {
        const back = saving === 'failed' ? { problem: undefined } : {};
        set({ revision: asked.value.revision, base: document, saving: edited ? 'waiting' : 'saved', ...back });
        if (edited) later(PAUSE_MS);
        return;
      }
      if (asked.status === 409) {
        const { current } = asked.body as { current: StoredLayout };
        const same = compareDocuments(base, current.document).length === 0;
        if (same || (journal && current.token === journal.tab)) {
          set({ revision: current.revision, base: current.document, saving: 'waiting' });
          later(0);
        } else set({ saving: 'conflict', theirs: { document: current.document, revision: current.revision } });
        return;
      }
      const gone = asked.status === 404 || asked.status === 422;
      set({ saving: 'failed', problem: gone ? asked.problem : `${asked.problem} ${KEPT}` });
      if (!gone) later(RETRY_MS);
    };

    /** With nothing of one's own to save: takes what the server has, once it is back. */
    const lookUp = async () => {
      const asked = await askServer<StoredLayout>(`/api/layouts/${store.getState().id}`);
      const { document, base, revision, past, future, set } = store.getState();
      if (document !== base) later(0);
      else if (asked.ok) {
        const kept = { document, base, revision, past, future, unsaved: false };
        set({ ...takeUp(kept, asked.value, undefined), problem: undefined });
      } else later(RETRY_MS);
    };

    let keeping: Promise<void> | undefined;
    const keep = ({ document, base, revision, past, future, saving, set, unkept }: WorkbenchState) => {
      keeping = journal
        ?.keep({ document, base, revision, past, future, unsaved: saving !== 'saved' })
        .then(() => {
          if (unkept) set({ unkept: false });
        })
        .catch(() => set({ unkept: true }));
    };

    const begin = async () => {
      const newest = await newestOf(server, store.getState().id);
      journal = await Journal.open(store.getState().id).catch(() => undefined);
      if (over) return journal?.close();
      const { set } = store.getState();
      if (!journal) set({ unkept: true });
      set(takeUp(journal?.found, newest, journal?.tab));
      if (store.getState().saving === 'waiting') later(0);
      else if (store.getState().saving === 'failed') later(RETRY_MS);
    };
    void begin();

    const stop = store.subscribe((state, before) => {
      if (before.saving === 'opening' || state.saving === 'opening') return;
      if (state.document !== before.document || state.saving !== before.saving || state.revision !== before.revision)
        keep(state);
      if (state.saving === 'waiting' && (state.document !== before.document || before.saving !== 'waiting'))
        later(PAUSE_MS);
    });
    const leave = (event: BeforeUnloadEvent) => {
      const { saving, unkept } = store.getState();
      if (saving !== 'saved' && unkept) event.preventDefault();
    };
    window.addEventListener('beforeunload', leave);
    return () => {
      over = true;
      journal?.close();
      stop();
      clearTimeout(timer);
      window.removeEventListener('beforeunload', leave);
    };
  }, [store]);
}

const taken = new WeakSet<StoredLayout>();

/**
 * What the page was loaded with is the server’s version when it is first shown. Shown a second time, as when somebody goes
 * back to it, it may be long out of date, and the server is asked anew.
 */
async function newestOf(server: StoredLayout | undefined, id: string): Promise<StoredLayout | undefined> {
  if (server && taken.has(server)) {
    const asked = await askServer<StoredLayout>(`/api/layouts/${id}`);
    return asked.ok ? asked.value : undefined;
  }
  if (server) taken.add(server);
  return server;
}

const KEPT = 'Your edits are kept in this browser and saved as soon as it is back.';
