import type { Finding } from '../findings';
import { alwaysOf } from '../logic';
import { names, rulesOfSignals, type Scheme } from '../patterns';
import type { Edit } from '../survey';
import type { System } from '../system';

/** Findings of where signals stand, by what the rules then make of it. */
const TOLD = new Set<Finding<Edit>['kind']>(['signal with nothing to protect', 'signal into undetected track']);

/** Says beside such findings that a signal, or a signal for a route, always shows stop, where its rules can do nothing else. */
export function withWhatIsShown(findings: readonly Finding<Edit>[], scheme: Scheme, system: System): Finding<Edit>[] {
  const { readings, routesOf } = scheme;
  const subjects = new Set(findings.flatMap(({ kind, subject }) => (TOLD.has(kind) ? [subject] : [])));
  if (subjects.size === 0) return [...findings];
  /** Rules of somebody’s own can be anywhere; without any, those of the signals themselves are enough, and are written in no time. */
  const own = system.rules.length > 0;
  const concerned = readings.filter(({ signal }) => subjects.has(signal.id));
  const isAlways = alwaysOf(own ? system.program : rulesOfSignals(scheme, concerned));
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
