import { describe, expect, test } from 'vitest';
import { checkDesign, viewDesign } from '@/core/design';
import { straighten } from '@/core/track';
import { learningOval } from '@/demo/learning-oval';
import { SheetGeometry } from '@/ui/sheet/sheet-geometry';
import { freePart, stepAside, trainExtents } from '@/ui/sheet/step-aside';

const document = learningOval();
const geometry = new SheetGeometry(straighten(document), { scale: 1 / 100_000, from: 0 }, 100, 54, 900);
const block = viewDesign(document, checkDesign(document)).blocks.find(({ name }) => name === 'B1')!;
/** B1 lies from 60 to 180 cm: 120 pixels. */
const [left, right] = [geometry.at('oval', 60 * 1e5).x, geometry.at('oval', 180 * 1e5).x];
const { y } = geometry.at('oval', 120 * 1e5);
const plate = { x: (left + right) / 2, y, width: 30 };
const train = (from: number, to: number) =>
  trainExtents(geometry, { spans: [{ line: 'oval', from: to * 10, to: from * 10 }] });

describe('a name steps aside for a train', () => {
  test('with no train near it stays where it is', () => {
    expect(stepAside(geometry, plate, block, train(300, 340))).toMatchObject({ from: plate.x - 15, to: plate.x + 15 });
  });
  test('a train at the right end sends it to the left, inside its block', () => {
    const at = stepAside(geometry, plate, block, train(100, 178));
    expect(at.from).toBeGreaterThanOrEqual(left);
    expect(at.to).toBeLessThanOrEqual(geometry.at('oval', 100 * 1e5).x);
  });
  test('a train over all of it leaves it where least is covered, and the train’s name the widest part beside it', () => {
    const all = train(55, 185);
    const at = stepAside(geometry, plate, block, all);
    expect(at.from).toBeGreaterThanOrEqual(left);
    const free = freePart(all[0]!, [at]);
    expect(free.to - free.from).toBeGreaterThan(49);
  });
  test('what meets on one row is one, whatever lines and pieces it is made of', () => {
    const spans = [
      { line: 'oval', from: 1500, to: 1200 },
      { line: 'oval', from: 1200, to: 900 },
    ];
    expect(trainExtents(geometry, { spans })).toHaveLength(1);
  });
});
