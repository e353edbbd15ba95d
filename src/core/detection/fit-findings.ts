import type { Finding } from '../findings';
import {
  apartAfter,
  clearanceOf,
  fromMm,
  layoutSpeedMmPerS,
  mmOf,
  showLength,
  showNumber,
  stoppingNeed,
  throwInside,
  throwOutside,
} from '../measure';
import { asTyped, callThing, type Edit, isKind, type LayoutDocument, type Vehicle } from '../survey';
import { type TrackGraph, trackFrom } from '../track';
import { vehiclesOf } from './consist';

/** Where trains and track do not fit each other: curves, throw, gradients, and parts that are lifted out. */
export const fitFindings = (document: LayoutDocument, graph: TrackGraph): Finding<Edit>[] => [
  ...tightCurves(document),
  ...thrownOut(document, graph),
  ...brakesOnGradients(document),
  ...liftOuts(document),
  ...bothWays(document),
];

/** Every vehicle that runs in some train, once. */
const running = (document: LayoutDocument): Vehicle[] => [
  ...new Map(document.trains.flatMap((train) => vehiclesOf(document, train)).map((one) => [one.id, one])).values(),
];

function tightCurves(document: LayoutDocument): Finding<Edit>[] {
  const particular = running(document).filter(({ leastRadius }) => leastRadius);
  return document.features.filter(isKind('curve')).flatMap((curve): Finding<Edit>[] => {
    const unfit = particular.filter(({ leastRadius }) => leastRadius!.tenthUm > curve.radius.tenthUm);
    if (unfit.length === 0) return [];
    const shown = (length: number) => showLength(length, document.shownUnit);
    return [
      {
        id: `tight-curve ${curve.id}`,
        kind: 'curve tighter than a vehicle takes',
        severity: 'check',
        subject: curve.id,
        says: `${callThing('features', curve, document.shownUnit)} has a radius of ${shown(curve.radius.tenthUm)}, tighter than ${unfit.map(({ name }) => name).join(', ')} can take.`,
        figures: unfit.map(({ name, leastRadius }) => ({ name, value: `at least ${shown(leastRadius!.tenthUm)}` })),
        advice: 'Ease the curve, or keep those off it.',
        fixes: [],
      },
    ];
  });
}

/** From the middle of the front half of its axles to the middle of the rear half; without axles seven tenths of its length. */
export function bogiesMm({ axles, length }: Vehicle): number {
  const at = axles.map((axle) => mmOf(axle.at.tenthUm)).sort((a, b) => a - b);
  if (at.length < 2) return 0.7 * mmOf(length.tenthUm);
  const half = at.length >> 1;
  const middle = (some: number[]) => some.reduce((sum, one) => sum + one, 0) / some.length;
  return middle(at.slice(-half)) - middle(at.slice(0, half));
}

/** Curves beside points: a long vehicle swings into the room that the clearance point leaves to a straight one. */
function thrownOut(document: LayoutDocument, graph: TrackGraph): Finding<Edit>[] {
  const curves = document.features.filter(isKind('curve'));
  if (curves.length === 0) return [];
  const vehicles = running(document);
  const shown = (length: number) => showLength(length, document.shownUnit);
  return document.turnouts.flatMap((turnout): Finding<Edit>[] => {
    const node = graph.points.find(({ id }) => id === turnout.id)!;
    const clearance = mmOf(turnout.clearance.tenthUm);
    const number = turnout.number ?? likelyNumber(clearance, document);
    const beside = node.ports.slice(1).flatMap((leg) =>
      trackFrom(graph, leg, node.clearance).flatMap(({ edge, from, to }) => {
        const { line } = graph.edges[edge]!;
        return curves.filter((curve) => curve.line === line && curve.at.tenthUm < to && curve.to.tenthUm > from);
      }),
    );
    let worst: { mm: number; vehicle: Vehicle; radius: number } | undefined;
    for (const { radius } of beside)
      for (const vehicle of vehicles) {
        const [r, bogies] = [mmOf(radius.tenthUm), bogiesMm(vehicle)];
        /** One that cannot stand on the curve at all is told by its least radius. */
        if (bogies >= 2 * r) continue;
        const mm = Math.max(throwInside(r, bogies), throwOutside(r, bogies, mmOf(vehicle.length.tenthUm)));
        if (!worst || mm > worst.mm) worst = { mm, vehicle, radius: radius.tenthUm };
      }
    if (!worst) return [];
    const needed = fromMm(Math.ceil(clearanceOf(number, document.scale) + apartAfter(worst.mm, number)));
    if (needed <= turnout.clearance.tenthUm) return [];
    return [
      {
        id: `thrown-out ${turnout.id}`,
        kind: 'clearance too short for a vehicle’s throw',
        severity: 'check',
        subject: turnout.id,
        says: `On the curve beside ${turnout.name} ${worst.vehicle.name} swings out by ${showNumber(worst.mm, 1)} mm, so that it is clear of the other leg only at ${shown(needed)}, not at ${shown(turnout.clearance.tenthUm)}.`,
        figures: [
          { name: 'radius', value: shown(worst.radius) },
          { name: 'one in', value: `${showNumber(number, 1)}${turnout.number ? '' : ', by its clearance'}` },
        ],
        fixes: [
          {
            says: `Take ${shown(needed)} for its clearance`,
            edit: { do: 'change turnout', id: turnout.id, change: { clearance: asTyped(needed, document.shownUnit) } },
          },
        ],
      },
    ];
  });
}

/** The crossing number for which a clearance would have been computed. */
function likelyNumber(clearanceMm: number, document: LayoutDocument): number {
  let [low, high] = [1, 40];
  for (let i = 0; i < 30; i++) {
    const middle = (low + high) / 2;
    if (clearanceOf(middle, document.scale) < clearanceMm) low = middle;
    else high = middle;
  }
  return low;
}

/** m/s² near enough everywhere, the standard acceleration of free fall. */
const GRAVITY_MM_PER_S2 = 9806.65;
/** Slopes that are less are within what tape and eye measure; common practice, no source. */
const LEAST_PERCENT = 1;

/** Trains whose braking nobody measured, where the line falls. */
function brakesOnGradients(document: LayoutDocument): Finding<Edit>[] {
  const assumed = document.trains.filter(({ measured }) => !measured.includes('braking'));
  if (assumed.length === 0) return [];
  const steep = document.features
    .filter(isKind('gradient'))
    .filter(({ percent }) => Math.abs(percent) >= LEAST_PERCENT);
  return steep.map((slope): Finding<Edit> => {
    const { up, down } = document.directions;
    const falls = slope.percent < 0 ? up : down;
    const pull = (GRAVITY_MM_PER_S2 * Math.abs(slope.percent)) / 100;
    const names = assumed.map(({ name }) => name).join(', ');
    return {
      id: `brakes-on-gradient ${slope.id}`,
      kind: 'brakes not measured on a gradient',
      severity: 'note',
      subject: slope.id,
      says: `${callThing('features', slope, document.shownUnit)} falls ${showNumber(Math.abs(slope.percent), 1)} % ${falls}, and the braking of ${names} is only assumed. Measure there how far it runs.`,
      figures: [
        { name: 'gravity pulls with', value: `${showNumber(pull, 0)} mm/s²` },
        ...assumed.map(({ name, brakingMmPerS2 }) => ({
          name,
          value: `brakes with ${showNumber(brakingMmPerS2, 0)} mm/s²`,
        })),
      ],
      advice: 'Its own worm gear may hold a train back; what it does only the tape tells.',
      fixes: [],
    };
  });
}

/** A joint that can be open while trains run. */
function liftOuts(document: LayoutDocument): Finding<Edit>[] {
  const farthest = Math.max(
    0,
    ...document.trains.map(
      ({ topSpeedKmh, brakingMmPerS2 }) =>
        stoppingNeed(layoutSpeedMmPerS(topSpeedKmh, document.scale), brakingMmPerS2).totalMm,
    ),
  );
  return document.features
    .filter(isKind('liftOut'))
    .filter(({ guarded }) => !guarded)
    .map(
      (joint): Finding<Edit> => ({
        id: `lift-out ${joint.id}`,
        kind: 'lift-out without protection',
        severity: 'check',
        subject: joint.id,
        says: `Nothing stops a train before ${callThing('features', joint, document.shownUnit).toLowerCase()} while the part is out: it falls.`,
        figures: [{ name: 'longest way to stop', value: showLength(fromMm(farthest), document.shownUnit) }],
        advice:
          'Let a contact of the part cut the power on either side, over more than the longest way to stop: an open contact must mean stop.',
        fixes: [
          {
            says: 'Its contact cuts the power',
            edit: { do: 'change features', ids: [joint.id], change: { guarded: true } },
          },
        ],
      }),
    );
}

/** Two lines with a crossover between them, each signalled both ways. */
function bothWays(document: LayoutDocument): Finding<Edit>[] {
  const signals = document.features.filter(isKind('signal'));
  const isBothWays = (line: string) =>
    (['up', 'down'] as const).every((route) =>
      signals.some((signal) => signal.line === line && signal.governs === route),
    );
  const told = new Set<string>();
  return document.crossings.flatMap(({ id, kind, a, b }): Finding<Edit>[] => {
    const pair = [a.line, b.line].sort().join(' ');
    if (kind !== 'crossover' && kind !== 'scissors') return [];
    if (a.line === b.line || told.has(pair) || !isBothWays(a.line) || !isBothWays(b.line)) return [];
    told.add(pair);
    const [one, two] = [a, b].map(({ line }) => document.lines.find((own) => own.id === line)!.name);
    return [
      {
        id: `both-ways ${id}`,
        kind: 'double track without directions',
        severity: 'note',
        subject: id,
        says: `${one} and ${two} lie side by side, and both are signalled both ways. Where each is run one way only, half of these signals need not be.`,
        figures: [],
        advice:
          'Delete the signals of the direction that each is not run in, or leave it so, if both are run both ways.',
        fixes: [],
      },
    ];
  });
}
