'use client';
import { useEffect } from 'react';
import { undoOrRedo } from '@/ui/parts/undo-keys';
import { useWorkbenchStore } from '@/ui/state/store';
import { lettersAreOn } from './shortcuts';

/** The parts of the window that F6 goes through, in order. */
const PARTS = 'header, nav, main svg[tabindex], section[data-part], aside, footer';
const FOCUSABLE = 'a[href], button:not(:disabled), input:not(:disabled), select, textarea, [tabindex="0"]';

/** Keys that act everywhere: undo, redo, finding, and going from part to part. */
export function useKeys(): void {
  const store = useWorkbenchStore();
  useEffect(() => {
    store.getState().set({ keysOn: lettersAreOn() });
    const nextPart = (back: boolean) => {
      const parts = [...document.querySelectorAll<HTMLElement>(PARTS)];
      const here = parts.findIndex((part) => part.contains(document.activeElement));
      const part = parts[(here + (back ? -1 : 1) + parts.length) % parts.length];
      const target = part?.matches('[tabindex]') ? part : part?.querySelector<HTMLElement>(FOCUSABLE);
      target?.focus();
    };
    const onKey = (event: KeyboardEvent) => {
      if (event.key === 'F6') {
        nextPart(event.shiftKey);
        event.preventDefault();
        return;
      }
      const inText = isText(event.target);
      const control = (event.ctrlKey || event.metaKey) && !event.altKey;
      const key = event.key.toLowerCase();
      if (event.key === '?' && !control && !event.altKey && !inText && !store.getState().window) {
        store.getState().set({ window: 'keys' });
        event.preventDefault();
      }
      if (!control) return;
      const chord = undoOrRedo(event);
      if (key === 'k') store.getState().set({ window: 'find' });
      else if (inText || !chord) return;
      else store.getState()[chord]();
      event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [store]);
}

const NO_TEXT = ['checkbox', 'radio', 'range', 'button', 'submit', 'reset', 'file', 'color'];

/** Whether keys typed there write text, so that taking back is a matter of that text. */
function isText(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return !NO_TEXT.includes(target.type);
  return target instanceof HTMLElement && (target instanceof HTMLTextAreaElement || target.isContentEditable);
}
