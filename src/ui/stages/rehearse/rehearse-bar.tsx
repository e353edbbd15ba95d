'use client';
import { Pause, Play, RotateCcw, StepForward } from 'lucide-react';
import { IconButton } from '@/ui/parts/icon-button';
import { OneOf } from '@/ui/parts/one-of';
import { SlideBar } from '@/ui/parts/slide-bar';
import { Term } from '@/ui/parts/term';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { clock } from './event-list';
import type { RehearsalControls } from './use-rehearsal';

/** A quarter of a second. */
const SLIDER_TICKS = 12;
const SPEEDS = [1, 5, 10, 50].map((times) => ({ value: String(times), says: `${times}×` }));

/** Play, pause, step, speed, seed, and the trace of the run. */
export function RehearseBar({ run }: { run: RehearsalControls }) {
  const store = useWorkbenchStore();
  return (
    <div className="flex flex-wrap items-center gap-2">
      <IconButton icon={RotateCcw} name="Start again" onClick={() => run.restart()} />
      <button
        type="button"
        className="button button-main px-3"
        onClick={run.playing ? run.pause : run.play}
        aria-label={run.playing ? 'Pause' : 'Play'}
      >
        {run.playing ? <Pause size={14} aria-hidden /> : <Play size={14} aria-hidden />}
      </button>
      <IconButton icon={StepForward} name="Step one scan of 20 ms" onClick={() => run.step(1)} />
      <button type="button" className="button" onClick={() => run.step(50)}>
        +1 s
      </button>
      <Moment run={run} />
      <OneOf
        joined
        label="Speed"
        value={String(run.times)}
        options={SPEEDS}
        onChange={(times) => run.setTimes(Number(times))}
      />
      <label className="ml-2 flex items-center gap-1 text-ink2">
        <Term word="seed">Run number</Term>
        <input
          inputMode="numeric"
          className="field w-16"
          value={run.seed}
          onChange={(e) => run.restart(Math.min(999_999, Number(e.target.value.replace(/\D/g, '')) || 0))}
        />
      </label>
      <button type="button" className="button" onClick={() => store.getState().set({ window: 'runs' })}>
        Runs
      </button>
      <ToCome />
    </div>
  );
}

function Clock() {
  const shown = useWorkbench((s) => clock(s.frame?.tick ?? 0));
  return <output className="isolate w-16 text-right font-mono text-[0.9rem]">{shown}</output>;
}

/** The present moment, and any other of this course by a slider. While it plays the slider moves a few times a second. */
function Moment({ run }: { run: RehearsalControls }) {
  const grain = run.playing ? SLIDER_TICKS : 1;
  const tick = useWorkbench((s) => Math.floor((s.frame?.tick ?? 0) / grain) * grain);
  const reached = useWorkbench((s) => Math.ceil(s.course.reached / grain) * grain);
  return (
    <div className="flex items-center gap-2">
      <Clock />
      <SlideBar
        className="w-36"
        name={`Moment of the run, of ${clock(reached)}`}
        spoken={clock(tick)}
        most={reached}
        step={50}
        value={tick}
        onChange={run.wind}
      />
    </div>
  );
}

function ToCome() {
  const toCome = useWorkbench((s) => (s.course.reached > (s.frame?.tick ?? 0) ? s.course.toCome : 0));
  if (toCome === 0) return null;
  return (
    <span className="text-ink2">
      {toCome === 1 ? '1 command is' : `${toCome} commands are`} still to come; a new one begins another course.
    </span>
  );
}
