import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Packing } from '@/core/proof/engine/packing';

/** A machine that packs fields holding so many values each. */
function machineOf(sizes: number[]) {
  const packing = new Packing();
  for (const [i, values] of sizes.entries()) packing.field(i, values);
  return { words: packing.words, ...packing.start(sizes.length) };
}

const sized = fc
  .array(fc.integer({ min: 1, max: 5000 }), { minLength: 1, maxLength: 80 })
  .chain((sizes) => fc.tuple(fc.constant(sizes), fc.tuple(...sizes.map((values) => fc.nat({ max: values - 1 })))));

describe('packed states', () => {
  test('every field comes back as it was, whatever stood there meanwhile', () => {
    fc.assert(
      fc.property(sized, ([sizes, values]) => {
        const machine = machineOf(sizes);
        machine.fields.set(values);
        machine.pack();
        machine.origin.set(machine.packed);
        machine.fields.fill(-1);
        machine.unpack();
        expect([...machine.fields]).toEqual(values);
      }),
    );
  });
  test('two states are packed alike only when all their fields are', () => {
    fc.assert(
      fc.property(sized, fc.nat(), fc.nat(), ([sizes, values], which, other) => {
        const machine = machineOf(sizes);
        machine.fields.set(values);
        machine.pack();
        const before = [...machine.packed];
        const i = which % sizes.length;
        machine.fields[i] = other % sizes[i]!;
        machine.pack();
        const same = machine.fields[i] === values[i];
        expect([...machine.packed].join() === before.join()).toBe(same);
      }),
    );
  });
  test('as few words as fit, no field across two of them', () => {
    expect(machineOf(Array.from({ length: 32 }, () => 2)).words).toBe(1);
    expect(machineOf(Array.from({ length: 33 }, () => 2)).words).toBe(2);
    expect(machineOf([2 ** 20, 2 ** 20]).words).toBe(2);
    expect(machineOf([2 ** 16, 2 ** 16]).words).toBe(1);
  });
});
