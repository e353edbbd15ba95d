'use client';
import { type KeyboardEvent, memo, useCallback, useMemo, useRef } from 'react';
import { sensorKind } from '@/core/kinds';
import { scaleSpeedKmh, showSpeed } from '@/core/measure';
import type { Command } from '@/core/simulation';
import { signalsOf } from '@/core/survey';
import { compileTrack } from '@/core/track';
import { Choice } from '@/ui/parts/choice';
import { blockOptions } from '@/ui/reasoning/options';
import { PanelSection } from '@/ui/reasoning/panel';
import { trainColour } from '@/ui/sheet/trains-layer';
import type { Board } from '@/ui/state/rehearsal';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { clock, EventList } from './event-list';
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

/** Works for as long as it is held down, by pointer or by key. */
function PressButton({ says, onPress }: { says: string; onPress: (on: boolean) => void }) {
  const isKey = ({ key }: KeyboardEvent) => key === ' ' || key === 'Enter';
  return (
    <button
      type="button"
      className="button"
      onPointerDown={() => onPress(true)}
      onPointerUp={() => onPress(false)}
      onPointerLeave={({ buttons }) => buttons > 0 && onPress(false)}
      onKeyDown={(event) => isKey(event) && !event.repeat && onPress(true)}
      onKeyUp={(event) => isKey(event) && onPress(false)}
    >
      {says}
    </button>
  );
}

/** What can be done with the selected thing while trains run. */
export function WhileRunning({ run }: { run: RehearsalControls }) {
  const document = useWorkbench((s) => s.document);
  const selected = useWorkbench((s) => s.selected);
  const board = useWorkbench((s) => s.board);
  const block = useWorkbench((s) => s.design?.blocks.find(({ id }) => id === s.selected));
  const posts = useWorkbench((s) => s.design?.posts);
  const signal = document.features.find((f) => f.id === selected);
  const sensor = document.sensors.find(({ id }) => id === selected);
  const turnout = board?.document.turnouts.findIndex((t) => t.id === selected) ?? -1;
  const name = board?.document.turnouts[turnout]?.name;
  const latest = run.events.findLast(({ says }) => says.startsWith(`${name} `));
  if (signal?.kind === 'signal') {
    const held = board?.held[signalsOf(document).findIndex(({ id }) => id === signal.id)] ?? false;
    const post = posts?.find(({ signals }) => signals.some(({ id }) => id === signal.id));
    const manned = post !== undefined && (board?.manned.includes(post.id) ?? false);
    const people = document.people ?? 1;
    const there = (post && board?.atPost[post.id]) ?? 1;
    const relief = (there % people) + 1;
    const refused = run.events.findLast(({ says }) => says.startsWith(`${signal.name} is not cleared`));
    return (
      <div className="mb-3 flex flex-wrap gap-2">
        <button
          type="button"
          className="button"
          onClick={() => run.command({ kind: 'hold', signal: signal.id, on: !held })}
        >
          {held ? `Let ${signal.name} work again` : `Hold ${signal.name} at stop`}
        </button>
        {post && (
          <button
            type="button"
            className="button"
            onClick={() => run.command({ kind: 'man', post: post.id, on: !manned })}
          >
            {manned ? `Leave the post of ${post.name}` : `Take the post of ${post.name}`}
          </button>
        )}
        {manned && people > 1 && (
          <button
            type="button"
            className="button"
            onClick={() => run.command({ kind: 'man', post: post.id, on: true, by: relief })}
          >
            Hand it from person {there} to person {relief}
          </button>
        )}
        {manned && (
          <PressButton
            says={`Clear ${signal.name} for one train`}
            onPress={(on) => run.command({ kind: 'give', signal: signal.id, on })}
          />
        )}
        {manned && refused && (
          <p className="text-ink2" aria-live="polite">
            {clock(refused.tick)}: {refused.says}
          </p>
        )}
      </div>
    );
  }
  if (sensor && sensorKind(sensor.kind).pulses)
    return (
      <div className="mb-3 flex flex-wrap gap-2">
        {(['miss', 'extra'] as const).map((what) => (
          <button
            key={what}
            type="button"
            className="button"
            onClick={() => run.command({ kind: 'fault', sensor: sensor.id, what })}
          >
            Let {sensor.name} {what === 'miss' ? 'miss the next pulse' : 'give one too many'}
          </button>
        ))}
      </div>
    );
  if (block?.inferred && block.inferred !== 'time')
    return (
      <div className="mb-3 flex flex-wrap gap-2">
        {[true, false].map((free) => (
          <button
            key={String(free)}
            type="button"
            className="button"
            onClick={() => run.command({ kind: 'say', block: block.id, free })}
          >
            {free ? `Say that ${block.name} is free` : `Say that a train is in ${block.name}`}
          </button>
        ))}
      </div>
    );
  if (turnout >= 0 && board) {
    const to = board.points[turnout] === 'straight' ? 'diverging' : 'straight';
    return (
      <>
        <button
          type="button"
          className="button mb-1"
          onClick={() => run.command({ kind: 'throw', turnout: board.document.turnouts[turnout]!.id, to })}
        >
          Throw it to {to}
        </button>
        <p className="mb-3 text-ink2" aria-live="polite">
          {latest ? `Last: ${latest.says}` : 'Nothing has happened to it yet.'}
        </p>
      </>
    );
  }
  return null;
}
