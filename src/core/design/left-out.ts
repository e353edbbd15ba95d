import { CROSSINGS, MOTORS, type PointsKind } from '../kinds';
import { isKind, type LayoutDocument, placeThing } from '../survey';

/** What a layout has and a proof does not look at, in sentences: they stand among what the proof takes for granted. */
export function leftOut(document: LayoutDocument): string[] {
  const { crossings, features, turnouts } = document;
  const plain = crossings.flatMap(({ name, kind }) => {
    const { readAs, title } = CROSSINGS[kind] as PointsKind;
    return readAs ? [`${name}, a ${title.toLowerCase()}, is read as ${readAs}: no train changes over there.`] : [];
  });
  const byHand = turnouts.flatMap(({ name, motor }) => (MOTORS[motor].driven ? [] : [name])).join(', ');
  const joints = features.filter(isKind('liftOut'));
  const places = joints.map((joint) => placeThing(document, 'features', joint)).join(', ');
  return [
    ...plain,
    ...(byHand ? [`Nobody throws points by hand that are locked, though nothing holds them: ${byHand}.`] : []),
    ...(joints.length > 0 ? [`No lift-out is ever out: ${places}.`] : []),
  ];
}
