import { type Finding, GRAVITY } from '../findings';
import type { Edit, LayoutDocument } from '../survey';

/** Findings with why somebody lives with them; one that has become graver since counts again. */
export function withAcceptances({ acceptances }: LayoutDocument, findings: Finding<Edit>[]): Finding<Edit>[] {
  if (acceptances.length === 0) return findings;
  const known = new Map(acceptances.map((one) => [one.finding, one]));
  return findings.map((finding) => {
    const one = known.get(finding.id);
    const counts = one && finding.severity !== 'note' && GRAVITY[finding.severity] <= GRAVITY[one.severity];
    if (!counts) return finding;
    return { ...finding, accepted: one.why, ...(finding.says.startsWith(one.said) ? {} : { saidThen: one.said }) };
  });
}
