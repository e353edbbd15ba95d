'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { EVENT_GROUPS, type EventGroup, tickSeconds } from '@/core/simulation';
import { CheckBox } from '@/ui/parts/check-box';
import { Choice } from '@/ui/parts/choice';
import { useWorkbench } from '@/ui/state/store';
import type { RehearsalControls } from './use-rehearsal';

const AT_FIRST: EventGroup[] = ['mishaps', 'signals passed', 'stops and starts', 'turnouts', 'what people do'];
const ROW = 36;

export const clock = (tick: number): string => {
  const seconds = tickSeconds(tick);
  return `${Math.floor(seconds / 60)}:${(seconds % 60).toFixed(1).padStart(4, '0')}`;
};

/** What happened, newest first, by kind and by train; each leads to its moment. */
export function EventList({ run }: { run: RehearsalControls }) {
  const trains = useWorkbench((s) => s.board?.trains);
  const events = useDeferredValue(useWorkbench((s) => s.events));
  /** To the second while it plays; exactly once it waits. */
  const now = useWorkbench((s) => (run.playing ? Math.ceil((s.frame?.tick ?? 0) / 50) * 50 : (s.frame?.tick ?? 0)));
  const [groups, setGroups] = useState<ReadonlySet<EventGroup>>(new Set(AT_FIRST));
  const [train, setTrain] = useState('');
  const shown = useMemo(
    () => events.filter((event) => groups.has(event.group) && (train === '' || event.trains.includes(train))).reverse(),
    [events, groups, train],
  );
  const box = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 6,
  });
  const present = shown.findIndex((event) => event.tick <= now);
  const last = useRef({ wound: now, events: shown.length });
  useEffect(() => {
    const isWound = Math.abs(now - last.current.wound) > 100;
    /** Others are listed than before: by their kind, or because what was on its way has come, or is no longer so. */
    const isOther = shown.length !== last.current.events;
    if (!run.playing && (isWound || isOther)) rows.scrollToIndex(Math.max(0, present));
    last.current = { wound: now, events: shown.length };
  }, [now, present, shown.length, run.playing, rows]);
  return (
    <>
      <div className="mb-1 flex flex-wrap gap-x-3 gap-y-1">
        {EVENT_GROUPS.map((group) => (
          <CheckBox
            key={group}
            checked={groups.has(group)}
            onChange={(on) => {
              const next = new Set(groups);
              if (on) next.add(group);
              else next.delete(group);
              setGroups(next);
            }}
          >
            {group}
          </CheckBox>
        ))}
      </div>
      <div className="mb-2 flex items-center gap-2">
        of
        <Choice
          label="Events of which train"
          labelled="unseen"
          className="grow py-0.5"
          value={train}
          options={[{ value: '', says: 'every train' }, ...(trains ?? []).map((t) => ({ value: t.id, says: t.name }))]}
          onChange={setTrain}
        />
      </div>
      <div ref={box} tabIndex={0} className="h-56 overflow-y-auto border-t border-line">
        {shown.length === 0 && (
          <p className="py-1 text-ink2">
            {events.length === 0 ? 'Nothing yet. Press Play.' : 'None of these kinds has happened.'}
          </p>
        )}
        <ol style={{ height: rows.getTotalSize(), position: 'relative' }} aria-label="Events, newest first">
          {rows.getVirtualItems().map((row) => {
            const event = shown[row.index]!;
            return (
              <li
                key={row.key}
                style={{ position: 'absolute', top: row.start, height: ROW, left: 0, right: 0 }}
                className="border-b border-hair"
              >
                <button
                  type="button"
                  title="Go to this moment"
                  className={`flex h-full w-full cursor-pointer items-center gap-2 text-left leading-4 hover:bg-accent-tint ${event.bad ? 'bg-fail-tint font-semibold text-fail' : event.tick > now ? 'text-ink3' : ''}`}
                  onClick={() => run.wind(event.tick)}
                >
                  <span className="w-12 shrink-0 text-right font-mono text-[0.72rem]">{clock(event.tick)}</span>
                  <span className="line-clamp-2">{event.says}</span>
                </button>
              </li>
            );
          })}
        </ol>
      </div>
    </>
  );
}
