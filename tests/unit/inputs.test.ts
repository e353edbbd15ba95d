import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { giveInputs, inputOf, shareOut, wireOf } from '@/core/detection';
import { cm } from '@/core/measure';
import { applyEdit, type LayoutDocument, readDocument, readSensorInput, saySensorInput } from '@/core/survey';
import { straighten } from '@/core/track';
import { ondrelValley } from '@/demo/ondrel-valley';
import { smallValley } from '@/demo/small-valley';

const SIXTEEN = { inputs: 16, spare: 2 };
const given = (d: LayoutDocument, modules = SIXTEEN, anew = false) => giveInputs(d, straighten(d), modules, anew);
const kept = (d: LayoutDocument, modules = SIXTEEN): LayoutDocument => {
  const result = applyEdit(d, { do: 'give inputs', modules, inputs: Object.fromEntries(given(d, modules).inputs) });
  if (!result.ok) throw new Error(result.problem);
  return structuredClone(result.change.document);
};
const moduleOf = (input: string) => input.split('.')[0]!;

/** Every way to share things out into boxes of a size, and the least wire of those with the fewest boxes: told from the words alone. */
function byTrying(xs: readonly number[], size: number): number {
  const count = Math.ceil(xs.length / size);
  let least = Number.POSITIVE_INFINITY;
  const boxes: number[][] = Array.from({ length: count }, () => []);
  const wire = () =>
    boxes.reduce(
      (sum, box) =>
        sum + (box.length === 0 ? 0 : Math.min(...box.map((at) => box.reduce((s, x) => s + Math.abs(x - at), 0)))),
      0,
    );
  const put = (i: number) => {
    if (i === xs.length) {
      least = Math.min(least, wire());
      return;
    }
    for (const box of boxes) {
      if (box.length === size) continue;
      box.push(xs[i]!);
      put(i + 1);
      box.pop();
    }
  };
  put(0);
  return least;
}

describe('inputs of modules', () => {
  test('shared out so that no way has shorter wires: against every way, up to eight sensors', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 90 }), { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 1, max: 5 }),
        (xs, size) => {
          const sorted = [...xs].sort((a, b) => a - b);
          const runs = shareOut(
            sorted.map((x, i) => ({ id: `d${i}`, x })),
            size,
          );
          expect(runs.flat().map(({ x }) => x)).toEqual(sorted);
          expect(runs.every((run) => run.length <= size)).toBe(true);
          expect(runs).toHaveLength(Math.ceil(xs.length / size));
          expect(runs.reduce((sum, run) => sum + wireOf(run.map(({ x }) => x)), 0)).toBe(byTrying(sorted, size));
        },
      ),
      { numRuns: 300 },
    );
  });
  test('each sensor has one of its own, and each new module keeps its spare ones', () => {
    const d = ondrelValley();
    const { inputs } = given(d);
    expect(inputs.size).toBe(d.sensors.length);
    expect(new Set(inputs.values()).size).toBe(d.sensors.length);
    const count = new Map<string, number>();
    for (const input of inputs.values()) {
      expect(inputOf(readSensorInput(input), SIXTEEN)).toBeDefined();
      count.set(moduleOf(input), (count.get(moduleOf(input)) ?? 0) + 1);
    }
    expect([...count.values()].every((own) => own <= 14)).toBe(true);
    expect(count.size).toBe(Math.ceil(d.sensors.length / 14));
  });
  test('what has one keeps it when things are added; the new one takes a spare input of the nearest module', () => {
    const d = kept(smallValley());
    const before = new Map(d.sensors.map(({ id, input }) => [id, saySensorInput(input)]));
    d.sensors.push({
      ...d.sensors[0]!,
      id: 'd-new',
      name: 'New',
      anchor: { line: 'main', at: cm(1100) },
      input: undefined,
    });
    const { inputs } = given(d);
    for (const [id, input] of before) expect(inputs.get(id)).toBe(input);
    const near = d.sensors.find(({ name }) => name === 'FM')!;
    expect(moduleOf(inputs.get('d-new')!)).toBe(near.input!.module);
    expect([...inputs.values()].filter((input) => input === inputs.get('d-new'))).toHaveLength(1);
    const anew = given(d, SIXTEEN, true);
    expect(anew.wire).toBeLessThanOrEqual(given(d).wire);
  });
  test('one that two share, or that no module of that size has, is given anew; nothing is lost', () => {
    const d = kept(smallValley());
    d.sensors[1]!.input = d.sensors[0]!.input;
    d.sensors[2]!.input = readSensorInput('1.40');
    d.sensors[3]!.input = readSensorInput('by the window');
    const { inputs } = given(d);
    expect(inputs.get(d.sensors[0]!.id)).toBe(saySensorInput(d.sensors[0]!.input));
    expect(new Set(inputs.values()).size).toBe(d.sensors.length);
    expect(readDocument(JSON.parse(JSON.stringify(kept(d)))).ok).toBe(true);
    expect(given({ ...d, sensors: [] })).toEqual({ inputs: new Map(), wire: 0 });
    for (const modules of [
      { inputs: 1, spare: 0 },
      { inputs: 4, spare: 4 },
      { inputs: 64, spare: 0 },
    ])
      expect(new Set(given(d, modules).inputs.values()).size).toBe(d.sensors.length);
  });
  test('by hand any input, but none that another has', () => {
    const d = kept(smallValley());
    const [one, other] = d.sensors;
    const change = (input: string) => applyEdit(d, { do: 'change sensor', id: one!.id, change: { input } });
    const taken = change(saySensorInput(other!.input));
    expect(taken.ok ? '' : taken.problem).toBe(`Input ${saySensorInput(other!.input)} is taken by ${other!.name}.`);
    expect(change('3.16').ok && change('').ok && change(saySensorInput(one!.input)).ok).toBe(true);
    expect(change('x'.repeat(41)).ok).toBe(false);
  });
  test.each([
    ['2.5', { module: 2, input: 5 }],
    [' 2.16 ', { module: 2, input: 16 }],
    ['2.17', undefined],
    ['0.1', undefined],
    ['2.0', undefined],
    ['2', undefined],
    ['', undefined],
    ['-1.2', undefined],
  ])('%j is read', (text, read) => expect(inputOf(readSensorInput(text), SIXTEEN)).toEqual(read));
});
