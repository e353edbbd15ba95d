import { boolean, type InferType, object, string } from 'yup';
import { TRACK_POWER_IDS } from '../kinds';
import { isScale, OWN_LIMITS, OWN_SCALE, SCALE_IDS, type ScaleId } from '../measure';
import type { FeatureKind } from './feature-kinds';
import { type Lists, listSchemas } from './lists';
import type { Feature, FeatureOf } from './lists/features';
import {
  amount,
  choice,
  count,
  freeText,
  LONGEST_NAME,
  type lineEndSchema,
  type placeSchema,
  record,
  text,
} from './schema-parts';

export const DOCUMENT_FORMAT = 'roblik layout';

const SCALE_FAULT = `must be one of ${SCALE_IDS.join(', ')}, or your own as 1:38 on 37.5 (ratio ${OWN_LIMITS.ratio.join(' to ')}, rails ${OWN_LIMITS.gaugeMm.join(' to ')} mm apart)`;
/** One of the list, or one's own by its ratio and the distance between its rails. */
const scale = () =>
  string<ScaleId>()
    .typeError(SCALE_FAULT)
    .matches(new RegExp(`^(?:${SCALE_IDS.join('|')})$|${OWN_SCALE.source}`), SCALE_FAULT)
    .test('limits', SCALE_FAULT, isScale)
    .required('is missing; write for example H0');

/** What a price list has: for each one, and what there is to spend in a month. */
export const PRICED = ['head', 'detector', 'spot', 'module', 'motor', 'metre', 'axle', 'month'] as const;
export type Priced = (typeof PRICED)[number];
/** Letters or signs of money. */
const MONEY = 8;

const fieldSchemas = {
  format: choice(DOCUMENT_FORMAT),
  version: count(1, 1_000_000),
  name: text(LONGEST_NAME.layout),
  notes: freeText(4000),
  scale: scale(),
  shownUnit: choice('cm', 'inch'),
  power: choice(...TRACK_POWER_IDS),
  /** Boosters do not share their return, so that gaps between their districts cut both rails. */
  ownReturns: boolean().typeError('must be true or false').optional().default(undefined),
  /** The modules that sensors are wired to: how many inputs each has, and how many of these are kept free at first. */
  modules: object({ inputs: count(1, 64), spare: count(0, 63) })
    .noUnknown()
    .optional()
    .default(undefined),
  /** How detection drops out under a train: for how long on average, how often in one passing, and in how many passings it may show once. */
  dropouts: object({ meanMs: count(1, 10_000), perPassing: count(1, 1000), inPassings: count(2, 1_000_000) })
    .noUnknown()
    .optional()
    .default(undefined),
  /** What detectors in feeders reckon with: track voltage, a resistor axle, and what leaks between the rails of one metre of track. */
  electrics: object({ volts: amount(1, 60), axleOhms: count(100, 1_000_000), leakOhms: count(100, 100_000_000) })
    .noUnknown()
    .optional()
    .default(undefined),
  /** How many people run it at once, usually. */
  people: count(1, 50).optional().default(undefined),
  /** What things cost, in whatever money, and how much of it there is in a month. */
  prices: object(
    Object.fromEntries(PRICED.map((what) => [what, amount(0, 100_000)])) as Record<Priced, ReturnType<typeof amount>>,
  )
    .noUnknown()
    .optional()
    .default(undefined),
  /** What they are paid in, as it is written: € or kr. */
  money: text(MONEY).optional().default(undefined),
  /** What people call the directions of increasing (up) and decreasing (down) distance. */
  directions: record({ up: text(LONGEST_NAME.thing), down: text(LONGEST_NAME.thing) }),
  signalSide: choice('right', 'left'),
  turnoutsIn: choice('blocks', 'routes'),
  referenceLine: freeText(40),
};
const fieldsSchema = record(fieldSchemas);
export const documentSchema = record({ ...fieldSchemas, ...listSchemas });

export type LineEnd = InferType<typeof lineEndSchema>;
/** What sensors are wired to; common practice, no source: 16 inputs on a module. */
export const USUAL_MODULES = { inputs: 16, spare: 2 };
export type Modules = typeof USUAL_MODULES;
/** What is taken for granted of drop-outs until somebody has watched them; common practice, no source. */
export const USUAL_DROPOUTS = { meanMs: 150, perPassing: 20, inPassings: 1000 };
export type Dropouts = typeof USUAL_DROPOUTS;
/** What is taken for granted of currents until somebody has measured: 14 V and 10 kΩ are common practice, no source; the leakage is our assumption. */
export const USUAL_ELECTRICS = { volts: 14, axleOhms: 10_000, leakOhms: 200_000 };
export type Electrics = typeof USUAL_ELECTRICS;
export type Prices = Record<Priced, number>;
/** What is taken for granted of prices until somebody has looked them up; our assumption, in no money of anybody. */
export const USUAL_PRICES: Prices = {
  head: 12,
  detector: 8,
  spot: 5,
  module: 40,
  motor: 15,
  metre: 0.4,
  axle: 0.5,
  month: 60,
};
export type Place = InferType<typeof placeSchema>;
export type LayoutDocument = InferType<typeof fieldsSchema> & Lists;
export type Gap = FeatureOf<'gap'>;
export type Mark = FeatureOf<'mark'>;
export type Signal = FeatureOf<'signal'>;

/** Towards increasing (up) or decreasing (down) distance of a line. Core never says left or right of the track. */
export type Facing = 'up' | 'down';
export type TurnoutPosition = 'straight' | 'diverging';

export function isKind<K extends FeatureKind>(kind: K) {
  return (feature: Feature): feature is Extract<Feature, { kind: K }> => feature.kind === kind;
}
export const signalsOf = (document: Pick<LayoutDocument, 'features'>): Signal[] =>
  document.features.filter(isKind('signal'));
