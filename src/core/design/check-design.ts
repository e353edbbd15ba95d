import { detectionFindings, spotFindings } from '../detection';
import { type Finding, sortFindings } from '../findings';
import { CROSSINGS, type PointsKind } from '../kinds';
import type { Program } from '../logic';
import { compileScheme, names, type Scheme, writeRuleProgram } from '../patterns';
import { signalFindings } from '../signals';
import type { Edit, LayoutDocument } from '../survey';
import { trackEndFindings } from './track-end-findings';
import { trafficFindings } from './traffic-findings';

/** Everything computed from a document in one go: what screens show and what a rehearsal runs. */
export interface Design {
  scheme: Scheme;
  /** Written when it is first asked for. */
  readonly program: Program;
  findings: Finding<Edit>[];
  /** Its rules can be told apart, so that they can be run. */
  runs: boolean;
}

/** Compiles a checked document through every stage and gathers what is wrong or doubtful. */
export function checkDesign(document: LayoutDocument): Design {
  const scheme = compileScheme(document);
  const findings = [
    ...detectionFindings(document, scheme.partition),
    ...spotFindings(document),
    ...signalFindings(document, scheme.partition, scheme.readings),
    ...trackEndFindings(scheme),
    ...trafficFindings(scheme),
  ];
  for (const crossing of document.crossings) {
    const { readAs, title } = CROSSINGS[crossing.kind] as PointsKind;
    if (!readAs) continue;
    findings.push({
      id: `crossing ${crossing.id}`,
      kind: 'crossing read as a diamond',
      severity: 'check',
      subject: crossing.id,
      says: `${crossing.name} is a ${title.toLowerCase()}, but is read as ${readAs} so far: only its straight ways exist.`,
      figures: [],
      advice:
        'Enter two turnouts that throw together, with the track between them; for a double one twice that, with a diamond where the tracks cross.',
      remedies: [],
    });
  }
  const clashes = nameClashes(scheme);
  let program: Program | undefined;
  return {
    scheme,
    get program() {
      program ??= writeRuleProgram(scheme);
      return program;
    },
    findings: sortFindings([...findings, ...clashes]),
    runs: clashes.length === 0,
  };
}

/** Two things of one kind that bear the same name would share a rule; the program could not run. */
function nameClashes({ document, partition, readings, stretches }: Scheme): Finding<Edit>[] {
  const kinds: [string, { name: string; id: string }[]][] = [
    ['sensors', document.sensors],
    ['points', partition.graph.motors],
    ['signals', readings.map(({ signal }) => signal)],
    ['blocks', partition.blocks],
    ['stretches of track', stretches.all.map(({ name, blocks }) => ({ name, id: partition.blocks[blocks[0]!]!.id }))],
  ];
  return kinds.flatMap(([kind, things]) => {
    const seen = new Set<string>();
    return things.flatMap(({ name, id }): Finding<Edit>[] => {
      const known = names.safe(name);
      if (!seen.has(known)) {
        seen.add(known);
        return [];
      }
      return [
        {
          id: `name-clash ${kind} ${id}`,
          kind: 'two things with one name',
          severity: 'unsafe',
          subject: id,
          says: `Two ${kind} are called ${name}, so their rules cannot be told apart and no signal can be worked.`,
          figures: [],
          advice: 'Rename one of them.',
          remedies: [],
        },
      ];
    });
  });
}
