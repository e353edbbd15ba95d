'use client';
import { useState } from 'react';
import { consistOf } from '@/core/detection';
import { fromMm, showLength, showNumber } from '@/core/measure';
import { newDocument } from '@/core/survey';
import { Tray } from '@/ui/findings/tray';
import { ConflictWindow } from '@/ui/history/conflict-window';
import { HistoryWindow } from '@/ui/history/history-window';
import { ExportWindow } from '@/ui/line-sheet/export-window';
import { LineSheet } from '@/ui/line-sheet/line-sheet';
import { Notice } from '@/ui/parts/notice';
import { ProveStage } from '@/ui/prove/prove-stage';
import { MeasurePanel } from '@/ui/reasoning/measure-panel';
import { Panel, PanelSection } from '@/ui/reasoning/panel';
import { Selection, subjectOf } from '@/ui/reasoning/selection';
import { RehearseStage } from '@/ui/rehearse/rehearse-stage';
import { ByHand } from '@/ui/signal/by-hand';
import { AddPanel } from '@/ui/survey/add-panel';
import { Directions } from '@/ui/survey/directions';
import { FirstLine } from '@/ui/survey/first-line';
import { TrainForm } from '@/ui/survey/train-form';
import { Unbroken } from './broken';
import { FindWindow } from './find-window';
import { Header } from './header';
import { KeysWindow } from './keys-window';
import { SheetBar } from './sheet-bar';
import { Stages } from './stages';
import { createWorkbench, type Layers, useWorkbench, useWorkbenchStore, WorkbenchContext } from './store';
import type { StoredLayout } from './take-up';
import { useDesign } from './use-design';
import { useKeys } from './use-keys';
import { useSaving } from './use-saving';

/** One layout, opened: from the server, or from what this browser kept when the server has no answer. */
export function Workbench({ id, server }: { id: string; server?: StoredLayout }) {
  const [store] = useState(() =>
    createWorkbench({ id, document: server?.document ?? newDocument(''), revision: server?.revision ?? 0 }),
  );
  return (
    <WorkbenchContext.Provider value={store}>
      <Opened server={server} />
    </WorkbenchContext.Provider>
  );
}

function Opened({ server }: { server?: StoredLayout }) {
  useSaving(server);
  const opening = useWorkbench((s) => s.saving === 'opening');
  const missing = useWorkbench((s) => s.missing);
  if (!server && (opening || missing))
    return (
      <Notice title={opening ? 'Opening …' : 'The database does not answer'}>
        {!opening &&
          'Your layouts are safe. Stop Roblik with Ctrl-C, start it again with ./roblik start, and load this page anew. '}
      </Notice>
    );
  return (
    <Unbroken>
      <Shell />
    </Unbroken>
  );
}

function Shell() {
  useDesign();
  useKeys();
  const theirs = useWorkbench((s) => s.theirs);
  const window = useWorkbench((s) => s.window);
  const store = useWorkbenchStore();
  const close = () => store.getState().set({ window: undefined });
  const stage = useWorkbench((s) => s.stage);
  const empty = useWorkbench((s) => s.document.lines.length === 0);
  return (
    <div className="flex flex-col overflow-hidden" style={{ height: 'calc(100dvh / var(--size, 1))' }}>
      <Header />
      <div className="flex min-h-0 flex-1">
        <Stages />
        {empty ? (
          <FirstLine />
        ) : stage === 'rehearse' ? (
          <RehearseStage />
        ) : stage === 'prove' ? (
          <ProveStage />
        ) : (
          <DesignStage />
        )}
      </div>
      <Tray />
      {theirs && <ConflictWindow theirs={theirs} />}
      {!theirs && window === 'history' && <HistoryWindow onClose={close} />}
      {!theirs && window === 'find' && <FindWindow onClose={close} />}
      {!theirs && window === 'keys' && <KeysWindow onClose={close} />}
      {!theirs && window === 'export' && <ExportWindow onClose={close} />}
    </div>
  );
}

const LAYERS: [keyof Layers, string][] = [
  ['detectors', 'Detectors'],
  ['signals', 'Signals'],
  ['lengths', 'Lengths'],
];

function DesignStage() {
  const store = useWorkbenchStore();
  const stage = useWorkbench((s) => s.stage);
  const layers = useWorkbench((s) => s.layers);
  const selected = useWorkbench((s) => s.selected);
  const measured = useWorkbench((s) => s.measured);
  const document = useWorkbench((s) => s.document);
  const subject = subjectOf(document, selected);
  const close = () => store.getState().select(undefined);
  return (
    <>
      <main className="flex min-h-0 min-w-0 flex-1 flex-col overflow-hidden">
        <SheetBar title="Line sheet">
          {LAYERS.map(([layer, label]) => (
            <label key={layer} className="flex items-center gap-1.5">
              <input
                type="checkbox"
                checked={layers[layer]}
                onChange={(e) => store.getState().set({ layers: { ...layers, [layer]: e.target.checked } })}
              />
              {label}
            </label>
          ))}
        </SheetBar>
        <LineSheet />
      </main>
      {subject !== undefined ? (
        <Panel
          title={measured ? 'Between two things' : 'Reasoning'}
          subject={measured ? undefined : subject}
          onClose={close}
        >
          {selected && measured ? <MeasurePanel from={selected} to={measured} /> : <Selection key={selected} />}
        </Panel>
      ) : stage === 'survey' ? (
        <Panel title="Survey">
          <AddPanel />
          <Trains />
          <Directions />
        </Panel>
      ) : (
        <Panel title="Reasoning">
          <ByHand />
        </Panel>
      )}
    </>
  );
}

function Trains() {
  const document = useWorkbench((s) => s.document);
  const store = useWorkbenchStore();
  return (
    <PanelSection title={document.trains.length === 1 ? '1 train' : `${document.trains.length} trains`}>
      <ul className="mb-2">
        {document.trains.map((train) => (
          <li key={train.id} className="flex items-center justify-between gap-2 border-b border-hair py-1">
            <button
              type="button"
              className="min-w-0 cursor-pointer rounded-sm text-left hover:bg-accent-tint"
              onClick={() => store.getState().select(train.id)}
            >
              <span className="block truncate font-medium">{train.name}</span>
              <span className="text-ink3">
                {showLength(fromMm(consistOf(document, train).lengthMm), document.shownUnit)},{' '}
                {showNumber(train.topSpeedKmh, 0)} km/h
              </span>
            </button>
            <button
              type="button"
              className="button"
              onClick={() => store.getState().edit({ do: 'delete', id: train.id })}
              aria-label={`Delete ${train.name}`}
            >
              Delete
            </button>
          </li>
        ))}
      </ul>
      <details>
        <summary className="cursor-pointer font-medium">Add a train</summary>
        <div className="mt-2">
          <TrainForm />
        </div>
      </details>
    </PanelSection>
  );
}
