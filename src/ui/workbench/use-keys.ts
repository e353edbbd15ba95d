'use client';
import { useEffect } from 'react';
import { useWorkbenchStore } from './store';

/** Keys that act everywhere: undo and redo. Single letters act only while the sheet has the focus. */
export function useKeys(): void {
  const store = useWorkbenchStore();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const inText = event.target instanceof HTMLInputElement && event.target.type !== 'checkbox';
      const undoKey = (event.ctrlKey || event.metaKey) && !event.altKey;
      if (!undoKey || inText) return;
      const key = event.key.toLowerCase();
      if (key === 'z' && !event.shiftKey) store.getState().undo();
      else if ((key === 'z' && event.shiftKey) || key === 'y') store.getState().redo();
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [store]);
}
