'use client';
import { type KeyboardEvent, useState } from 'react';
import { sensorKind } from '@/core/kinds';
import { signalsOf } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { useAsked } from '@/ui/reasoning/use-asked';
import { useWorkbench } from '@/ui/state/store';
import { AutomaticSwitch } from './automatic-switch';
import { clock } from './event-list';
import { Failing } from './failing';
import type { RehearsalControls } from './use-rehearsal';

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

/** The buttons of a signal’s routes, by what each leads to; and one that cancels what is set. */
function SetRoutes({ id, name, run }: { id: string; name: string; run: RehearsalControls }) {
  const view = useAsked(
    useWorkbench((s) => s.lookUpSignal),
    id,
  );
  const set = useWorkbench((s) => s.board?.routesSet);
  const waiting = useWorkbench((s) => s.board?.routesWaiting);
  const [waits, setWaits] = useState(false);
  const routes = view?.routes.filter(({ commanded }) => commanded) ?? [];
  if (routes.length === 0) return null;
  const isSet = routes.find((route) => set?.includes(`${id} ${route.id}`));
  const isWaiting = routes.filter((route) => waiting?.includes(`${id} ${route.id}`));
  return (
    <>
      {routes.map((route) => (
        <button
          key={route.id}
          type="button"
          className="button"
          onClick={() => run.command({ kind: 'set route', signal: id, route: route.id, ...(waits && { waits }) })}
        >
          Set {name} to {route.to}
        </button>
      ))}
      <CheckBox checked={waits} onChange={setWaits}>
        let it wait while another is set that conflicts
      </CheckBox>
      <button
        type="button"
        className="button"
        disabled={!isSet && isWaiting.length === 0}
        onClick={() => run.command({ kind: 'cancel routes', signal: id })}
      >
        Cancel what is set from {name}
      </button>
      <p className="text-ink2" aria-live="polite">
        {isSet ? `${name} to ${isSet.to} is set.` : 'Nothing is set from here.'}
        {isWaiting.map(({ to }) => ` ${name} to ${to} waits until nothing that conflicts is set.`)}
      </p>
    </>
  );
}

/** What works by itself at a signal, and at points. */
function OfSignal({ id, run }: { id: string; run: RehearsalControls }) {
  const view = useAsked(
    useWorkbench((s) => s.lookUpSignal),
    id,
  );
  return <AutomaticSwitch all={view?.automatic ?? []} run={run} />;
}
function OfPoints({ id, run }: { id: string; run: RehearsalControls }) {
  const view = useAsked(
    useWorkbench((s) => s.lookUpPoints),
    id,
  );
  return <AutomaticSwitch all={view?.automatic ?? []} run={run} />;
}

/** Runs for which a turnout is held until they arrive: each can be given up by somebody who has looked. */
function GiveUp({ id, run }: { id: string; run: RehearsalControls }) {
  const view = useAsked(
    useWorkbench((s) => s.lookUpPoints),
    id,
  );
  const underWay = useWorkbench((s) => s.board?.underWay);
  const runs = new Map(view?.motors.flatMap((motor) => motor.runs).map((one) => [`${one.signal} ${one.route}`, one]));
  return [...runs].map(([key, { signal, route, says }]) =>
    underWay?.includes(key) ? (
      <button
        key={key}
        type="button"
        className="button mb-2"
        title="Only once you have looked: no car may stand over the points."
        onClick={() => run.command({ kind: 'give up', signal, route })}
      >
        Give up the run from {says}
      </button>
    ) : null,
  );
}

/** What can be done with the selected thing while trains run, and how it can fail. */
export function WhileRunning({ run }: { run: RehearsalControls }) {
  const selected = useWorkbench((s) => s.selected);
  const block = useWorkbench((s) => s.design?.blocks.find(({ id }) => id === s.selected));
  const things = selected ? [selected, ...(block?.detectors ?? []), ...(block?.spots ?? [])] : [];
  return (
    <>
      {run.problem && (
        <p role="alert" className="mb-2 rounded-md bg-warn-tint px-2 py-1 text-warn">
          {run.problem}
        </p>
      )}
      <Worked run={run} />
      {things.map((id) => (
        <Failing key={id} id={id} run={run} />
      ))}
    </>
  );
}

/** What people can do with it. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
function Worked({ run }: { run: RehearsalControls }) {
  const document = useWorkbench((s) => s.document);
  const selected = useWorkbench((s) => s.selected);
  const board = useWorkbench((s) => s.board);
  const events = useWorkbench((s) => s.events);
  const block = useWorkbench((s) => s.design?.blocks.find(({ id }) => id === s.selected));
  const posts = useWorkbench((s) => s.design?.posts);
  const signal = document.features.find((f) => f.id === selected);
  const sensor = document.sensors.find(({ id }) => id === selected);
  const turnout = board?.document.turnouts.findIndex((t) => t.id === selected) ?? -1;
  const name = board?.document.turnouts[turnout]?.name;
  const latest = events.findLast(({ says }) => says.startsWith(`${name} `));
  if (signal?.kind === 'signal') {
    const held = board?.held[signalsOf(document).findIndex(({ id }) => id === signal.id)] ?? false;
    const post = posts?.find(({ signals }) => signals.some(({ id }) => id === signal.id));
    const manned = post !== undefined && (board?.manned.includes(post.id) ?? false);
    const people = document.people ?? 1;
    const there = (post && board?.atPost[post.id]) ?? 1;
    const relief = (there % people) + 1;
    const refused = events.findLast(({ says }) => says.startsWith(`${signal.name} is not cleared`));
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
        <SetRoutes id={signal.id} name={signal.name} run={run} />
        <OfSignal id={signal.id} run={run} />
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
        <GiveUp id={board.document.turnouts[turnout]!.id} run={run} />
        <OfPoints id={board.document.turnouts[turnout]!.id} run={run} />
      </>
    );
  }
  return null;
}
