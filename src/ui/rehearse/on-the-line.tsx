'use client';
import { scaleSpeedKmh, showNumber } from '@/core/measure';
import { names } from '@/core/patterns';
import { trainColour } from '@/ui/line-sheet/trains-layer';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/workbench/store';
import { EventList } from './event-list';
import type { RehearsalControls } from './use-rehearsal';

/** The trains, what can be told to them, the turnouts, and what has happened. */
export function OnTheLine({ run }: { run: RehearsalControls }) {
  const document = useWorkbench((s) => s.document);
  const frame = useWorkbench((s) => s.frame);
  const store = useWorkbenchStore();
  if (!frame) return <p className="text-ink2">Preparing the run …</p>;
  return (
    <>
      {run.problem && (
        <p role="alert" className="mb-2 rounded-md bg-fail-tint px-2 py-1 text-fail">
          {run.problem}
        </p>
      )}
      {run.notPlaced.map((problem) => (
        <p key={problem} className="mb-2 rounded-md bg-warn-tint px-2 py-1 text-warn">
          {problem}
        </p>
      ))}
      {frame.trains.length === 0 && (
        <p className="text-ink2">No train stands on the track. Put one there in Survey, under Trains.</p>
      )}
      <ul>
        {frame.trains.map((train, index) => (
          <li key={train.id} className="border-b border-hair py-1.5">
            <div className="flex items-center gap-2">
              <span className="size-3 shrink-0 rounded-sm" style={{ background: trainColour(index) }} />
              <button
                type="button"
                className="grow cursor-pointer truncate text-left font-semibold"
                onClick={() => store.getState().select(train.id)}
              >
                {train.name}
              </button>
              <span className="text-ink2">
                {train.stranded
                  ? 'stranded'
                  : train.mmPerS > 0
                    ? `${Math.round(scaleSpeedKmh(train.mmPerS, document.scale))} km/h, ${showNumber(train.mmPerS / 10, 1)} cm/s`
                    : 'stands'}
              </span>
            </div>
            <div className="mt-1 flex gap-1.5 pl-5">
              <button
                type="button"
                className="button py-0.5"
                onClick={() => run.command({ kind: 'run', train: train.id, on: !train.running || train.stranded })}
              >
                {train.running && !train.stranded ? 'Halt' : 'Go on'}
              </button>
              <button
                type="button"
                className="button py-0.5"
                disabled={train.mmPerS > 0}
                onClick={() => run.command({ kind: 'turn back', train: train.id })}
              >
                Turn back
              </button>
              <SendTo run={run} train={train.id} name={train.name} />
            </div>
          </li>
        ))}
      </ul>
      {document.turnouts.length > 0 && (
        <PanelSection title="Turnouts">
          <ul className="grid grid-cols-2 gap-1">
            {document.turnouts.map((turnout, i) => {
              const lies = frame.points[i]!;
              return (
                <li key={turnout.id}>
                  <button
                    type="button"
                    className="button w-full justify-between px-1.5 py-0.5"
                    aria-label={`Throw ${turnout.name}, which lies ${lies}${frame.locked[i] ? ' and is locked' : ''}`}
                    onClick={() =>
                      run.command({
                        kind: 'throw',
                        turnout: turnout.id,
                        to: lies === 'straight' ? 'diverging' : 'straight',
                      })
                    }
                  >
                    <strong>{turnout.name}</strong>
                    <span className="text-ink2">
                      {lies}
                      {frame.locked[i] ? ', locked' : ''}
                    </span>
                  </button>
                </li>
              );
            })}
          </ul>
        </PanelSection>
      )}
      <PanelSection title="Events, newest first">
        <EventList run={run} />
      </PanelSection>
      <PanelSection title="The same everywhere">
        <p className="text-ink2">
          Trace <span className="font-mono text-[0.72rem]">{run.hash}</span>
        </p>
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

/** Sends a train to a block, as dragging it there does. */
function SendTo({ run, train, name }: { run: RehearsalControls; train: string; name: string }) {
  const blocks = useWorkbench((s) => s.design?.blocks);
  return (
    <select
      className="field w-[6.2rem] min-w-0 py-0.5"
      aria-label={`Send ${name} to a block`}
      value=""
      onChange={(e) => run.command({ kind: 'send', train, block: e.target.value })}
    >
      <option value="" disabled>
        Send to …
      </option>
      {blocks?.map((block) => (
        <option key={block.name}>{block.name}</option>
      ))}
    </select>
  );
}

/** What can be done with the selected thing while trains run. */
export function WhileRunning({ run }: { run: RehearsalControls }) {
  const document = useWorkbench((s) => s.document);
  const selected = useWorkbench((s) => s.selected);
  const values = useWorkbench((s) => s.values);
  const frame = useWorkbench((s) => s.frame);
  const signal = document.features.find((f) => f.id === selected);
  const turnout = document.turnouts.findIndex((t) => t.id === selected);
  const latest = run.events[run.events.length - 1];
  if (signal?.kind === 'signal') {
    const held = values[names.hold(signal.name)] === 1;
    return (
      <button
        type="button"
        className="button mb-3"
        onClick={() => run.command({ kind: 'hold', signal: signal.id, on: !held })}
      >
        {held ? `Let ${signal.name} work again` : `Hold ${signal.name} at stop`}
      </button>
    );
  }
  if (turnout >= 0 && frame) {
    const to = frame.points[turnout] === 'straight' ? 'diverging' : 'straight';
    return (
      <>
        <button
          type="button"
          className="button mb-1"
          onClick={() => run.command({ kind: 'throw', turnout: document.turnouts[turnout]!.id, to })}
        >
          Throw it to {to}
        </button>
        <p className="mb-3 text-ink2" aria-live="polite">
          {latest ? `Last: ${latest.says}` : 'Nothing has happened yet.'}
        </p>
      </>
    );
  }
  return null;
}
