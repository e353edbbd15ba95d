'use client';
import { proxy, type Remote, wrap } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Command, PathSample } from '@/core/simulation';
import { sendServer } from '@/ui/parts/ask-server';
import { useWorkbench, useWorkbenchStore } from '@/ui/workbench/store';
import type { RehearsalWorker, Report, SpokenEvent } from '@/workers/rehearsal.worker';

const MOST_EVENTS = 400;
/** Twenty minutes of samples at five a second. */
const MOST_SAMPLES = 6000;

export interface RehearsalControls {
  playing: boolean;
  times: number;
  seed: number;
  events: SpokenEvent[];
  samples: PathSample[][];
  hash: string;
  notPlaced: string[];
  problem: string | undefined;
  /** The server’s answer to “is this run the same there?” */
  checked: string | undefined;
  play(): void;
  pause(): void;
  setTimes(times: number): void;
  step(ticks: number): void;
  restart(seed?: number): void;
  command(command: Command): void;
  checkOnServer(): void;
}

/** Runs a rehearsal of the present document in a worker and keeps what the screen shows of it. */
export function useRehearsal(): RehearsalControls {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const remote = useRef<Remote<RehearsalWorker>>(undefined);
  const [playing, setPlaying] = useState(false);
  const [times, setTimesState] = useState(1);
  const [seed, setSeed] = useState(1);
  const [events, setEvents] = useState<SpokenEvent[]>([]);
  const [samples, setSamples] = useState<PathSample[][]>([]);
  const [hash, setHash] = useState('');
  const [notPlaced, setNotPlaced] = useState<string[]>([]);
  const [problem, setProblem] = useState<string>();
  const [checked, setChecked] = useState<string>();

  useEffect(() => {
    const worker = new Worker(new URL('../../workers/rehearsal.worker.ts', import.meta.url), { type: 'module' });
    const run = wrap<RehearsalWorker>(worker);
    remote.current = run;
    let asking = false;
    const listen = (report: Report) => {
      store.getState().set({ frame: report.frame });
      setHash(report.hash);
      setNotPlaced(report.notPlaced);
      if (report.samples.length > 0) setSamples((all) => [...all, ...report.samples].slice(-MOST_SAMPLES));
      if (report.events.length > 0) setEvents((all) => [...report.events.reverse(), ...all].slice(0, MOST_EVENTS));
      if (asking) return;
      asking = true;
      void run.values().then((values) => {
        asking = false;
        if (store.getState().stage === 'rehearse') store.getState().set({ values });
      });
    };
    void run.listen(proxy(listen));
    return () => {
      worker.terminate();
      store.getState().set({ frame: undefined });
    };
  }, [store]);

  const begin = useCallback(
    (withSeed: number) => {
      setPlaying(false);
      setSeed(withSeed);
      setEvents([]);
      setSamples([]);
      setChecked(undefined);
      setProblem(undefined);
      void remote.current?.play(0);
      remote.current
        ?.begin(document, withSeed)
        .catch((error: unknown) => setProblem(error instanceof Error ? error.message : 'It cannot be run.'));
    },
    [document],
  );
  useEffect(() => begin(1), [begin]);

  return {
    playing,
    times,
    seed,
    events,
    samples,
    hash,
    notPlaced,
    problem,
    checked,
    play() {
      setPlaying(true);
      setChecked(undefined);
      void remote.current?.play(times);
    },
    pause() {
      setPlaying(false);
      void remote.current?.play(0);
    },
    setTimes(next) {
      setTimesState(next);
      if (playing) void remote.current?.play(next);
    },
    step(ticks) {
      setPlaying(false);
      setChecked(undefined);
      void remote.current?.play(0);
      void remote.current?.step(ticks);
    },
    restart(next = seed) {
      begin(next);
    },
    command(command) {
      setProblem(undefined);
      void remote.current?.command(command).then(setProblem);
    },
    checkOnServer() {
      setPlaying(false);
      void remote.current?.play(0);
      setChecked('Running it on the server …');
      void remote.current?.recording().then(async ({ hash: mine, ...recording }) => {
        const asked = await sendServer<{ hash: string }>('POST', `/api/layouts/${store.getState().id}/replay`, {
          document: store.getState().document,
          ...recording,
        });
        if (!asked.ok) setChecked(asked.problem);
        else
          setChecked(
            asked.value.hash === mine
              ? `The server’s run is the same: ${mine}`
              : `The server’s run differs: here ${mine}, there ${asked.value.hash}`,
          );
      });
    },
  };
}
