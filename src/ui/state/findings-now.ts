import { type Finding, hazardOfFinding, isOpen, sortFindings } from '@/core/findings';
import { STANDARD_SWITCHES } from '@/core/proof/switches';
import type { Edit, LayoutDocument } from '@/core/survey';
import { isProofOf, type Proved } from './verdict-line';

interface Seen {
  document: LayoutDocument;
  proved?: Proved;
  design?: { document: LayoutDocument; key?: string; findings: Finding<Edit>[] };
}

/** Of a finding that says what can happen: that the present proof has looked at every state and it does not, all trains being in it and everything tried that people do as a rule. */
export function isDisproved(seen: Seen, { kind }: Finding<Edit>): boolean {
  const hazard = hazardOfFinding(kind);
  const { proved, document } = seen;
  if (!hazard || !proved || !isProofOf(seen)) return false;
  const { finished, notPlaced, trains, verdicts } = proved.report;
  return (
    finished &&
    notPlaced.length === 0 &&
    trains.length === document.trains.length &&
    [...STANDARD_SWITCHES].every((one) => proved.tried.includes(one)) &&
    verdicts.some(({ property, result }) => property === hazard && result === 'holds')
  );
}

const NONE: Finding<Edit>[] = [];
let last: { findings: Finding<Edit>[]; proved?: Proved; counts: boolean; now: Finding<Edit>[] } | undefined;

/** The findings as they stand beside the proof: one that it disproves is a note. The same list as long as neither is another. */
export function findingsNow(seen: Seen): Finding<Edit>[] {
  const findings = seen.design?.findings ?? NONE;
  const counts = isProofOf(seen) === true;
  if (last?.findings === findings && last.proved === seen.proved && last.counts === counts) return last.now;
  const some = findings.some((one) => isOpen(one) && isDisproved(seen, one));
  const now = some
    ? sortFindings(findings.map((one) => (isDisproved(seen, one) ? { ...one, severity: 'note' as const } : one)))
    : findings;
  last = { findings, proved: seen.proved, counts, now };
  return now;
}
