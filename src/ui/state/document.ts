import {
  applyChange,
  applyEdit,
  type Edit,
  type FixedThing,
  fixedThatMoves,
  type LayoutDocument,
  replaceDocument,
  type Step,
} from '@/core/survey';
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
  /** An edit that would move what is fixed, until somebody says whether it shall. */
  asking?: { edit: Edit; things: FixedThing[] };
  /** How often the answer was no: what was typed for it then goes. */
  left: number;
  /** Things that somebody has said may move, though they are fixed, while they are selected. */
  sure: readonly string[];
  /** What was deleted last, told for a while so that it can be taken back at once. */
  notice?: { key: number; says: string };

  /** Carries out an edit; what stands in its way is told at the foot. */
  edit(edit: Edit): boolean;
  /** Carries out an edit, or gives back what stands in its way, for a form to tell beside its field. */
  attempt(edit: Edit): string | undefined;
  /** Puts another document in place of this one, as one step that can be undone. */
  replace(other: LayoutDocument, says: string): void;
  /** The answer to what is being asked. */
  answer(yes: boolean): void;
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
      sure: [],
      left: 0,
      edit(edit) {
        const problem = get().attempt(edit);
        if (problem !== undefined && !get().asking) set({ problem });
        return problem === undefined;
      },
      attempt(edit) {
        const { document, past, saving } = get();
        if (saving === 'opening') return 'The layout is still being opened.';
        const things = fixedThatMoves(document, edit).filter(({ id }) => !get().sure.includes(id));
        if (things.length > 0) {
          set({ asking: { edit, things } });
          return 'It is fixed. Say first whether it moves.';
        }
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
      answer(yes) {
        const { asking, sure } = get();
        set({ asking: undefined });
        if (!asking) return;
        if (!yes) return set({ left: get().left + 1 });
        set({ sure: [...sure, ...asking.things.map(({ id }) => id)] });
        get().edit(asking.edit);
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
