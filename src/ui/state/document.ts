import { applyChange, applyEdit, type Edit, type LayoutDocument, replaceDocument, type Step } from '@/core/survey';
import type { Slice } from './store';

/** The layout that is open, and the way back through its edits. */
export interface DocumentSlice {
  id: string;
  document: LayoutDocument;
  revision: number;
  past: Step[];
  future: Step[];
  /** What went wrong with the last save or edit, in a sentence. */
  problem?: string;

  edit(edit: Edit): boolean;
  /** Puts another document in place of this one, as one step that can be undone. */
  replace(other: LayoutDocument, says: string): void;
  undo(): void;
  redo(): void;
}

export const documentSlice =
  (initial: Pick<DocumentSlice, 'id' | 'document' | 'revision'>): Slice<DocumentSlice> =>
  (set, get) => {
    /** After any change nothing is wrong any more, and there is something to save. A conflict stays one until it is settled. */
    const change = (part: Pick<DocumentSlice, 'document' | 'past' | 'future'>) =>
      set({ ...part, problem: undefined, saving: get().saving === 'conflict' ? 'conflict' : 'waiting' });
    return {
      ...initial,
      past: [],
      future: [],
      edit(edit) {
        const { document, past, saving } = get();
        if (saving === 'opening') return false;
        const result = applyEdit(document, edit);
        if (!result.ok) {
          set({ problem: result.problem });
          return false;
        }
        const { document: next, ...step } = result.change;
        change({ document: next, past: [...past, step], future: [] });
        return true;
      },
      replace(other, says) {
        const { document: next, ...step } = replaceDocument(get().document, other, says);
        change({ document: next, past: [...get().past, step], future: [] });
      },
      undo() {
        const { document, past, future } = get();
        const last = past[past.length - 1];
        if (!last) return;
        change({
          document: applyChange(document, last.inverse),
          past: past.slice(0, -1),
          future: [last, ...future],
        });
      },
      redo() {
        const { document, past, future } = get();
        const next = future[0];
        if (!next) return;
        change({ document: applyChange(document, next.patches), past: [...past, next], future: future.slice(1) });
      },
    };
  };
