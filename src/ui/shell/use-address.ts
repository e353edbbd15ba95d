'use client';
import { useEffect } from 'react';
import { STAGES } from '@/ui/stages';
import { useWorkbenchStore } from '@/ui/state/store';

/** What of a layout’s address says where in it one is. */
export interface InAddress {
  stage?: string;
  thing?: string;
}

/** The stage of an address; the first where it names none that there is. */
export const stageOfAddress = (id: string | undefined) => STAGES.find((stage) => stage.id === id) ?? STAGES[0];

/** The query of an address; empty where one is when a layout is opened. */
function queryOf(stage: string, thing: string | undefined): string {
  const query = new URLSearchParams();
  if (stage !== STAGES[0].id) query.set('stage', stage);
  if (thing !== undefined) query.set('thing', thing);
  const text = query.toString();
  return text === '' ? '' : `?${text}`;
}

/**
 * Keeps the open stage and the selected thing in the address, so that going back, loading anew and a link that was sent come to them. Going
 * back leads through stages, not through everything that was clicked in one.
 */
export function useAddress(): void {
  const store = useWorkbenchStore();
  useEffect(() => {
    /** While the address leads, it is not written. */
    let leads = false;
    const follow = () => {
      leads = true;
      const query = new URLSearchParams(window.location.search);
      const { stage, selected, set, select } = store.getState();
      const asked = stageOfAddress(query.get('stage') ?? undefined);
      const thing = query.get('thing') ?? undefined;
      if (stage.id !== asked.id) set({ stage: asked });
      if (selected !== thing) select(thing);
      leads = false;
    };
    const end = store.subscribe(({ stage, selected }, before) => {
      if (leads || (stage === before.stage && selected === before.selected)) return;
      const query = queryOf(stage.id, selected);
      if (query === window.location.search) return;
      const address = `${window.location.pathname}${query}${window.location.hash}`;
      if (stage === before.stage) window.history.replaceState(null, '', address);
      else window.history.pushState(null, '', address);
    });
    window.addEventListener('popstate', follow);
    return () => {
      end();
      window.removeEventListener('popstate', follow);
    };
  }, [store]);
}
