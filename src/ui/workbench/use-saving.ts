'use client';
import { useEffect } from 'react';
import { sendServer } from '@/ui/parts/ask-server';
import { useWorkbenchStore } from './store';

const PAUSE_MS = 600;
const RETRY_MS = 3000;

/** Saves a pause after each edit, over the revision it was made from; tries again while the server is away. */
export function useSaving(): void {
  const store = useWorkbenchStore();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let busy = false;
    const save = async () => {
      const { id, document, revision, past, set } = store.getState();
      if (busy) return;
      busy = true;
      set({ saving: 'saving' });
      const asked = await sendServer<{ revision: number }>('PUT', `/api/layouts/${id}`, {
        revision,
        document,
        note: past[past.length - 1]?.says ?? '',
      });
      busy = false;
      const edited = store.getState().document !== document;
      if (asked.ok) {
        set({ revision: asked.value.revision, saving: edited ? 'waiting' : 'saved' });
        if (edited) later(PAUSE_MS);
      } else if (asked.status === 409)
        set({
          saving: 'conflict',
          problem:
            'This layout was changed in another window. Reload to see that version; your last edits here are not saved.',
        });
      else if (asked.status === 404 || asked.status === 422) set({ saving: 'failed', problem: asked.problem });
      else {
        set({ saving: 'failed', problem: asked.problem });
        later(RETRY_MS);
      }
    };
    const later = (ms: number) => {
      clearTimeout(timer);
      timer = setTimeout(() => void save(), ms);
    };
    const stop = store.subscribe((state, before) => {
      if (state.document !== before.document && state.saving !== 'conflict') later(PAUSE_MS);
    });
    const leave = (event: BeforeUnloadEvent) => {
      if (store.getState().saving !== 'saved') event.preventDefault();
    };
    window.addEventListener('beforeunload', leave);
    return () => {
      stop();
      clearTimeout(timer);
      window.removeEventListener('beforeunload', leave);
    };
  }, [store]);
}
