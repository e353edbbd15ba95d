import type { Finding } from '../findings';
import { NOTHING, sensorKind } from '../kinds';
import { fastest, fromMm, layoutSpeedMmPerS, mmOf, scaleRatio, showLength, type TenthUm } from '../measure';
import type { Scheme } from '../patterns';
import { type Edit, isKind, type LayoutDocument, type Signal } from '../survey';

/** How long a driver wants to see a signal before he passes it; our assumption. */
const SEEN_FOR_S = 3;
/** Nothing stands nearer than this to the middle of the track on the inside of a curve; our assumption. */
const CLEAR_INSIDE_MM = 60;
/** Nothing farther off is said to be beside a signal, in mm. */
const BESIDE_MM = 2500;
/** The overlap beyond a signal that British prototype practice names, at full size: 180 m. A model may do without. */
const OVERLAP_M = 180;

/** What is worth knowing of where a signal stands. */
export interface SignalPlace {
  /** The blades on its line that come next in the direction in which it is read, and how far on. */
  points?: { name: string; off: TenthUm };
  /** The spots on its line that are nearest before and beyond it. */
  before?: { name: string; off: TenthUm };
  beyond?: { name: string; off: TenthUm };
  /** The stop mark that belongs to it, and how far before it that lies. */
  stopMark?: TenthUm;
  /** In a curve: from how far a driver sees it past what may stand inside, and from how far the fastest train wants to. */
  curve?: { radius: TenthUm; hand: 'left' | 'right'; sees: TenthUm; needs: TenthUm; train: string };
  /** It stands where nobody sees it. */
  hidden: boolean;
  /** Another signal at the same place, read the other way or on the track beside it: their posts are matched in height. */
  twin?: string;
  /** What the prototype keeps clear beyond a signal, on the layout. */
  overlap: TenthUm;
}

export function signalPlace(document: LayoutDocument, signal: Signal): SignalPlace {
  const { line, at, governs, id } = signal;
  const sign = governs === 'up' ? 1 : -1;
  /** How far on in the direction in which it is read; below zero before it. */
  const on = (other: { tenthUm: TenthUm }) => (other.tenthUm - at.tenthUm) * sign;
  const nearest = <T extends { at: { tenthUm: TenthUm }; name: string }>(
    all: readonly T[],
    which: (off: TenthUm) => boolean,
  ) =>
    all
      .map((one) => ({ name: one.name, off: on(one.at) }))
      .filter(({ off }) => which(off) && mmOf(Math.abs(off)) <= BESIDE_MM)
      .map(({ name, off }) => ({ name, off: Math.abs(off) }))
      .sort((a, b) => a.off - b.off)[0];
  const spots = document.sensors
    .filter(({ kind, anchor }) => {
      const { reachMm, notices } = sensorKind(kind);
      return anchor.line === line && reachMm !== 'section' && notices !== NOTHING;
    })
    .map(({ name, anchor }) => ({ name, at: anchor.at }));
  const own = document.features.filter((feature) => feature.line === line);
  const marks = own.filter(isKind('stopMark')).filter(({ facing }) => facing === governs);
  const mark = marks
    .map((one) => -on(one.at))
    .filter((off) => off >= 0 && mmOf(off) <= BESIDE_MM)
    .sort((a, b) => a - b)[0];
  const within = ({ at: from, to }: { at: { tenthUm: TenthUm }; to: { tenthUm: TenthUm } }) =>
    from.tenthUm <= at.tenthUm && at.tenthUm <= to.tenthUm;
  const twin = own.filter(isKind('signal')).find((other) => other.id !== id && other.at.tenthUm === at.tenthUm)?.name;
  const curve = sightIn(document, own.filter(isKind('curve')).filter(within));
  const points = nearest(
    document.turnouts.filter((one) => one.line === line),
    (off) => off > 0,
  );
  const before = nearest(spots, (off) => off <= 0);
  const beyond = nearest(spots, (off) => off > 0);
  return {
    ...(points && { points }),
    ...(before && { before }),
    ...(beyond && { beyond }),
    ...(mark !== undefined && { stopMark: mark }),
    ...(curve && { curve }),
    ...(twin && { twin }),
    hidden: own.filter(isKind('hidden')).some(within),
    overlap: fromMm(Math.round((OVERLAP_M * 1000) / scaleRatio(document.scale))),
  };
}

/**
 * How far one sees along a curve past what stands inside it: the chord whose middle lies so far from the rails as that may stand,
 * c = 2 √(2 R m − m²). The arc is longer by little.
 */
export const sightMm = (radiusMm: number, clearMm: number): number =>
  clearMm >= radiusMm ? 2 * radiusMm : 2 * Math.sqrt(2 * radiusMm * clearMm - clearMm * clearMm);

function sightIn(
  { trains, scale }: LayoutDocument,
  curves: { radius: { tenthUm: TenthUm }; hand: 'left' | 'right' }[],
): SignalPlace['curve'] {
  const [tightest] = [...curves].sort((a, b) => a.radius.tenthUm - b.radius.tenthUm);
  const quickest = trains.reduce((a, b) => (b.topSpeedKmh > a.topSpeedKmh ? b : a), trains[0]!);
  if (!tightest || !quickest) return undefined;
  const sees = sightMm(mmOf(tightest.radius.tenthUm), CLEAR_INSIDE_MM);
  const needs = fastest(layoutSpeedMmPerS(quickest.topSpeedKmh, scale)) * SEEN_FOR_S;
  return {
    radius: tightest.radius.tenthUm,
    hand: tightest.hand,
    sees: fromMm(Math.round(sees)),
    needs: fromMm(Math.round(needs)),
    train: quickest.name,
  };
}

/** Heads that a curve hides for too long, and heads that stand where nobody can see them. */
export function placeFindings({ document, readings }: Scheme): Finding<Edit>[] {
  const shown = (length: TenthUm) => showLength(length, document.shownUnit);
  /** Few stretches are curved or hidden: each signal is held against these alone. */
  const [curves, tunnels] = [document.features.filter(isKind('curve')), document.features.filter(isKind('hidden'))];
  const placed = readings.map(({ signal }) => {
    const here = ({ line, at, to }: { line: string; at: { tenthUm: TenthUm }; to: { tenthUm: TenthUm } }) =>
      line === signal.line && at.tenthUm <= signal.at.tenthUm && signal.at.tenthUm <= to.tenthUm;
    return { signal, place: { curve: sightIn(document, curves.filter(here)), hidden: tunnels.some(here) } };
  });
  const found = placed.flatMap(({ signal: { id, name }, place: { curve } }): Finding<Edit>[] => {
    if (!curve || curve.sees >= curve.needs) return [];
    return [
      {
        id: `curve-hides ${id}`,
        kind: 'head that a curve hides',
        severity: 'note',
        subject: id,
        says: `${name} stands in a curve of ${shown(curve.radius)}: past what may stand inside it, it is seen from ${shown(curve.sees)} only; ${curve.train} runs ${shown(curve.needs)} in three seconds.`,
        figures: [
          { name: 'seen from', value: shown(curve.sees) },
          { name: 'wanted', value: shown(curve.needs) },
        ],
        advice: `Keep the inside of the curve clear, or move the head out on a bracket to the ${curve.hand === 'left' ? 'right' : 'left'}, the outside of the curve.`,
        fixes: [],
      },
    ];
  });
  const hidden = placed.filter(({ place }) => place.hidden).map(({ signal }) => signal);
  const [first] = hidden;
  if (!first) return found;
  const names = hidden.map(({ name }) => name);
  return [
    ...found,
    {
      id: 'unseen-heads',
      kind: 'head where nobody sees it',
      severity: 'note',
      subject: first.id,
      says: `${names.length > 5 ? `${names.slice(0, 4).join(', ')} and ${names.length - 4} more` : names.join(', ')} ${names.length === 1 ? 'stands' : 'stand'} where nobody can see a head.`,
      figures: [],
      advice:
        'Show it on a panel too, or let it work the power of the section before it: a driver cannot obey what he does not see.',
      fixes: [],
    },
  ];
}
