'use client';
import { useState } from 'react';
import { newDocument } from '@/core/survey';
import { Tray } from '@/ui/findings/tray';
import { ConflictWindow } from '@/ui/history/conflict-window';
import { HistoryWindow } from '@/ui/history/history-window';
import { Notice } from '@/ui/parts/notice';
import { Notices } from '@/ui/parts/toast';
import { OwnRulesWindow } from '@/ui/reasoning/own-rules-window';
import { ExportWindow } from '@/ui/shell/export-window';
import { STAGES } from '@/ui/stages';
import { createWorkbench, useWorkbench, useWorkbenchStore, WorkbenchContext } from '@/ui/state/store';
import type { StoredLayout } from '@/ui/state/take-up';
import { useDesign } from '@/ui/state/use-design';
import { useSaving } from '@/ui/state/use-saving';
import { AskToMove } from './ask-to-move';
import { Unbroken } from './broken';
import { DesignProblem } from './design-problem';
import { FindWindow } from './find-window';
import { Header } from './header';
import { JumpLinks } from './jump-links';
import { KeysWindow } from './keys-window';
import { StageList } from './stage-list';
import { type InAddress, stageOfAddress, useAddress } from './use-address';
import { useKeys } from './use-keys';

/** One layout, opened: from the server, or from what this browser kept when the server has no answer. */
export function Workbench({ id, server, at = {} }: { id: string; server?: StoredLayout; at?: InAddress }) {
  const [store] = useState(() =>
    createWorkbench({
      id,
      document: server?.document ?? newDocument(''),
      revision: server?.revision ?? 0,
      stage: stageOfAddress(at.stage),
      selected: at.thing,
    }),
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
  useAddress();
  const theirs = useWorkbench((s) => s.theirs);
  const notice = useWorkbench((s) => s.notice);
  const window = useWorkbench((s) => s.window);
  const store = useWorkbenchStore();
  const close = () => store.getState().set({ window: undefined });
  const id = useWorkbench((s) => s.stage.id);
  const empty = useWorkbench((s) => s.document.lines.length === 0);
  const stage = STAGES.find((one) => one.id === id)!;
  const Main = empty ? (STAGES[0].Empty ?? stage.Main) : stage.Main;
  return (
    <div className="flex flex-col overflow-hidden" style={{ height: 'calc(100dvh / var(--size, 1))' }}>
      <JumpLinks />
      <Header />
      <div className="flex min-h-0 flex-1">
        <StageList />
        <Main key={id} />
      </div>
      <DesignProblem />
      <Tray />
      <AskToMove />
      <Notices
        notice={notice}
        onUndo={() => store.getState().undo()}
        onGone={() => store.getState().set({ notice: undefined })}
      />
      {theirs && <ConflictWindow key={theirs.revision} theirs={theirs} />}
      {!theirs && window === 'history' && <HistoryWindow onClose={close} />}
      {!theirs && window === 'find' && <FindWindow onClose={close} />}
      {!theirs && window === 'keys' && <KeysWindow onClose={close} />}
      {!theirs && window === 'export' && <ExportWindow onClose={close} />}
      {!theirs && window === 'rules' && <OwnRulesWindow onClose={close} />}
    </div>
  );
}
