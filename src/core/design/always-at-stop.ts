import type { Finding } from '../findings';
import { alwaysOf } from '../logic';
import { names, type Scheme } from '../patterns';
import type { Edit } from '../survey';
import type { System } from '../system';

/** Findings of where signals stand, by what the rules then make of it. */
const TOLD = new Set<Finding<Edit>['kind']>(['signal with nothing to protect', 'signal into undetected track']);

/** Says beside such findings that a signal, or a signal for a route, always shows stop, where its rules can do nothing else. */
export function withWhatIsShown(
  findings: readonly Finding<Edit>[],
  { readings, routesOf }: Scheme,
  system: System,
): Finding<Edit>[] {
  if (!findings.some(({ kind }) => TOLD.has(kind))) return [...findings];
  const isAlways = alwaysOf(system.program);
  return findings.map((finding) => {
    const reading = TOLD.has(finding.kind) ? readings.find(({ signal }) => signal.id === finding.subject) : undefined;
    if (!reading) return finding;
    if (isAlways(names.proceed(reading.signal)) === 0)
      return { ...finding, says: `${finding.says} It always shows stop.` };
    const blind = routesOf[reading.index]!.filter(({ route }) => route.ending.kind === 'end of detection');
    if (blind.length === 0 || !blind.every((route) => isAlways(names.go(route)) === 0)) return finding;
    return { ...finding, says: `${finding.says} It is never cleared for that route.` };
  });
}
