import { type LayoutDocument, saySensorInput } from '@/core/survey';

/** A document as version 2 had it: what watches sections in a list of its own, spots among the features. */
export function asVersion2(
  { sensors, turnouts, boosters: _, ...rest }: LayoutDocument,
  ...spots: object[]
): Record<string, unknown> {
  return structuredClone({
    ...rest,
    version: 2,
    turnouts: turnouts.map(({ kind: _, legs: [diverging], lies: [lies], ...turnout }) => ({
      ...turnout,
      diverging,
      lies,
    })),
    detectors: sensors.map(({ certainty: _, input, ...detector }) => ({ ...detector, input: saySensorInput(input) })),
    features: [...rest.features, ...spots],
  });
}

/** A document as version 1 had it: without names of the directions. */
export function asVersion1(document: LayoutDocument): Record<string, unknown> {
  const { directions: _, ...rest } = asVersion2(document);
  return { ...rest, version: 1 };
}
