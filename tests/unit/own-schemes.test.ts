import { describe, expect, test } from 'vitest';
import { checkDesign, ownSchemes, schemeFigures } from '@/core/design';
import { ADMISSIONS } from '@/core/kinds';
import { cm } from '@/core/measure';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { ondrelValley } from '@/demo/ondrel-valley';

const example = (id: string): LayoutDocument => exampleLayout(EXAMPLES.find((one) => one.id === id)!);

describe('three schemes drawn up by themselves', () => {
  test.each([
    ['what is worth protecting', example('worth')],
    ['point to point', example('loops')],
    ['the valley', ondrelValley()],
  ] as const)(
    '%s: each has no more heads than the one before, and none leaves points unprotected that are asked for',
    (_, d) => {
      const schemes = ownSchemes(d);
      expect(schemes.map(({ name }) => name)).toEqual(['Every block end', 'As the areas ask', 'The least']);
      const heads = schemes.map(({ document }) => schemeFigures(document).heads);
      expect(heads[0]).toBeGreaterThanOrEqual(heads[1]!);
      expect(heads[1]).toBeGreaterThanOrEqual(heads[2]!);
      expect(heads[2]).toBeGreaterThan(0);
      expect(schemeFigures(schemes[0]!.document).unprotected).toEqual([]);
      for (const { document } of schemes) {
        const unsafe = checkDesign(document).findings.filter(({ severity }) => severity === 'unsafe');
        expect(unsafe.map(({ says }) => says)).toEqual([]);
      }
    },
  );
  test('where an area does without signals, only the first has more inside it than those that lead out', () => {
    const sight = example('worth').areas.find(({ admits }) => admits && !ADMISSIONS[admits].signals)!;
    const d = example('loops');
    const area = { ...sight, line: d.lines[0]!.id, from: cm(90), to: cm(350) };
    d.areas = [area];
    const inside = (one: LayoutDocument) =>
      signalsOf(one).filter(
        ({ line, at }) => line === area.line && at.tenthUm > area.from.tenthUm && at.tenthUm < area.to.tenthUm,
      ).length;
    const [every, asked, least] = ownSchemes(d).map(({ document }) => inside(document));
    /** Three boundaries, both ways; one that leads out of it, into what is protected, stays. */
    expect([every, asked, least]).toEqual([6, 1, 1]);
  });
  test('they come of the track and what was decided, not of the signals that stand', () => {
    const d = example('loops');
    const bare = { ...d, features: d.features.filter(({ kind }) => kind !== 'signal') };
    const where = (one: LayoutDocument) =>
      ownSchemes(one).map(({ document }) =>
        signalsOf(document).map(({ line, at, governs }) => [line, at.tenthUm, governs]),
      );
    expect(where(bare)).toEqual(where(d));
  });
});
