import { bogiesMm, consistOf, partsOf } from '../detection';
import { NOTHING, sensorKind } from '../kinds';
import {
  CAUTION_SHARE,
  fastest,
  fromMm,
  layoutSpeedMmPerS,
  mmOf,
  SCAN_S,
  scaleRatio,
  type TenthUm,
  throwInside,
  throwOutside,
} from '../measure';
import { isKind, type LayoutDocument, type Sensor, signalsOf, type Train } from '../survey';

/** Nothing farther off than this, in mm, is said to be beside a spot. */
const BESIDE_MM = 2500;
/** Two spots no farther apart than this tell a direction together; our assumption. */
const PAIR_MM = 400;
/** As far before or behind a signal a spot is put; in scale feet, common practice, no source. */
const FROM_SIGNAL_FEET = [40, 50] as const;
const MM_PER_FOOT = 304.8;

/** What is worth knowing of where a spot stands. */
export interface SpotPlace {
  /** The signal that is nearest: how far off on the layout, and at full size, and between which distances a spot usually stands. */
  signal?: { name: string; off: TenthUm; fullMm: number; usual: [TenthUm, TenthUm] };
  /** The blades that are nearest on its line, and, where it stands on a leg of them, how far beyond their clearance point; below zero it stands within. */
  points?: { name: string; off: TenthUm; beyondClearance: TenthUm | undefined };
  /** In a curve: how far the ends of a vehicle swing out, and how far the middle of one swings in. */
  curve?: { radius: TenthUm; outside: { vehicle: string; mm: number }; inside: { vehicle: string; mm: number } };
  /** Another spot near it on the line: how long the fastest nose takes from one to the other, and whether inputs tell which was first. */
  pair?: { name: string; off: TenthUm; seconds: number; tells: boolean };
  /** The longest it notices nothing under a train that passes at half its top speed, and what hold rides through that. */
  gap?: { train: string; long: TenthUm; holdMs: number };
}

/** Undefined for a sensor that watches a whole section. */
export function spotPlace(document: LayoutDocument, sensor: Sensor): SpotPlace | undefined {
  const { reachMm, notices } = sensorKind(sensor.kind);
  if (reachMm === 'section' || notices === NOTHING) return undefined;
  const { line, at } = sensor.anchor;
  const off = (other: { tenthUm: TenthUm }) => Math.abs(other.tenthUm - at.tenthUm);
  const nearest = <T extends { at: { tenthUm: TenthUm } }>(all: readonly T[], most: number): T | undefined =>
    all.filter((one) => mmOf(off(one.at)) <= most).sort((a, b) => off(a.at) - off(b.at))[0];
  const ratio = scaleRatio(document.scale);
  const signal = nearest(
    signalsOf(document).filter((one) => one.line === line),
    BESIDE_MM,
  );
  const turnout = nearest(
    document.turnouts.filter((one) => one.line === line),
    BESIDE_MM,
  );
  const other = nearest(
    document.sensors
      .filter((one) => one.id !== sensor.id && one.anchor.line === line && sensorKind(one.kind).reachMm !== 'section')
      .map(({ name, anchor }) => ({ name, at: anchor.at })),
    PAIR_MM,
  );
  const top = Math.max(
    0,
    ...document.trains.map((train) => fastest(layoutSpeedMmPerS(train.topSpeedKmh, document.scale))),
  );
  const seconds = other && top > 0 ? mmOf(off(other.at)) / top : 0;
  return {
    ...(signal && {
      signal: {
        name: signal.name,
        off: off(signal.at),
        fullMm: mmOf(off(signal.at)) * ratio,
        usual: FROM_SIGNAL_FEET.map((feet) => fromMm(Math.round((feet * MM_PER_FOOT) / ratio))) as [TenthUm, TenthUm],
      },
    }),
    ...(turnout && {
      points: {
        name: turnout.name,
        off: off(turnout.at),
        beyondClearance:
          at.tenthUm > turnout.at.tenthUm === (turnout.facing === 'up')
            ? off(turnout.at) - turnout.clearance.tenthUm
            : undefined,
      },
    }),
    ...swings(document, sensor),
    ...(other && { pair: { name: other.name, off: off(other.at), seconds, tells: seconds > 2 * SCAN_S } }),
    ...longestGap(document, sensor, reachMm),
  };
}

/** The throw of the longest vehicles in the curve that it stands in. */
function swings(document: LayoutDocument, { anchor }: Sensor): Pick<SpotPlace, 'curve'> {
  const curve = document.features
    .filter(isKind('curve'))
    .filter(
      (one) => one.line === anchor.line && one.at.tenthUm <= anchor.at.tenthUm && one.to.tenthUm >= anchor.at.tenthUm,
    )
    .sort((a, b) => a.radius.tenthUm - b.radius.tenthUm)[0];
  if (!curve) return {};
  const radius = mmOf(curve.radius.tenthUm);
  const fits = document.vehicles.filter((vehicle) => bogiesMm(vehicle) < 2 * radius);
  const worst = (of: (bogies: number, length: number) => number) =>
    fits
      .map((vehicle) => ({ vehicle: vehicle.name, mm: of(bogiesMm(vehicle), mmOf(vehicle.length.tenthUm)) }))
      .reduce((a, b) => (b.mm > a.mm ? b : a), { vehicle: '', mm: 0 });
  return {
    curve: {
      radius: curve.radius.tenthUm,
      outside: worst((bogies, length) => throwOutside(radius, bogies, length)),
      inside: worst((bogies) => throwInside(radius, bogies)),
    },
  };
}

/** The longest stretch between two parts of one train that it notices, and how long that lasts at half its top speed. */
function longestGap(document: LayoutDocument, { kind }: Sensor, reachMm: number): Pick<SpotPlace, 'gap'> {
  const { notices } = sensorKind(kind);
  const gapOf = (train: Train) => {
    const parts = partsOf(consistOf(document, train), notices.id);
    return Math.max(0, ...parts.slice(1).map(({ from }, i) => from - parts[i]!.to - 2 * reachMm));
  };
  const gaps = document.trains.map((train) => {
    const mm = gapOf(train);
    const speed = layoutSpeedMmPerS(train.topSpeedKmh, document.scale) * CAUTION_SHARE;
    return { train: train.name, mm, ms: (mm / speed) * 1000 };
  });
  const worst = gaps.reduce((a, b) => (b.ms > a.ms ? b : a), { train: '', mm: 0, ms: 0 });
  return worst.ms === 0
    ? {}
    : { gap: { train: worst.train, long: fromMm(worst.mm), holdMs: Math.ceil(worst.ms / 100) * 100 } };
}
