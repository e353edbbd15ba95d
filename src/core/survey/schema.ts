import { array, boolean, type InferType, type ISchema, lazy, mixed, number, object, type Schema, string } from 'yup';
import { SCALE_IDS } from '../measure';

/** The document version this program writes. Older versions are migrated, newer ones are refused. */
export const DOCUMENT_VERSION = 2;
export const DOCUMENT_FORMAT = 'roblik layout';

const LONGEST_TENTH_UM = 1e11;

/** How many characters a name may have, by what it names. */
export const LONGEST_NAME = { thing: 20, track: 60, train: 60, layout: 80 } as const;

const text = (most: number) =>
  string()
    .typeError('must be text')
    .max(most, `must be at most ${most} characters`)
    .required('is missing or empty; write it');
const freeText = (most: number) =>
  string()
    .meta({ mayBeEmpty: true })
    .typeError('must be text')
    .max(most, `must be at most ${most} characters`)
    .defined('is missing; write "" for none');
const id = () =>
  string()
    .typeError('must be a short id')
    .matches(/^[A-Za-z][A-Za-z0-9_-]{0,39}$/, 'must be a short id: a letter, then letters, digits, - or _')
    .required('is missing; every thing needs an id');
const count = (least: number, most: number) =>
  number()
    .typeError('must be a number')
    .integer('must be a whole number')
    .min(least, `must be at least ${least}`)
    .max(most, `must be at most ${most}`)
    .required('is missing');
const amount = (least: number, most: number) =>
  number()
    .typeError('must be a number')
    .min(least, `must be at least ${least}`)
    .max(most, `must be at most ${most}`)
    .required('is missing');
const choice = <T extends string>(...values: T[]) =>
  mixed<T>()
    .oneOf(values, `must be one of: ${values.join(', ')}`)
    .required(`is missing; choose one of: ${values.join(', ')}`);
const list = <T>(of: ISchema<T>, most: number) =>
  array()
    .of(of)
    .max(most, `holds more than ${most} entries`)
    .typeError('must be a list')
    .required('is missing; write [] for none');
const record = <S extends Parameters<typeof object>[0] & object>(shape: S) =>
  object(shape)
    // biome-ignore lint/suspicious/noTemplateCurlyInString: Yup fills this in itself
    .noUnknown('has a field I do not know: ${unknown}')
    .typeError('must be a set of named fields')
    .required('is missing');

export const lengthSchema = record({ tenthUm: count(0, LONGEST_TENTH_UM), typed: freeText(60) });
export const lineEndSchema = record({ line: id(), end: choice('start', 'end') });
export const placeSchema = record({ line: id(), at: lengthSchema });

const lineSchema = record({
  id: id(),
  name: text(LONGEST_NAME.track),
  length: lengthSchema,
  /** Hints for the straightened drawing; the drawing itself is always computed. */
  drawing: object({ row: number().integer('must be a whole number').min(-40).max(40) })
    .noUnknown()
    .optional()
    .default(undefined),
});

const joinSchema = record({ id: id(), a: lineEndSchema, b: lineEndSchema });

const certainty = () => choice('tentative', 'fixed');

const turnoutSchema = record({
  id: id(),
  name: text(LONGEST_NAME.thing),
  line: id(),
  /** The blade tips. */
  at: lengthSchema,
  /** The legs spread towards increasing distance (up) or decreasing distance (down). */
  facing: choice('up', 'down'),
  hand: choice('left', 'right'),
  /** The end of the line that is the diverging leg; that line's own end is at the blade tips. */
  diverging: lineEndSchema,
  /** Only where the turnout ends its line: the line that goes on as the straight leg. */
  straight: lineEndSchema.optional().default(undefined),
  /** From the blade tips to the clearance (fouling) point, along either leg. */
  clearance: lengthSchema,
  motor: choice('hand', 'snap', 'slow'),
  throwMs: count(0, 60_000),
  spareContacts: count(0, 8),
  lies: choice('straight', 'diverging'),
  throwsWith: id().optional().default(undefined),
  certainty: certainty(),
});

const crossingSchema = record({
  id: id(),
  name: text(LONGEST_NAME.thing),
  kind: choice('diamond', 'single slip', 'double slip', 'crossover', 'scissors'),
  a: placeSchema,
  b: placeSchema,
  angleDegrees: amount(1, 90),
  clearance: lengthSchema,
  certainty: certainty(),
});

const spotBase = { id: id(), line: id(), at: lengthSchema, certainty: certainty() };
const spanBase = { ...spotBase, to: lengthSchema };

/** Everything that sits at a distance on a line, by kind. */
export const featureSchemas = {
  gap: record({ ...spotBase, kind: choice('gap'), rail: choice('left', 'right', 'both') }),
  mark: record({ ...spotBase, kind: choice('mark') }),
  signal: record({
    ...spotBase,
    kind: choice('signal'),
    name: text(LONGEST_NAME.thing),
    governs: choice('up', 'down'),
    system: choice('three-aspect'),
  }),
  spot: record({
    ...spotBase,
    kind: choice('spot'),
    name: text(LONGEST_NAME.thing),
    sees: choice('optical', 'reed', 'hall', 'treadle', 'contact rail'),
  }),
  feeder: record({ ...spotBase, kind: choice('feeder'), name: text(LONGEST_NAME.thing) }),
  stopMark: record({ ...spotBase, kind: choice('stopMark'), facing: choice('up', 'down') }),
  buffer: record({ ...spotBase, kind: choice('buffer') }),
  edge: record({ ...spotBase, kind: choice('edge') }),
  liftOut: record({ ...spotBase, kind: choice('liftOut') }),
  limit: record({ ...spotBase, kind: choice('limit'), name: text(60) }),
  landmark: record({ ...spotBase, kind: choice('landmark'), name: text(60) }),
  levelCrossing: record({ ...spanBase, kind: choice('levelCrossing'), name: text(60) }),
  platform: record({ ...spanBase, kind: choice('platform'), name: text(60) }),
  hidden: record({ ...spanBase, kind: choice('hidden') }),
  curve: record({ ...spanBase, kind: choice('curve'), radius: lengthSchema, hand: choice('left', 'right') }),
  gradient: record({ ...spanBase, kind: choice('gradient'), percent: amount(-15, 15) }),
} as const;

export type FeatureKind = keyof typeof featureSchemas;
export const FEATURE_KINDS = Object.keys(featureSchemas) as FeatureKind[];

const unknownFeature = record({ kind: choice(...FEATURE_KINDS) });
const featureSchema = lazy((value: unknown) => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  return typeof kind === 'string' && Object.hasOwn(featureSchemas, kind)
    ? (featureSchemas[kind as FeatureKind] as Schema)
    : unknownFeature;
});

const blockSchema = record({ id: id(), name: text(LONGEST_NAME.thing), anchor: placeSchema });

const detectorSchema = record({
  id: id(),
  name: text(LONGEST_NAME.thing),
  kind: choice('current'),
  anchor: placeSchema,
  /** How long “occupied” is kept after the last axle was seen, to hide drop-outs. */
  holdMs: count(0, 60_000),
  input: freeText(40),
});

const areaSchema = record({
  id: id(),
  name: text(LONGEST_NAME.track),
  line: id(),
  from: lengthSchema,
  to: lengthSchema,
  purpose: freeText(400),
});

const axleSchema = record({
  at: lengthSchema,
  detectable: boolean().typeError('must be true or false').required('is missing'),
});
const vehicleSchema = record({
  id: id(),
  name: text(LONGEST_NAME.train),
  length: lengthSchema,
  axles: list(axleSchema, 24),
  grams: amount(0, 20_000),
  magnetAt: lengthSchema.optional().default(undefined),
});

const trainSchema = record({
  id: id(),
  name: text(LONGEST_NAME.train),
  vehicles: list(id(), 200),
  topSpeedKmh: amount(1, 1000),
  /** Rates over the layout. */
  accelerationMmPerS2: amount(1, 5000),
  brakingMmPerS2: amount(1, 5000),
  startDelayMs: count(0, 60_000),
  brakingIs: choice('measured', 'assumed'),
  /** Where its nose stands when a rehearsal begins, and which way it faces. */
  start: record({ line: id(), at: lengthSchema, facing: choice('up', 'down') })
    .optional()
    .default(undefined),
});

export const documentSchema = record({
  format: choice(DOCUMENT_FORMAT),
  version: count(1, 1_000_000),
  name: text(LONGEST_NAME.layout),
  notes: freeText(4000),
  scale: choice(...SCALE_IDS),
  shownUnit: choice('cm', 'inch'),
  power: choice('two-rail DC', 'two-rail digital', 'centre rail', 'battery'),
  /** What people call the directions of increasing (up) and decreasing (down) distance. */
  directions: record({ up: text(LONGEST_NAME.thing), down: text(LONGEST_NAME.thing) }),
  signalSide: choice('right', 'left'),
  turnoutsIn: choice('blocks', 'routes'),
  referenceLine: freeText(40),
  lines: list(lineSchema, 2000),
  joins: list(joinSchema, 4000),
  turnouts: list(turnoutSchema, 4000),
  crossings: list(crossingSchema, 1000),
  features: list(featureSchema as unknown as Schema, 20_000),
  blocks: list(blockSchema, 5000),
  detectors: list(detectorSchema, 5000),
  areas: list(areaSchema, 500),
  vehicles: list(vehicleSchema, 2000),
  trains: list(trainSchema, 200),
});

export type LineEnd = InferType<typeof lineEndSchema>;
export type Place = InferType<typeof placeSchema>;
export type Line = InferType<typeof lineSchema>;
export type Join = InferType<typeof joinSchema>;
export type Turnout = InferType<typeof turnoutSchema>;
export type Crossing = InferType<typeof crossingSchema>;
export type FeatureOf<K extends FeatureKind> = InferType<(typeof featureSchemas)[K]>;
export type Feature = { [K in FeatureKind]: FeatureOf<K> }[FeatureKind];
export type Gap = FeatureOf<'gap'>;
export type Mark = FeatureOf<'mark'>;
export type Signal = FeatureOf<'signal'>;
export type BlockName = InferType<typeof blockSchema>;
export type Detector = InferType<typeof detectorSchema>;
export type Vehicle = InferType<typeof vehicleSchema>;
export type Train = InferType<typeof trainSchema>;
export type LayoutDocument = Omit<InferType<typeof documentSchema>, 'features'> & { features: Feature[] };

/** Towards increasing (up) or decreasing (down) distance of a line. Core never says left or right of the track. */
export type Facing = 'up' | 'down';
export type TurnoutPosition = 'straight' | 'diverging';

export function isKind<K extends FeatureKind>(kind: K) {
  return (feature: Feature): feature is Extract<Feature, { kind: K }> => feature.kind === kind;
}
export const signalsOf = (document: LayoutDocument): Signal[] => document.features.filter(isKind('signal'));
