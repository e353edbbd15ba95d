import { LIST_NAMES, LISTS } from './lists';
import { readSensorInput } from './sensor-input';

type Fields = Record<string, unknown>;

const asTurnout = (turnout: unknown) =>
  typeof turnout === 'object' && turnout !== null ? { ...turnout, kind: 'turnout' } : turnout;

/** What each older version needs to become the next one. A step takes whatever it finds: the schema judges the outcome. */
const STEPS: Record<number, (old: Fields) => Fields> = {
  /** Version 2 names the two directions of the line. */
  1: (old) => ({ ...old, directions: { ...DIRECTIONS } }),
  /** Version 3 says of every turnout of which kind it is, and has one list for everything that notices trains: what watches a section, and what watches a place. */
  2: ({ detectors, features, turnouts, ...rest }) => {
    const old = { ...rest, turnouts: Array.isArray(turnouts) ? turnouts.map(asTurnout) : turnouts };
    if (!Array.isArray(detectors) || !Array.isArray(features)) return { ...old, features, sensors: detectors };
    const isSpot = (feature: Fields | null) => feature?.kind === 'spot';
    return {
      ...old,
      features: features.filter((feature) => !isSpot(feature)),
      sensors: [
        ...detectors.map((detector) => ({ ...detector, certainty: 'tentative' })),
        ...features.filter(isSpot).map(({ line, at, sees, ...spot }) => ({
          ...spot,
          kind: sees,
          anchor: { line, at },
          holdMs: SPOT_HOLD_MS,
          input: '',
        })),
      ],
    };
  },
  /** Version 3 knew of axles only whether they draw current, of vehicles no kind, and of a train that its braking was measured. */
  3: (old) => {
    const { vehicles, trains } = old;
    if (!Array.isArray(vehicles) || !Array.isArray(trains)) return old;
    const leading = new Set(trains.map((train) => train?.vehicles?.[0]));
    return {
      ...old,
      vehicles: vehicles.map((one) => asVehicle(one, leading.has(one?.id))),
      trains: trains.map(asTrain),
    };
  },
  /** Version 6 had the legs of a turnout by names of their own, inputs as text, boosters by name, and one time of a pattern as a field of signals. */
  6: (old) => {
    const { turnouts, sensors, features } = old;
    if (![turnouts, sensors, features].every(Array.isArray)) return old;
    const names = (features as Fields[]).flatMap((one) => (typeof one?.booster === 'string' ? [one.booster] : []));
    const boosters = [...new Set(names)].map((name, i) => ({ id: `bo${i + 1}`, name }));
    const idOf = new Map(boosters.map(({ id, name }) => [name, id]));
    return {
      ...old,
      boosters,
      turnouts: (turnouts as Fields[]).map(withLegs),
      sensors: (sensors as Fields[]).map((one) =>
        typeof one?.input === 'string' ? { ...one, input: readSensorInput(one.input) } : one,
      ),
      features: (features as Fields[]).map((one) =>
        withSteps(typeof one?.booster === 'string' ? { ...one, booster: idOf.get(one.booster) } : one),
      ),
    };
  },
};

function withSteps(feature: Fields): Fields {
  if (typeof feature?.stepMs !== 'number') return feature;
  const { stepMs, ...rest } = feature;
  return { ...rest, settings: [{ pattern: 'timed caution', option: 'stepMs', value: stepMs }] };
}

function withLegs(turnout: Fields): Fields {
  if (typeof turnout !== 'object' || turnout === null || !('diverging' in turnout)) return turnout;
  const { diverging, second, lies, secondLies, ...rest } = turnout;
  const two = second !== undefined && second !== null;
  return {
    ...rest,
    legs: two ? [diverging, second] : [diverging],
    lies: two ? [lies, secondLies ?? 'straight'] : [lies],
  };
}

/** Engines lead, by what version 3 knew; whatever else draws current is taken for fitted with resistors. */
function asVehicle(vehicle: Fields, leads: boolean): unknown {
  if (!Array.isArray(vehicle?.axles)) return vehicle;
  const kind = leads ? 'engine' : vehicle.axles.length > 2 ? 'coach' : 'wagon';
  const axles = vehicle.axles.map((axle) => {
    if (typeof axle?.detectable !== 'boolean') return axle;
    const { detectable, ...rest } = axle;
    return { ...rest, feeds: detectable ? (leads ? 'motor' : 'resistor') : 'nothing' };
  });
  return { ...vehicle, kind, axles };
}

function asTrain(train: Fields): unknown {
  if (typeof train !== 'object' || train === null || !('brakingIs' in train)) return train;
  const { brakingIs, ...rest } = train;
  return brakingIs === 'measured' || brakingIs === 'assumed'
    ? { ...rest, measured: brakingIs === 'measured' ? ['braking'] : [] }
    : train;
}

/** Version 2 knew no hold time of a spot. */
const SPOT_HOLD_MS = 2000;

/** The names that directions have until somebody gives them others; common practice, no source. */
export const DIRECTIONS = { up: 'eastbound', down: 'westbound' };

/** The document version this program writes. Older versions are migrated, newer ones are refused. */
export const DOCUMENT_VERSION = Math.max(
  ...Object.keys(STEPS).map((version) => Number(version) + 1),
  ...LIST_NAMES.map((list) => LISTS[list].since ?? 1),
);

/** Brings an older document up to the present version, one step after the other, with the lists that it could not have, empty. */
export function migrateDocument(value: Fields): Fields {
  let document = value;
  while (Number.isInteger(document.version) && (document.version as number) >= 1) {
    const version = document.version as number;
    if (version >= DOCUMENT_VERSION) break;
    const brought = LIST_NAMES.filter((list) => LISTS[list].since === version + 1).map((list) => [list, []]);
    document = { ...Object.fromEntries(brought), ...(STEPS[version]?.(document) ?? document), version: version + 1 };
  }
  return document;
}
