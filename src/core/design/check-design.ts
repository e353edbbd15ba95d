import {
  detectionFindings,
  fitFindings,
  inferredFindings,
  lightCarFindings,
  powerFindings,
  sensitivityFindings,
  sharedVehicleFindings,
  spotFindings,
  swingFindings,
} from '../detection';
import { type Finding, sortFindings } from '../findings';
import { CROSSINGS, type PointsKind } from '../kinds';
import { arrivalFindings, automaticFindings, flankFindings, lockFindings, waitsForArrival } from '../locking';
import { aspectFindings, chosenOutputs, compileScheme, holdsNothing, patternFindings, type Scheme } from '../patterns';
import { signalFindings } from '../signals';
import type { Edit, LayoutDocument } from '../survey';
import { ownRuleFindings, System } from '../system';
import { surveyFindings, trackEndFindings } from '../track';
import { withAcceptances } from './accepted';
import { withWhatIsShown } from './always-at-stop';
import { placeFindings } from './signal-place';
import { startsAgainstPoints } from './start-against-points';
import { trafficFindings } from './traffic-findings';

/** Everything computed from a document in one go: what screens show and what a rehearsal runs. */
export interface Design {
  scheme: Scheme;
  /** What the document compiles to, for whoever comes after. */
  system: System;
  findings: Finding<Edit>[];
}

/** Compiles a checked document through every stage and gathers what is wrong or doubtful. */
export function checkDesign(document: LayoutDocument): Design {
  const scheme = compileScheme(document);
  const system = new System(scheme);
  const { partition, readings } = scheme;
  const { graph } = partition;
  /** Signals that hold trains: the others protect nothing. */
  const holding = readings.filter(({ signal }) => !holdsNothing(signal));
  /** Somebody who has nothing but indicators, and arms that follow the points, does not mean to signal trains. */
  const isSignalled = holding.length > 0 || chosenOutputs(document).size === 0;
  const findings = [
    ...detectionFindings(document, partition, isSignalled, (points, train) => waitsForArrival(scheme, points, train)),
    ...sensitivityFindings(document, partition),
    ...spotFindings(document, partition),
    ...inferredFindings(document, partition),
    ...signalFindings(document, partition, holding, isSignalled),
    ...lockFindings(scheme),
    ...flankFindings(scheme),
    ...arrivalFindings(scheme),
    ...automaticFindings(scheme),
    ...trackEndFindings(document, graph),
    ...trafficFindings(scheme),
    ...startsAgainstPoints(scheme),
    ...patternFindings(document),
    ...surveyFindings(document, graph),
    ...fitFindings(document, graph),
    ...sharedVehicleFindings(document),
    ...swingFindings(document),
    ...lightCarFindings(document),
    ...powerFindings(document, partition),
    ...aspectFindings(scheme),
    ...ownRuleFindings(system),
    ...placeFindings(scheme),
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
      fixes: [],
    });
  }
  return {
    scheme,
    system,
    findings: sortFindings(
      withAcceptances(document, withWhatIsShown([...findings, ...sameNames(scheme)], scheme, system)),
    ),
  };
}

/** Two things of one kind that bear the same name: rules and runs know them apart, people do not. */
function sameNames({ document, partition, readings }: Scheme): Finding<Edit>[] {
  const kinds: [string, { name: string; id: string }[]][] = [
    ['lines', document.lines],
    ['trains', document.trains],
    ['sensors', document.sensors],
    ['points', partition.graph.motors],
    ['signals', readings.map(({ signal }) => signal)],
    ['blocks', partition.blocks],
  ];
  return kinds.flatMap(([kind, things]) => {
    const seen = new Set<string>();
    return things.flatMap(({ name, id }): Finding<Edit>[] => {
      if (!seen.has(name)) {
        seen.add(name);
        return [];
      }
      return [
        {
          id: `name-clash ${kind} ${id}`,
          kind: 'two things with one name',
          severity: 'check',
          subject: id,
          says: `Two ${kind} are called ${name}. They work, but nobody can tell them apart in what is said, printed and labelled.`,
          figures: [],
          advice: 'Rename one of them.',
          fixes: [],
        },
      ];
    });
  });
}
