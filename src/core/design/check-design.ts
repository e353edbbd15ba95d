import { detectionFindings, spotFindings } from '../detection';
import { type Finding, sortFindings } from '../findings';
import type { Program } from '../logic';
import { compileScheme, type Scheme, writeRuleProgram } from '../patterns';
import { signalFindings } from '../signals';
import type { Edit, LayoutDocument } from '../survey';
import { trackEndFindings } from './track-end-findings';
import { trafficFindings } from './traffic-findings';

/** Everything computed from a document in one go: what screens show and what a rehearsal runs. */
export interface Design {
  scheme: Scheme;
  program: Program;
  findings: Finding<Edit>[];
}

/** Compiles a checked document through every stage and gathers what is wrong or doubtful. */
export function checkDesign(document: LayoutDocument): Design {
  const scheme = compileScheme(document);
  const program = writeRuleProgram(scheme);
  const findings = [
    ...detectionFindings(document, scheme.partition),
    ...spotFindings(document),
    ...signalFindings(document, scheme.partition, scheme.readings),
    ...trackEndFindings(scheme),
    ...trafficFindings(scheme),
  ];
  for (const crossing of document.crossings) {
    if (crossing.kind === 'diamond') continue;
    findings.push({
      id: `crossing ${crossing.id}`,
      kind: 'crossing read as a diamond',
      severity: 'check',
      subject: crossing.id,
      says: `${crossing.name} is a ${crossing.kind}, but is read as a plain diamond so far: only its straight ways exist.`,
      figures: [],
      advice: 'Draw its turning ways as turnouts with a short track between them.',
      remedies: [],
    });
  }
  findings.push(...nameClashes(program));
  return { scheme, program, findings: sortFindings(findings) };
}

/** Two things of one kind that bear the same name would share a rule; the program could not run. */
function nameClashes(program: Program): Finding<Edit>[] {
  const seen = new Set<string>();
  const findings: Finding<Edit>[] = [];
  for (const { name, why } of program.declarations) {
    if (seen.has(name)) {
      findings.push({
        id: `name-clash ${name}`,
        kind: 'two things with one name',
        severity: 'unsafe',
        subject: why?.about ?? '',
        says: `Two things share the name in “${name}”, so their rules cannot be told apart and no signal can be worked.`,
        figures: [],
        advice: 'Rename one of them.',
        remedies: [],
      });
    }
    seen.add(name);
  }
  return findings;
}
