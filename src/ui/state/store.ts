'use client';
import { createContext, useContext } from 'react';
import { createStore, type StoreApi, useStore } from 'zustand';
import { type DesignSlice, type Explain, FIRST_TRIAL } from './design';
import { type DocumentSlice, documentSlice } from './document';
import { NO_COURSE, type RehearsalSlice } from './rehearsal';
import type { SavingSlice } from './saving';
import { type SelectionSlice, selectionSlice } from './selection';
import type { ViewSlice } from './view';

export interface WorkbenchState
  extends DocumentSlice,
    SavingSlice,
    DesignSlice,
    SelectionSlice,
    RehearsalSlice,
    ViewSlice {
  set(part: Partial<WorkbenchState>): void;
}
export function createWorkbench(
  initial: Pick<WorkbenchState, 'id' | 'document' | 'revision' | 'stage' | 'selected'>,
): StoreApi<WorkbenchState> {
  return createStore<WorkbenchState>()((set, get) => ({
    ...documentSlice(initial)(set, get),
    ...selectionSlice(set, get),
    selected: initial.selected,
    base: initial.document,
    unkept: false,
    saving: 'opening',
    trial: FIRST_TRIAL,
    course: NO_COURSE,
    events: [],
    samples: [],
    stage: initial.stage,
    layers: { detectors: true, signals: true, lengths: true },
    keysOn: true,
    trayOpen: false,
    kept: new Map(),
    set,
  }));
}

export const WorkbenchContext = createContext<StoreApi<WorkbenchState> | null>(null);

export function useWorkbenchStore(): StoreApi<WorkbenchState> {
  const store = useContext(WorkbenchContext);
  if (!store) throw new Error('This part must stand inside a Workbench.');
  return store;
}

export function useWorkbench<T>(pick: (state: WorkbenchState) => T): T {
  return useStore(useWorkbenchStore(), pick);
}

/** Who can tell why the open stage shows what it shows. */
export const shownExplain = ({ stage, explainTrial, explainRun }: WorkbenchState): Explain | undefined =>
  stage.knows === 'run' ? explainRun : stage.knows === 'trial' ? explainTrial : undefined;
/** What it shows: another object as soon as that changes. */
export const shownMoment = ({ stage, tried, frame }: WorkbenchState): object | undefined =>
  stage.knows === 'run' ? frame : stage.knows === 'trial' ? tried : undefined;
