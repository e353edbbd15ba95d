import type { InferType } from 'yup';
import { TRACK_POWER_IDS } from '../kinds';
import { SCALE_IDS } from '../measure';
import type { FeatureKind } from './feature-kinds';
import { type Lists, listSchemas } from './lists';
import type { Feature, FeatureOf } from './lists/features';
import {
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

const fieldSchemas = {
  format: choice(DOCUMENT_FORMAT),
  version: count(1, 1_000_000),
  name: text(LONGEST_NAME.layout),
  notes: freeText(4000),
  scale: choice(...SCALE_IDS),
  shownUnit: choice('cm', 'inch'),
  power: choice(...TRACK_POWER_IDS),
  /** What people call the directions of increasing (up) and decreasing (down) distance. */
  directions: record({ up: text(LONGEST_NAME.thing), down: text(LONGEST_NAME.thing) }),
  signalSide: choice('right', 'left'),
  turnoutsIn: choice('blocks', 'routes'),
  referenceLine: freeText(40),
};
const fieldsSchema = record(fieldSchemas);
export const documentSchema = record({ ...fieldSchemas, ...listSchemas });

export type LineEnd = InferType<typeof lineEndSchema>;
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
