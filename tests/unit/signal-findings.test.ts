import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { applyEdit, type LayoutDocument, signalsOf } from '@/core/survey';
import { generatedLine } from '@/demo/generated';
import { ring } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';

const without = (document: LayoutDocument, names: string[]): LayoutDocument => ({
  ...document,
  features: document.features.filter((f) => !(f.kind === 'signal' && names.includes(f.name))),
});
const findingsOf = (document: LayoutDocument, kind: string) =>
  checkDesign(document).findings.filter((finding) => finding.kind === kind);
const BETWEEN = 'no signal at the end of a block';

describe('signals left out of a ring', () => {
  const whole = ring('Ring', 7, 100);
  const names = signalsOf(whole).map((signal) => signal.name);

  test('with all of them nothing is missing', () => expect(findingsOf(whole, BETWEEN)).toEqual([]));
  test('each boundary without one is named once, whichever are left out, as long as two stand', () => {
    fc.assert(
      fc.property(fc.subarray(names, { minLength: 1, maxLength: names.length - 2 }), (left) => {
        expect(findingsOf(without(whole, left), BETWEEN)).toHaveLength(left.length);
      }),
    );
  });
  test('the remedy places the signal that was left out, at its place and in its direction', () => {
    for (const name of names) {
      const document = without(whole, [name]);
      const [finding] = findingsOf(document, BETWEEN);
      const result = applyEdit(document, finding!.fixes[0]!.edit);
      if (!result.ok) throw new Error(result.problem);
      const placed = signalsOf(result.change.document).find((s) => !signalsOf(document).some((o) => o.id === s.id))!;
      const missing = signalsOf(whole).find((s) => s.name === name)!;
      expect([placed.line, placed.at.tenthUm, placed.governs]).toEqual([
        missing.line,
        missing.at.tenthUm,
        missing.governs,
      ]);
      expect(findingsOf(result.change.document, BETWEEN)).toEqual([]);
    }
  });
});

describe('signals left out of the demo', () => {
  const unsafe = (document: LayoutDocument) =>
    findingsOf(document, 'points without protection').filter((finding) => finding.severity === 'unsafe').length;

  test('nothing is missing while all stand', () => {
    expect(findingsOf(smallValley(), BETWEEN)).toEqual([]);
    expect(unsafe(smallValley())).toBe(0);
  });
  test('each is missed: where a signalled way leads through, trains are not held; elsewhere points are unprotected', () => {
    for (const { name } of signalsOf(smallValley())) {
      const left = without(smallValley(), [name]);
      expect(findingsOf(left, BETWEEN).length + unsafe(left), name).toBe(1);
    }
  });
});

describe('a signal with more ways ahead than are read', () => {
  const alone = (stations: number) => {
    const document = generatedLine(stations * 5);
    const [first] = signalsOf(document);
    return without(
      document,
      signalsOf(document)
        .filter((signal) => signal !== first)
        .map(({ name }) => name),
    );
  };
  test('is told so: eight loops one after the other make 256 ways, six make 64', () => {
    const [finding] = findingsOf(alone(8), 'signal with too many routes');
    expect(finding!.says).toContain('has 200 routes ahead of it, or more. Those beyond 200 are not read');
    expect(findingsOf(alone(6), 'signal with too many routes')).toEqual([]);
  });
});
