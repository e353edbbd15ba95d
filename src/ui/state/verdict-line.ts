import type { Switch } from '@/core/proof';
import type { LayoutDocument } from '@/core/survey';
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

/** An open layout, its newest proof, and what runs by the design that was worked out last. */
interface Seen {
  document: LayoutDocument;
  proved?: Proved;
  design?: { document: LayoutDocument; key?: string };
}

/** Whether a proof is true of a layout: it is while what runs is the same, whatever things are called. Not known as long as that has not been worked out. */
export function isProofOf({ proved, design, document }: Seen): boolean | undefined {
  if (!proved) return false;
  if (proved.of === document) return true;
  return design?.document === document && design.key !== undefined ? design.key === proved.report.key : undefined;
}

/** The verdict on the whole layout in one line. */
export function verdictLine(seen: Seen): VerdictLine {
  const { proved } = seen;
  if (!proved) return { says: 'Not proved yet', tone: 'plain' };
  const standing = isProofOf(seen);
  if (standing === undefined) return { says: 'Does the proof still hold? …', tone: 'plain' };
  if (!standing) return { says: `Not proved since ${proved.at}`, tone: 'plain' };
  const { verdicts, trains, notPlaced, finished } = proved.report;
  const failing = verdicts.filter(({ result }) => result === 'fails').length;
  if (failing > 0)
    return { says: failing === 1 ? '1 mishap can happen' : `${failing} mishaps can happen`, tone: 'fail' };
  if (!finished) return { says: 'Proof not finished', tone: 'plain' };
  if (notPlaced.length > 0) return { says: `${notPlaced.length} not on the track`, tone: 'fail' };
  if (trains.length === 0) return { says: 'No train to prove it for', tone: 'plain' };
  return { says: trains.length === 1 ? 'Proved for 1 train' : `Proved for ${trains.length} trains`, tone: 'ok' };
}
