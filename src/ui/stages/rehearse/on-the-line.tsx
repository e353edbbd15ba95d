'use client';
import { memo, useCallback, useMemo, useRef } from 'react';
import { scaleSpeedKmh, showSpeed } from '@/core/measure';
import type { Command } from '@/core/simulation';
import { compileTrack } from '@/core/track';
import { Choice } from '@/ui/parts/choice';
import { blockOptions } from '@/ui/reasoning/options';
import { PanelSection } from '@/ui/reasoning/panel';
import { trainColour } from '@/ui/sheet/trains-layer';
import type { Board } from '@/ui/state/rehearsal';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { EventList } from './event-list';
import { FailuresNow } from './failing';
import { RunTogether } from './run-together';
import type { RehearsalControls } from './use-rehearsal';

/** The trains, what can be told to them, the turnouts, and what has happened. */
export function OnTheLine({ run }: { run: RehearsalControls }) {
  const board = useWorkbench((s) => s.board);
  const notPlaced = useWorkbench((s) => s.course.notPlaced.join('\n'));
  const latest = useRef(run);
  latest.current = run;
  const command = useCallback((what: Command) => latest.current.command(what), []);
  if (!board) return <p className="text-ink2">Preparing the run …</p>;
  return (
    <>
      {run.problem && (
        <p role="alert" className="mb-2 rounded-md bg-fail-tint px-2 py-1 text-fail">
          {run.problem}
        </p>
      )}
      {notPlaced
        .split('\n')
        .filter(Boolean)
        .map((problem) => (
          <p key={problem} className="mb-2 rounded-md bg-warn-tint px-2 py-1 text-warn">
            {problem}
          </p>
        ))}
      {board.trains.length === 0 && (
        <p className="text-ink2">No train stands on the track. Put one there in Survey, under Trains.</p>
      )}
      <ul>
        {board.trains.map((train, index) => (
          <TrainRow key={train.id} train={train} index={index} command={command} />
        ))}
      </ul>
      <Turnouts board={board} command={command} />
      <RunTogether run={run} />
      {board.failures.length > 0 && (
        <PanelSection title="What fails now">
          <FailuresNow failures={board.failures} command={command} />
        </PanelSection>
      )}
      <PanelSection title="Events, newest first">
        <EventList run={run} />
      </PanelSection>
      <PanelSection title="The same everywhere">
        <Trace />
        <button type="button" className="button mt-1" onClick={run.checkOnServer}>
          Run it on the server too
        </button>
        <p aria-live="polite" className="mt-1 text-ink2">
          {run.checked}
        </p>
      </PanelSection>
    </>
  );
}

function Trace() {
  const hash = useWorkbench((s) => s.course.hash);
  return (
    <p className="text-ink2">
      Trace <span className="font-mono text-[0.72rem]">{hash}</span>
    </p>
  );
}

type Tell = (command: Command) => void;

/** A speed changes at every moment; it is shown in whole units, so that it is drawn seldom. */
function Speed({ index, stranded, off }: { index: number; stranded: boolean; off: boolean }) {
  const scale = useWorkbench((s) => s.document.scale);
  const unit = useWorkbench((s) => s.document.shownUnit);
  const says = useWorkbench((s) => {
    const mmPerS = s.frame?.trains[index]?.mmPerS ?? 0;
    if (off || stranded || mmPerS === 0) return off ? 'off the track' : stranded ? 'stranded' : 'stands';
    const over = unit === 'cm' ? `${Math.round(mmPerS / 10)} cm/s` : `${Math.round(mmPerS / 25.4)} in/s`;
    return `${showSpeed(scaleSpeedKmh(mmPerS, scale), unit)}, ${over}`;
  });
  return <span className="text-ink2">{says}</span>;
}

const TrainRow = memo(function TrainRow({
  train,
  index,
  command,
}: {
  train: Board['trains'][number];
  index: number;
  command: Tell;
}) {
  const store = useWorkbenchStore();
  const moves = useWorkbench((s) => (s.frame?.trains[index]?.mmPerS ?? 0) > 0);
  const goes = train.running && !train.stranded;
  return (
    <li className="isolate border-b border-hair py-1.5">
      <div className="flex items-center gap-2">
        <span className="size-3 shrink-0 rounded-sm" style={{ background: trainColour(index) }} />
        <button
          type="button"
          className="grow cursor-pointer truncate text-left font-semibold"
          onClick={() => store.getState().select(train.id)}
        >
          {train.name}
        </button>
        <Speed index={index} stranded={train.stranded} off={train.off} />
      </div>
      {train.off ? (
        <div className="mt-1 pl-5">
          <button
            type="button"
            className="button py-0.5"
            onClick={() => command({ kind: 'set down', train: train.id })}
          >
            Set down where it began
          </button>
        </div>
      ) : (
        <div className="mt-1 flex flex-wrap gap-1.5 pl-5">
          <button
            type="button"
            className="button py-0.5"
            onClick={() => command({ kind: 'run', train: train.id, on: !goes })}
          >
            {goes ? 'Halt' : 'Go on'}
          </button>
          <button
            type="button"
            className="button py-0.5"
            disabled={moves}
            onClick={() => command({ kind: 'turn back', train: train.id })}
          >
            Turn back
          </button>
          <button
            type="button"
            className="button py-0.5"
            title="By hand, off the track. It can be set down again where it began."
            onClick={() => command({ kind: 'lift off', train: train.id })}
          >
            Lift off
          </button>
          <SendTo command={command} train={train.id} name={train.name} />
        </div>
      )}
      {train.order && (
        <p className="mt-1 flex items-center gap-2 pl-5">
          <span className={train.order.ahead ? 'text-ink2' : 'text-warn'}>
            {train.order.ahead
              ? `Sent to ${train.order.block}${goes ? '' : ', halted'}`
              : `Sent to ${train.order.block}, which does not lie ahead now: turn it back, or take this back`}
          </span>
          <button
            type="button"
            className="button shrink-0 py-0.5"
            onClick={() => command({ kind: 'take back', train: train.id })}
          >
            Take back
          </button>
        </p>
      )}
    </li>
  );
}, sameRow);

function sameRow(a: { train: Board['trains'][number]; index: number }, b: typeof a): boolean {
  return a.index === b.index && JSON.stringify(a.train) === JSON.stringify(b.train);
}

/** Every motor of points, those of slips too. */
const Turnouts = memo(function Turnouts({ board, command }: { board: Board; command: Tell }) {
  const motors = useMemo(() => compileTrack(board.document).motors, [board.document]);
  if (motors.length === 0) return null;
  return (
    <PanelSection title="Turnouts">
      <ul className="grid grid-cols-2 gap-1">
        {motors.map(({ id, name }, i) => {
          const lies = board.points[i]!;
          return (
            <li key={id}>
              <button
                type="button"
                className="button w-full justify-between px-1.5 py-0.5"
                aria-label={`Throw ${name}, which lies ${lies}${board.locked[i] ? ' and is locked' : ''}`}
                onClick={() =>
                  command({ kind: 'throw', turnout: id, to: lies === 'straight' ? 'diverging' : 'straight' })
                }
              >
                <strong>{name}</strong>
                <span className="text-ink2">
                  {lies}
                  {board.locked[i] ? ', locked' : ''}
                </span>
              </button>
            </li>
          );
        })}
      </ul>
    </PanelSection>
  );
});

/** Sends a train to a block, as dragging it there does. */
const SendTo = memo(function SendTo({ command, train, name }: { command: Tell; train: string; name: string }) {
  const blocks = useWorkbench((s) => s.design?.blocks);
  return (
    <Choice
      label={`Send ${name} to a block`}
      labelled="unseen"
      className="w-[6.2rem] py-0.5"
      value={undefined}
      placeholder="Send to …"
      options={blockOptions(blocks)}
      onChange={(block) => command({ kind: 'send', train, block })}
    />
  );
});
