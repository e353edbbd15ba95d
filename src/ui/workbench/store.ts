'use client';
import { createContext, useContext } from 'react';
import { createStore, type StoreApi, useStore } from 'zustand';
import type { DesignView, Trial } from '@/core/design';
import type { Recording, RehearsalFrame, TrainFrame } from '@/core/simulation';
import { applyChange, applyEdit, type Edit, type LayoutDocument, replaceDocument, type Step } from '@/core/survey';
import type { Proved } from './verdict-line';

export type Stage = 'survey' | 'signal' | 'prove' | 'rehearse';
export type Saving = 'opening' | 'saved' | 'waiting' | 'saving' | 'failed' | 'conflict';

/** The version that another window saved meanwhile. */
export interface Theirs {
  document: LayoutDocument;
  revision: number;
}

/** A design with the document it was computed from: the two are shown together or not at all. */
export interface Designed extends DesignView {
  document: LayoutDocument;
}

/** Signals, turnouts and blocks at a moment of a rehearsal, and how trains stand. */
export interface Board extends Omit<RehearsalFrame, 'tick' | 'trains'> {
  /** The layout that is rehearsed: turnouts and signals are in its order. */
  document: LayoutDocument;
  trains: Omit<TrainFrame, 'spans' | 'mmPerS'>[];
}

/** How far a rehearsal has come. */
export interface Course {
  hash: string;
  notPlaced: string[];
  /** The farthest moment of this course, and how many commands are still to come in it. */
  reached: number;
  toCome: number;
}
const NO_COURSE: Course = { hash: '', notPlaced: [], reached: 0, toCome: 0 };

/** What the sheet may ask of a rehearsal: by click on the track, or by key. */
export interface Operator {
  throwTurnout(id: string): void;
  /** Sends a train to a block. */
  send(train: string, block: string): void;
  playOrPause(): void;
  step(): void;
}

/** The layers that can be switched on the sheet. */
export interface Layers {
  detectors: boolean;
  signals: boolean;
  lengths: boolean;
}

export interface WorkbenchState {
  id: string;
  document: LayoutDocument;
  revision: number;
  /** The document the server last acknowledged. */
  base: LayoutDocument;
  saving: Saving;
  /** Set while a choice has to be made between two versions. */
  theirs?: Theirs;
  /** The browser refuses to keep edits, so that they live in this page only. */
  unkept: boolean;
  /** Neither the server nor this browser has the layout. */
  missing?: boolean;
  /** What went wrong with the last save or edit, in a sentence. */
  problem?: string;
  past: Step[];
  future: Step[];
  stage: Stage;
  /** The id of a feature, turnout or train, or “block NAME”. */
  selected?: string;
  /** A second thing, to which distance and running time are measured from the selected one. */
  measured?: string;
  /** Single letters act on the sheet; some people switch that off. */
  keysOn: boolean;
  /** A place pointed at on the track, for adding things. */
  pointed?: { line: string; at: number };
  layers: Layers;
  /** The newest design there is; of another document than the present one, it is about to be replaced. */
  design?: Designed;
  /** The newest proof; of another document than the present one it is out of date. */
  proved?: Proved;
  trial: Trial;
  /** Present values of the rule program's names: from trying by hand, or from the rehearsal. */
  values: Record<string, number>;
  trayOpen: boolean;
  /** The window that stands open over the workbench. */
  window?: 'history' | 'runs' | 'find' | 'keys' | 'export';
  /** What the running rehearsal can be asked to do; absent in the other stages. */
  operator?: Operator;
  /** A run that the rehearsal is to begin with. */
  recording?: Recording;
  /** The present moment of a rehearsal: it changes with every step of every train. */
  frame?: RehearsalFrame;
  /** What of it changes seldom: the same object until something in it is different. */
  board?: Board;
  course: Course;

  edit(edit: Edit): boolean;
  /** Puts another document in place of this one, as one step that can be undone. */
  replace(other: LayoutDocument, says: string): void;
  undo(): void;
  redo(): void;
  select(id: string | undefined): void;
  set(part: Partial<WorkbenchState>): void;
}

export function createWorkbench(initial: {
  id: string;
  document: LayoutDocument;
  revision: number;
}): StoreApi<WorkbenchState> {
  return createStore<WorkbenchState>()((set, get) => ({
    ...initial,
    base: initial.document,
    unkept: false,
    saving: 'opening',
    past: [],
    future: [],
    stage: 'survey',
    layers: { detectors: true, signals: true, lengths: true },
    trial: { occupied: [], points: {} },
    values: {},
    trayOpen: false,
    keysOn: true,
    course: NO_COURSE,

    edit(edit) {
      const { document, past, saving } = get();
      if (saving === 'opening') return false;
      const result = applyEdit(document, edit);
      if (!result.ok) {
        set({ problem: result.problem });
        return false;
      }
      const { document: next, ...step } = result.change;
      set({ document: next, past: [...past, step], future: [], ...changed(get()) });
      return true;
    },
    replace(other, says) {
      const { document: next, ...step } = replaceDocument(get().document, other, says);
      set({ document: next, past: [...get().past, step], future: [], ...changed(get()) });
    },
    undo() {
      const { document, past, future } = get();
      const last = past[past.length - 1];
      if (!last) return;
      set({
        document: applyChange(document, last.inverse),
        past: past.slice(0, -1),
        future: [last, ...future],
        ...changed(get()),
      });
    },
    redo() {
      const { document, past, future } = get();
      const next = future[0];
      if (!next) return;
      set({
        document: applyChange(document, next.patches),
        past: [...past, next],
        future: future.slice(1),
        ...changed(get()),
      });
    },
    select(id) {
      set({ selected: id, measured: undefined, problem: undefined });
    },
    set(part) {
      set(part);
    },
  }));
}

/** After any change: nothing is wrong any more, and there is something to save. A conflict stays one until it is settled. */
const changed = ({ saving }: WorkbenchState): Pick<WorkbenchState, 'problem' | 'saving'> => ({
  problem: undefined,
  saving: saving === 'conflict' ? 'conflict' : 'waiting',
});

export const WorkbenchContext = createContext<StoreApi<WorkbenchState> | null>(null);

export function useWorkbenchStore(): StoreApi<WorkbenchState> {
  const store = useContext(WorkbenchContext);
  if (!store) throw new Error('This part must stand inside a Workbench.');
  return store;
}

export function useWorkbench<T>(pick: (state: WorkbenchState) => T): T {
  return useStore(useWorkbenchStore(), pick);
}

/**
 * The document that the sheet and everything derived show: the design’s own, so that no two edits are ever mixed. A design of
 * an empty layout says nothing, so there the present document is shown at once.
 */
export const shownDocument = ({ design, document }: Pick<WorkbenchState, 'design' | 'document'>): LayoutDocument =>
  design && design.document.lines.length > 0 ? design.document : document;

export const blockKey = (name: string) => `block ${name}`;
export const blockNameOf = (selected: string | undefined) =>
  selected?.startsWith('block ') ? selected.slice(6) : undefined;
