import { describe, expect, test } from 'vitest';
import { cm } from '@/core/measure';
import { Explorer, ProofModel, SWITCH_IDS } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { type LayoutDocument, newDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { gap, train, vehicle } from '@/demo/build';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { generatedLine, generatedTraffic } from '@/demo/generated';
import { learningOval, ring, withTrains } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { spinHazards, spinReads } from '../../tools/spin';

const modelOf = (d: LayoutDocument) => new ProofModel(compileSystem(d), new Set());

/** A line with many gaps, no signals and no detectors: a train that is let run comes to its far end and off it. */
function longLine(blocks: number): LayoutDocument {
  const d = newDocument('Long line');
  d.lines = [{ id: 'a', name: 'A', length: cm(blocks * 80), drawing: undefined }];
  d.referenceLine = 'a';
  for (let i = 1; i < blocks; i++) d.features.push(gap(`g${i}`, 'a', i * 80));
  const rates = { up: 100, down: 150, delayMs: 300, is: 'assumed' } as const;
  d.vehicles = [vehicle('v-engine', 'Engine', 20, [4, 16], () => true, 400)];
  d.trains = [train('tr', 'Goods', ['v-engine'], 40, { line: 'a', at: 60, facing: 'up' }, rates)];
  return d;
}

describe('the model for another checker', () => {
  test('Spin reads the one of the demo, which is no longer than a megabyte', () => {
    const text = writePromela(new ProofModel(compileSystem(ondrelValley())));
    expect(text.length).toBeLessThan(1_000_000);
    spinReads(text);
  });
  test.each(EXAMPLES.map(({ id }) => id))('Spin reads the one of “%s”', (id) => {
    spinReads(writePromela(new ProofModel(compileSystem(exampleLayout(EXAMPLES.find((one) => one.id === id)!)))));
  });
  test.each([
    ['forty blocks and ten trains', withTrains(ring('Ring', 40, 120), 10, 120)],
    ['a hundred blocks', generatedLine(100)],
    ['twelve trains on many lines', generatedTraffic(12)],
  ])('Spin reads the one of a generated layout with everything tried: %s', (_, d) => {
    spinReads(writePromela(new ProofModel(compileSystem(d), new Set(SWITCH_IDS))));
  });
  test('what is so from the start is so for Spin, too: two trains that stand end to end at a gap', () => {
    for (const nose of [180, 179.9]) {
      const d = learningOval();
      const starts = [226, nose].map((place) => ({ line: 'oval', at: cm(place), facing: 'up' as const }));
      d.trains = d.trains.map((one, i) => ({ ...one, start: starts[i]! }));
      const [look] = spinHazards(writePromela(new ProofModel(compileSystem(d))), [['trains touch']]);
      expect([nose, look!.errors > 0]).toEqual([nose, nose === 180]);
    }
  });
  test('its text grows with the layout, not with the square of it', () => {
    const lengthOf = (blocks: number) => writePromela(modelOf(withTrains(ring('Ring', blocks, 120), 4, 120))).length;
    const [small, middle, large] = [lengthOf(20), lengthOf(40), lengthOf(80)];
    expect(large - middle).toBeLessThan(2.3 * (middle - small));
  });
  test('a train with more places than a byte counts gets to the last of them', () => {
    const d = longLine(150);
    const model = modelOf(d);
    expect(model.trains[0]!.placements.length).toBeGreaterThan(256);
    const explorer = new Explorer(model);
    while (!explorer.run(2000));
    expect(explorer.states).toBeGreaterThan(256);
    const [look] = spinHazards(writePromela(modelOf(d)), [['off the end of the track', 'trains touch']]);
    expect(look).toMatchObject({ errors: 0, complete: true });
    expect(look!.states).toBeGreaterThanOrEqual(explorer.states);
  });
});
