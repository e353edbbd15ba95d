'use client';
import { type Remote, transfer, wrap } from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Command, Recording } from '@/core/simulation';
import { sendServer } from '@/ui/parts/ask-server';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import type { RehearsalWorker } from '@/workers/rehearsal.worker';
import { takeReports } from './take-reports';
import { type Together, useSharedRun } from './use-shared-run';

export interface RehearsalControls {
  playing: boolean;
  times: number;
  seed: number;
  problem: string | undefined;
  /** The server’s answer to “is this run the same there?” */
  checked: string | undefined;
  play(): void;
  pause(): void;
  setTimes(times: number): void;
  step(ticks: number): void;
  /** Goes to a moment of this course and waits there. */
  wind(tick: number): void;
  restart(seed?: number): void;
  /** Shows a run that was kept, up to its end. */
  load(recording: Recording): void;
  command(command: Command): void;
  checkOnServer(): void;
  /** The course so far, to keep it or to compare it. */
  recording(): Promise<(Recording & { hash: string }) | undefined>;
  worker(): Remote<RehearsalWorker> | undefined;
  /** Several browsers can share one run. */
  together: Together;
}

const GOES_ON = 'This run is shared, and goes on for everybody: leave it to step, to wind back or to begin anew.';

/** Runs a rehearsal of the present document in a worker and keeps what the screen shows of it. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one run from start to stop; its commands share the worker that runs it.
export function useRehearsal(): RehearsalControls {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const remote = useRef<Remote<RehearsalWorker>>(undefined);
  /** The course begun last. */
  const course = useRef({ number: 0, document });
  const [playing, setPlaying] = useState(false);
  const [times, setTimesState] = useState(1);
  const [seed, setSeed] = useState(1);
  const [problem, setProblem] = useState<string>();
  const [checked, setChecked] = useState<string>();

  useEffect(() => {
    const worker = new Worker(new URL('../../../workers/rehearsal.worker.ts', import.meta.url), { type: 'module' });
    const run = wrap<RehearsalWorker>(worker);
    remote.current = run;
    store.getState().set({ explainRun: (rule) => run.explain(rule) });
    /** A line of its own, on which nothing is answered. */
    const { port1, port2 } = new MessageChannel();
    const end = takeReports(store, port1, course);
    void run.listen(transfer(port2, [port2]));
    return () => {
      const { document: of } = course.current;
      void run.recording().then((recording) => {
        if (recording && recording.ticks > 0) store.getState().set({ leftRun: { recording, document: of } });
        worker.terminate();
      });
      end();
      store.getState().set({ frame: undefined, board: undefined, explainRun: undefined, samples: [], events: [] });
    };
  }, [store]);

  const begin = useCallback(
    (withSeed: number, recording?: Recording): number => {
      setPlaying(false);
      setSeed(withSeed);
      setChecked(undefined);
      setProblem(undefined);
      void remote.current?.play(0);
      course.current = { number: course.current.number + 1, document };
      remote.current
        ?.begin(course.current.number, document, withSeed, recording)
        .catch((error: unknown) => setProblem(error instanceof Error ? error.message : 'It cannot be run.'));
      return course.current.number;
    },
    [document],
  );
  useEffect(() => {
    const { recording, leftRun } = store.getState();
    /** The run that was left goes on from where it was, as long as it is the same layout. */
    const first = recording ?? (leftRun?.document === document ? leftRun.recording : undefined);
    begin(first?.seed ?? 1, first);
    store.getState().set({ recording: undefined, leftRun: undefined });
  }, [begin, document, store]);

  const layout = useWorkbench((s) => s.id);
  const together = useSharedRun({
    layout,
    document,
    seed,
    begin,
    follow: (beat, by, number) => remote.current?.follow(beat, by, number),
    tellProblem: setProblem,
  });
  const { shared, tell } = together;
  const isAlone = () => {
    if (shared) setProblem(GOES_ON);
    return !shared;
  };

  const halt = () => {
    if (shared) return tell({ times: 0 });
    setPlaying(false);
    setChecked(undefined);
    void remote.current?.play(0);
  };
  return {
    playing: shared ? shared.times > 0 : playing,
    times: shared && shared.times > 0 ? shared.times : times,
    seed,
    problem,
    checked,
    together,
    play() {
      if (shared) return tell({ times });
      setPlaying(true);
      setChecked(undefined);
      void remote.current?.play(times);
    },
    pause: halt,
    setTimes(next) {
      setTimesState(next);
      if (shared) {
        if (shared.times > 0) tell({ times: next });
      } else if (playing) void remote.current?.play(next);
    },
    step(ticks) {
      if (!isAlone()) return;
      halt();
      void remote.current?.step(ticks);
    },
    wind(tick) {
      if (!isAlone()) return;
      halt();
      void remote.current?.wind(tick);
    },
    restart(next = seed) {
      if (isAlone()) begin(next);
    },
    load({ seed: its, ticks, commands }) {
      if (isAlone()) begin(its, { seed: its, ticks, commands });
    },
    command(command) {
      if (shared) return tell({ command });
      /** Why a button was refused is told until something else is done, not only until it is let go. */
      const letsGo = 'on' in command && !command.on;
      if (!letsGo) setProblem(undefined);
      void remote.current
        ?.command(command)
        .then((told) => (letsGo && told === undefined ? undefined : setProblem(told)));
    },
    checkOnServer() {
      if (!shared) halt();
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
    recording: async () => remote.current?.recording(),
    worker: () => remote.current,
  };
}
