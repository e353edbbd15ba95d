import { applyChange, applyEdit, type Edit, type LayoutDocument, replaceDocument, type Step } from '@/core/survey';
import type { SavingSlice } from './saving';

/** The layout that is open, and the way back through its edits. */
export interface DocumentSlice {
  id: string;
  document: LayoutDocument;
  revision: number;
  past: Step[];
  future: Step[];
  /** What went wrong with the last save or edit, in a sentence. */
  problem?: string;
  /** What was deleted last, told for a while so that it can be taken back at once. */
  notice?: { key: number; says: string };

  /** Carries out an edit; what stands in its way is told at the foot. */
  edit(edit: Edit): boolean;
  /** Carries out an edit, or gives back what stands in its way, for a form to tell beside its field. */
  attempt(edit: Edit): string | undefined;
  /** Puts another document in place of this one, as one step that can be undone. */
  replace(other: LayoutDocument, says: string): void;
  undo(): void;
  redo(): void;
}

type Seen = DocumentSlice & Pick<SavingSlice, 'saving'>;

export const documentSlice =
  (initial: Pick<DocumentSlice, 'id' | 'document' | 'revision'>) =>
  (set: (part: Partial<Seen>) => void, get: () => Seen): DocumentSlice => {
    /** After any change nothing is wrong any more, and there is something to save. A conflict stays one until it is settled. */
    const change = (part: Pick<DocumentSlice, 'document' | 'past' | 'future'>) =>
      set({
        ...part,
        problem: undefined,
        notice: undefined,
        saving: get().saving === 'conflict' ? 'conflict' : 'waiting',
      });
    return {
      ...initial,
      past: [],
      future: [],
      edit(edit) {
        const problem = get().attempt(edit);
        if (problem !== undefined) set({ problem });
        return problem === undefined;
      },
      attempt(edit) {
        const { document, past, saving } = get();
        if (saving === 'opening') return 'The layout is still being opened.';
        const result = applyEdit(document, edit);
        if (!result.ok) return result.problem;
        const { document: next, ...step } = result.change;
        change({ document: next, past: [...past, step], future: [] });
        if (edit.do === 'delete')
          set({ notice: { key: past.length, says: `${step.says.replace(/^Delete /, '')}: deleted` } });
        return undefined;
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
