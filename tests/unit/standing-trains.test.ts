import { describe, expect, test } from 'vitest';
import { checkDesign, tryByHand, viewDesign } from '@/core/design';
import { names } from '@/core/patterns';
import { Rehearsal } from '@/core/simulation';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { randomLine } from './random-line';

const standing = (d: LayoutDocument) => viewDesign(d, checkDesign(d)).standing;

describe('trains as they stand, for trying by hand', () => {
  test('are seen where a detector is, and nowhere else', () => {
    expect(standing(learningOval()).blocks).toEqual(['block b-B1', 'block b-B2']);
    const d = learningOval();
    d.sensors = d.sensors.filter(({ name }) => name !== 'B2');
    expect(standing(d).blocks).toEqual(['block b-B1']);
    d.trains = [];
    expect(standing(d)).toEqual({ blocks: [], told: [], body: [] });
  });
  test.each([smallValley(), learningOval(), ...[1, 2, 3, 4, 5, 6, 7, 8].map(randomLine)])(
    'show the same signals as a rehearsal in which they stand: $name',
    (d) => {
      const run = new Rehearsal(compileSystem(d), 1);
      for (const train of run.plant.trains) train.running = false;
      for (let i = 0; i < 1500; i++) run.step();
      const design = checkDesign(d);
      const values = tryByHand(design, { trains: true, occupied: [], points: {} });
      const shown = signalsOf(d).map((signal) => design.system.program.enums.aspect![values[names.shows(signal)]!]);
      expect(shown).toEqual(run.system.readings.map((_, s) => run.aspectAt(s).id));
    },
  );
});
