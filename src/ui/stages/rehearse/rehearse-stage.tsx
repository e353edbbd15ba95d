'use client';
import { type ComponentProps, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { BlockView } from '@/core/design';
import { SheetBar } from '@/ui/parts/sheet-bar';
import { Panel, PanelTitle } from '@/ui/reasoning/panel';
import { Selection, subjectOf } from '@/ui/reasoning/selection';
import { LineSheet } from '@/ui/sheet/line-sheet';
import { shownDocument } from '@/ui/state/design';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { HazardsNow } from './hazards-now';
import { OnTheLine } from './on-the-line';
import { RehearseBar } from './rehearse-bar';
import { RunsWindow } from './runs-window';
import { TimeDistanceGraph } from './time-distance-graph';
import { useRehearsal } from './use-rehearsal';
import { WhileRunning } from './while-running';

const NO_BLOCKS: BlockView[] = [];
/** The graph is drawn this often; the trains on the sheet move at every report. */
const GRAPH_MS = 240;

/** The graph redraws a few times a second; the trains on the sheet move at every report. */
function SlowGraph(props: Omit<ComponentProps<typeof TimeDistanceGraph>, 'tick' | 'samples'>) {
  const store = useWorkbenchStore();
  const [{ tick, samples }, setDrawn] = useState({ tick: 0, samples: store.getState().samples });
  useEffect(() => {
    const timer = setInterval(() => {
      const { frame, samples: now } = store.getState();
      const at = frame?.tick ?? 0;
      setDrawn((was) => (was.tick === at && was.samples === now ? was : { tick: at, samples: now }));
    }, GRAPH_MS);
    return () => clearInterval(timer);
  }, [store]);
  return <TimeDistanceGraph {...props} samples={samples} tick={tick} />;
}

/** Trains on the line: run, wound back, run on otherwise, kept and compared. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function RehearseStage() {
  const run = useRehearsal();
  const store = useWorkbenchStore();
  const document = useWorkbench(shownDocument);
  const board = useWorkbench((s) => s.board);
  const selected = useWorkbench((s) => s.selected);
  const controls = useRef(run);
  controls.current = run;
  const throwTurnout = useCallback(
    (id: string) => {
      const { board: now } = store.getState();
      const index = now?.document.turnouts.findIndex((t) => t.id === id) ?? -1;
      if (now && index >= 0)
        controls.current.command({
          kind: 'throw',
          turnout: id,
          to: now.points[index] === 'straight' ? 'diverging' : 'straight',
        });
    },
    [store],
  );
  const send = useCallback(
    (train: string, block: string) => controls.current.command({ kind: 'send', train, block }),
    [],
  );
  const letters = useMemo(
    () => ({
      ' ': () => (controls.current.playing ? controls.current.pause() : controls.current.play()),
      '.': () => controls.current.step(1),
    }),
    [],
  );
  const wind = useCallback((tick: number) => controls.current.wind(tick), []);
  const [graphBox, setGraphBox] = useState<HTMLDivElement | null>(null);
  const isTrain = document.trains.some((t) => t.id === selected);
  const design = useWorkbench((s) => s.design);
  const windowOpen = useWorkbench((s) => s.window);
  const lineNames = useMemo(() => new Map(document.lines.map((line) => [line.id, line.name])), [document.lines]);
  const trainNames = board?.trains.map((t) => t.name).join('\n') ?? '';
  const names = useMemo(() => trainNames.split('\n').filter(Boolean), [trainNames]);
  const blocks = useWorkbench((s) => s.design?.blocks);
  const subject = isTrain ? undefined : subjectOf(document, blocks, selected);
  return (
    <>
      <main className="flex min-h-0 min-w-0 flex-1 flex-col overflow-hidden">
        <SheetBar title="Rehearse">
          <RehearseBar run={run} />
        </SheetBar>
        <LineSheet
          onTurnout={throwTurnout}
          onSend={send}
          letters={letters}
          below={(geometry, width, bands) => (
            <div ref={setGraphBox} className="min-h-0 flex-[1_0_110px] overflow-hidden">
              {board && (
                <SlowGraph
                  geometry={geometry}
                  blocks={design?.blocks ?? NO_BLOCKS}
                  lineNames={lineNames}
                  mainRow={geometry.drawn(document.referenceLine).row}
                  names={names}
                  bands={bands}
                  onWind={wind}
                  width={width}
                  height={Math.max(120, graphBox?.clientHeight ?? 300)}
                />
              )}
            </div>
          )}
        />
      </main>
      {subject !== undefined ? (
        <Panel title="Reasoning" subject={subject} onClose={() => store.getState().select(undefined)}>
          <HazardsNow />
          <WhileRunning run={run} />
          <Selection key={selected} />
        </Panel>
      ) : (
        <Panel
          title="On the line now"
          subject={board ? (board.trains.length === 1 ? '1 train' : `${board.trains.length} trains`) : undefined}
        >
          {isTrain && <PanelTitle>{document.trains.find((t) => t.id === selected)?.name}</PanelTitle>}
          <HazardsNow />
          <OnTheLine run={run} />
        </Panel>
      )}
      {windowOpen === 'runs' && <RunsWindow run={run} onClose={() => store.getState().set({ window: undefined })} />}
    </>
  );
}
