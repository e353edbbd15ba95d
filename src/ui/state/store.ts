'use client';
import { createContext, useContext } from 'react';
import { createStore, type StoreApi, useStore } from 'zustand';
import { type DesignSlice, FIRST_TRIAL } from './design';
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
  initial: Pick<WorkbenchState, 'id' | 'document' | 'revision' | 'stage'>,
): StoreApi<WorkbenchState> {
  return createStore<WorkbenchState>()((set, get) => ({
    ...documentSlice(initial)(set, get),
    ...selectionSlice(set),
    base: initial.document,
    unkept: false,
    saving: 'opening',
    trial: FIRST_TRIAL,
    trialValues: {},
    course: NO_COURSE,
    runValues: {},
    stage: initial.stage,
    layers: { detectors: true, signals: true, lengths: true },
    keysOn: true,
    trayOpen: false,
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

const NO_VALUES: Record<string, number> = {};
/** The values that the open stage shows. */
export const shownValues = ({ stage, trialValues, runValues }: WorkbenchState): Record<string, number> =>
  stage.knows === 'run' ? runValues : stage.knows === 'trial' ? trialValues : NO_VALUES;
