import { type InferType, lazy, type Schema } from 'yup';
import { ASPECT_SYSTEM_IDS } from '../../kinds';
import { showLength } from '../../measure';
import { FEATURE_KINDS, FEATURES, type FeatureKind } from '../feature-kinds';
import { choice, LONGEST_NAME, record } from '../schema-parts';
import type { ListKind } from './kind';

const unknownFeature = record({ kind: choice(...FEATURE_KINDS) });
export const featureSchema = lazy((value: unknown) => {
  const kind = (value as { kind?: unknown } | null)?.kind;
  return typeof kind === 'string' && Object.hasOwn(FEATURES, kind)
    ? (FEATURES[kind as FeatureKind].schema as Schema)
    : unknownFeature;
}) as unknown as Schema;

export type FeatureOf<K extends FeatureKind> = InferType<(typeof FEATURES)[K]['schema']>;
export type Feature = { [K in FeatureKind]: FeatureOf<K> }[FeatureKind];

export const features: ListKind<Feature> = {
  title: 'Thing on a line',
  titleOf: ({ kind }) => FEATURES[kind].title,
  prefix: 'x',
  most: 20_000,
  schema: featureSchema,
  chosen: true,
  refers: [
    { at: 'line', to: 'lines', whenGone: 'goes too', distances: ['at', 'to'] },
    { at: 'far.line', to: 'lines', whenGone: 'goes too', distances: ['far.at'] },
    { at: 'booster', to: 'boosters', whenGone: { without: 'booster' } },
    { at: 'system', to: 'aspectSystems', besides: ASPECT_SYSTEM_IDS, whenGone: { keeps: 'is the system of' } },
  ],
  longestName: LONGEST_NAME.thing,
  faults(feature, tell, { document, lineName, claim }) {
    if ('to' in feature && feature.to.tenthUm <= feature.at.tenthUm)
      tell('to', 'It ends before it begins.', 'Swap the two distances.');
    if (feature.kind !== 'gap' && feature.kind !== 'mark') return;
    const first = claim(`cut ${feature.line} ${feature.at.tenthUm}`);
    if (!first) return;
    const where = `${showLength(feature.at.tenthUm, document.shownUnit)} on line “${lineName(feature.line)}”`;
    tell(
      '',
      `There is already a gap or block mark at ${where}.`,
      `Delete one of the two, or move it; the first is ${first}.`,
    );
  },
};
