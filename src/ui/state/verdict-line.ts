import type { Switch } from '@/core/proof';
import { type LayoutDocument, runsAlike } from '@/core/survey';
import type { ProofReport } from '@/workers/proof.worker';

/** The newest proof of an open layout: of which document, and when it was made, as a time of day. */
export interface Proved {
  of: LayoutDocument;
  at: string;
  /** What was tried in it. */
  tried: Switch[];
  report: ProofReport;
}

export interface VerdictLine {
  says: string;
  tone: 'ok' | 'fail' | 'plain';
}

/** The verdict on the whole layout in one line. */
export function verdictLine(proved: Proved | undefined, document: LayoutDocument): VerdictLine {
  if (!proved) return { says: 'Not proved yet', tone: 'plain' };
  if (!runsAlike(proved.of, document)) return { says: `Not proved since ${proved.at}`, tone: 'plain' };
  const { verdicts, trains, notPlaced, finished } = proved.report;
  const failing = verdicts.filter(({ result }) => result === 'fails').length;
  if (failing > 0) return { says: failing === 1 ? '1 way to fail' : `${failing} ways to fail`, tone: 'fail' };
  if (!finished) return { says: 'Proof not finished', tone: 'plain' };
  if (notPlaced.length > 0) return { says: `${notPlaced.length} not on the track`, tone: 'fail' };
  if (trains.length === 0) return { says: 'No train to prove it for', tone: 'plain' };
  return { says: trains.length === 1 ? 'Proved for 1 train' : `Proved for ${trains.length} trains`, tone: 'ok' };
}
