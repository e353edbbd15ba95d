import type { StoreApi } from 'zustand';
import type { LayoutDocument } from '@/core/survey';
import type { Board } from '@/ui/state/rehearsal';
import type { WorkbenchState } from '@/ui/state/store';
import type { Report } from '@/workers/rehearsal.worker';

const MOST_EVENTS = 20_000;
/** An hour of samples at five a second. */
const MOST_SAMPLES = 18_000;
/** So many reports do not wait for a picture: there is none while the page is hidden. */
const MOST_WAITING = 90;

/** The course whose reports are wanted; what is still told of an earlier one is not shown. */
export interface WantedCourse {
  number: number;
  document: LayoutDocument;
}

/**
 * Takes the reports of a run up into the store: before each picture all that have come since, together, so that a page that is
 * slow to draw does not fall behind. Returns what ends it.
 */
export function takeReports(
  store: StoreApi<WorkbenchState>,
  port: MessagePort,
  wanted: { readonly current: WantedCourse },
): () => void {
  let waiting: Report[] = [];
  let asked = 0;
  const takeUp = () => {
    cancelAnimationFrame(asked);
    asked = 0;
    const reports = waiting.filter(({ course }) => course === wanted.current.number);
    waiting = [];
    if (reports.length > 0) store.getState().set(taken(store.getState(), reports, wanted.current.document));
  };
  port.onmessage = ({ data }: MessageEvent<Report>) => {
    waiting.push(data);
    if (waiting.length >= MOST_WAITING) takeUp();
    else asked ||= requestAnimationFrame(takeUp);
  };
  return () => {
    port.close();
    cancelAnimationFrame(asked);
  };
}

/** What changes of the state by some reports of one course, in order. */
function taken({ board, events, samples }: WorkbenchState, reports: Report[], document: LayoutDocument) {
  const { frame, hash, notPlaced, reached, toCome } = reports.at(-1)!;
  const { tick: _, trains, ...rest } = frame;
  const now: Board = {
    ...rest,
    document,
    trains: trains.map(({ spans: _, mmPerS: __, ...train }) => train),
  };
  return {
    frame,
    board: sameWhereEqual(board, now),
    course: { hash, notPlaced, reached, toCome },
    samples: withNew(samples, reports, (report) => report.samples, MOST_SAMPLES),
    events: withNew(events, reports, (report) => report.events, MOST_EVENTS),
  };
}

/** What was told before with what is new, and of that the latest so many; the same list when nothing is new. */
function withNew<T extends { tick: number }>(
  all: T[],
  reports: Report[],
  pick: (report: Report) => T[],
  most: number,
): T[] {
  let list = all;
  for (const report of reports) {
    const { forgetAfter } = report;
    if (forgetAfter !== undefined) list = list.filter(({ tick }) => tick <= forgetAfter);
    if (pick(report).length > 0) list = [...list, ...pick(report)];
  }
  return list.length > most ? list.slice(-most) : list;
}

/** The new board with every part of the old one that is still the same, and the old one itself when all of it is. */
function sameWhereEqual(old: Board | undefined, now: Board): Board {
  if (!old) return now;
  let changed = false;
  const kept = { ...now } as Record<string, unknown>;
  for (const [field, was] of Object.entries(old)) {
    if (field !== 'document' && JSON.stringify(was) === JSON.stringify(kept[field])) kept[field] = was;
    else if (was === kept[field]) continue;
    else changed = true;
  }
  return changed ? (kept as unknown as Board) : old;
}
