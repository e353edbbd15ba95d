import type { Finding } from '../findings';
import {
  allRoads,
  isDriven,
  isTwoRoads,
  isWatchedBlock,
  onePulseStation,
  pointsOf,
  RELEASED_BY,
  releaseAlone,
  releasePoint,
  rulesOf,
  type Scheme,
  sayThrow,
  spotsBefore,
  TWO_ROAD_PATTERNS,
  trainsSetRoutes,
} from '../patterns';
import type { Edit, Signal, ThrowRule } from '../survey';
import type { Motor } from '../track';

/** Automatic working that somebody chose where it cannot be, or by which nothing looks whether the route ahead is free. */
export const automaticFindings = (scheme: Scheme): Finding<Edit>[] => [
  ...scheme.partition.graph.motors.flatMap((motor) => turnsThatCannotBe(scheme, motor)),
  ...scheme.readings.flatMap((reading) => ofSignal(scheme, reading)),
  ...scheme.document.throwRules.flatMap((rule) => ofThrowRule(scheme, rule)),
];

const leaveOut = (
  { id, name }: { id: string; name: string },
  pattern: string,
  says = `Let ${name} work without it`,
) => ({
  says,
  edit: { do: 'use pattern', id, pattern, on: false } as const,
});

/** What is wrong with a way of working at a thing, and why. */
function cannot(thing: { id: string; name: string }, pattern: string, why: string, advice: string): Finding<Edit> {
  return {
    id: `automatic ${thing.id} ${pattern}`,
    kind: 'automatic working that cannot be there',
    severity: 'check',
    subject: thing.id,
    says: `${thing.name} is to work by “${pattern}”, but ${why}. It works without.`,
    figures: [],
    advice,
    fixes: [leaveOut(thing, pattern)],
  };
}

function turnsThatCannotBe(scheme: Scheme, motor: Motor): Finding<Edit>[] {
  const points = pointsOf(scheme, motor);
  const { id, name } = scheme.partition.graph.points[motor.points]!;
  const chosen = (points?.patterns ?? []).filter((pattern) => TWO_ROAD_PATTERNS.includes(pattern));
  return chosen.flatMap((pattern, nth): Finding<Edit>[] => {
    if (nth > 0)
      return [
        cannot(
          { id, name },
          pattern,
          `it works by “${chosen[0]}” already, and one turn is taken in one way`,
          'Choose one of the two.',
        ),
      ];
    const found = allRoads(scheme)[motor.index]!;
    if (!isTwoRoads(found))
      return [
        cannot(
          { id, name },
          pattern,
          found.missing,
          'It takes a turnout that leads into two roads, each a block of its own with a signal at its far end.',
        ),
      ];
    if (!isDriven(scheme, motor))
      return [cannot({ id, name }, pattern, 'a hand throws it, so that nothing else does', 'Give it a motor.')];
    return pattern === onePulseStation.id && spotsBefore(scheme, { motor }).length === 0 ? [noPulse({ id, name })] : [];
  });
}

/** A station to which no contact leads. */
const noPulse = (points: { id: string; name: string }): Finding<Edit> => ({
  id: `no-pulse ${points.id}`,
  kind: 'automatic working that cannot be there',
  severity: 'check',
  subject: points.id,
  says: `No spot stands on the way to the two roads of ${points.name}, outside of them: only a pulse by hand lets a train go.`,
  figures: [],
  advice: 'Place a spot where a train that comes is to let the one that waits go.',
  fixes: [leaveOut(points, onePulseStation.id)],
});

function ofSignal(scheme: Scheme, reading: Scheme['readings'][number]): Finding<Edit>[] {
  const { signal, index } = reading;
  const chosen = (pattern: string) => signal.patterns?.includes(pattern) ?? false;
  const routes = scheme.routesOf[index]!.filter(({ route }) => route.blocks.length > 0);
  const found: Finding<Edit>[] = [];
  if (chosen(trainsSetRoutes.id) && routes.length === 0)
    found.push(cannot(signal, trainsSetRoutes.id, 'no route leads from it', 'Place it where track lies ahead of it.'));
  const ways = RELEASED_BY.filter(({ id }) => chosen(id));
  for (const { id, who } of ways) {
    const { spots, blocks } = releasePoint(scheme, reading, who);
    if (spots.length + blocks.length > 0) continue;
    const where =
      who === 'push' ? 'no train comes up behind one that waits there' : 'no block follows the first one ahead';
    found.push(
      cannot(
        signal,
        id,
        `${where}: only its button releases it`,
        'Place a spot where the other train is to release it.',
      ),
    );
  }
  if (!chosen(releaseAlone.id)) return found;
  return [
    ...found,
    ways.length === 0 && !waitsForTurn(scheme, index) ? releasedByNothing(signal) : looksAtNothing(signal),
  ];
}

function ofThrowRule(scheme: Scheme, rule: ThrowRule): Finding<Edit>[] {
  const motor = scheme.partition.graph.motors.find(({ id }) => id === rule.motor);
  const says = sayThrow(scheme, rule);
  const fixes = [{ says: 'Delete the rule', edit: { do: 'delete', id: rule.id } as const }];
  const why = whyNot(scheme, motor, rule);
  if (!motor || why)
    return [
      {
        id: `throw ${rule.id}`,
        kind: 'automatic working that cannot be there',
        severity: 'check',
        subject: rule.id,
        says: `“${says}” does nothing: ${why ?? 'the points that it throws are gone'}.`,
        figures: [],
        fixes,
      },
    ];
  if (!rule.unlocked) return [];
  return [
    {
      id: `unlocked ${rule.id}`,
      kind: 'points thrown whatever locks them',
      severity: 'unsafe',
      subject: rule.motor.split(':')[0]!,
      says: `“${says}” It throws ${motor.name} even under a train.`,
      figures: [],
      advice: 'Let the locks refuse it: it is remembered until they let go.',
      fixes,
    },
  ];
}

/** Why a throw rule does nothing. */
function whyNot(scheme: Scheme, motor: Motor | undefined, rule: ThrowRule): string | undefined {
  if (!motor) return undefined;
  if (!rulesOf(scheme, motor).includes(rule)) return 'a block that it names is gone';
  if (!isDriven(scheme, motor)) return `a hand throws ${motor.name}, so that nothing else does`;
  const turns = pointsOf(scheme, motor)?.patterns?.find((one) => TWO_ROAD_PATTERNS.includes(one));
  if (turns && isTwoRoads(allRoads(scheme)[motor.index]!))
    return `${motor.name} works by “${turns}”, which asks for the one or the other at any moment`;
  const [into, watched] = [rule.comesInto, ...(rule.from ? [rule.from] : [])].map((id) => {
    const block = scheme.partition.blocks.find((one) => one.id === id)!;
    return isWatchedBlock(scheme, block.index) ? undefined : `nothing tells of a train in ${block.name}`;
  });
  return into ?? watched;
}

/** It stands at the end of a road that takes turns. */
const waitsForTurn = (scheme: Scheme, signal: number): boolean =>
  scheme.partition.graph.motors.some((motor) => {
    const roads = allRoads(scheme)[motor.index]!;
    const turns = TWO_ROAD_PATTERNS.some((pattern) => pointsOf(scheme, motor)?.patterns?.includes(pattern));
    return (
      turns &&
      isTwoRoads(roads) &&
      [roads.straight, roads.diverging].some((road) => road.signals.some(({ index }) => index === signal))
    );
  });

const releasedByNothing = (signal: Signal): Finding<Edit> => ({
  id: `released-by-nothing ${signal.id}`,
  kind: 'signal that looks at nothing ahead',
  severity: 'unsafe',
  subject: signal.id,
  says: `Only what releases ${signal.name} is to decide, and nothing releases it: it shows proceed while the points lie right, whatever stands ahead.`,
  figures: [],
  advice: 'Choose who releases it, the train behind or the one ahead.',
  fixes: [leaveOut(signal, releaseAlone.id, `Let ${signal.name} look whether the route ahead is free, too`)],
});

const looksAtNothing = (signal: Signal): Finding<Edit> => ({
  id: `looks-at-nothing ${signal.id}`,
  kind: 'signal that looks at nothing ahead',
  severity: 'check',
  subject: signal.id,
  says: `What releases ${signal.name} decides alone: it lets a train go onto one that has not started, or that is one too many.`,
  figures: [],
  advice: 'Look under Lock how many trains can run so, and what happens when one does not start.',
  fixes: [leaveOut(signal, releaseAlone.id, `Let ${signal.name} look whether the route ahead is free, too`)],
});
