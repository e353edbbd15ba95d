import fc from 'fast-check';
import { expect, test } from 'vitest';
import { cm } from '@/core/measure';
import { applyEdit, type Edit, type LayoutDocument } from '@/core/survey';
import { straighten, xOf } from '@/core/track';
import { randomPlan } from './random-plan';

/** What the straightened drawing promises of any layout, tried on plans that nobody thought of. */
const plan = fc.integer({ min: 0, max: 100_000 }).map((seed) => randomPlan(seed));
const RUNS = { numRuns: 400 };

test('along the line of the ruler every distance is where the ruler says', () => {
  fc.assert(
    fc.property(plan, fc.double({ min: 0, max: 1, noNaN: true }), (d, share) => {
      const drawn = straighten(d).lines.get(d.referenceLine)!;
      const at = Math.round(drawn.length * share);
      expect(Math.abs(xOf(drawn, at) - xOf(drawn, 0))).toBeCloseTo(at, 3);
    }),
    RUNS,
  );
});

test('every line is drawn, and what comes later on it lies farther along', () => {
  fc.assert(
    fc.property(plan, (d) => {
      const { lines } = straighten(d);
      expect([...lines.keys()].sort()).toEqual(d.lines.map(({ id }) => id).sort());
      for (const drawn of lines.values()) {
        const places = [0, 0.25, 0.5, 0.75, 1].map((share) => xOf(drawn, drawn.length * share));
        const steps = places.slice(1).map((x, i) => x - places[i]!);
        expect(steps.every((step) => step > 0) || steps.every((step) => step < 0)).toBe(true);
      }
    }),
    RUNS,
  );
});

test('no two lines of one row lie upon each other', () => {
  fc.assert(
    fc.property(plan, (d) => {
      const drawn = [...straighten(d).lines.values()].filter(({ slants }) => !slants);
      const extent = ({ xAtStart, xAtEnd }: (typeof drawn)[number]) =>
        [Math.min(xAtStart, xAtEnd), Math.max(xAtStart, xAtEnd)] as const;
      for (const [i, one] of drawn.entries())
        for (const other of drawn.slice(i + 1)) {
          if (one.row !== other.row) continue;
          const [from, to] = extent(one);
          const [otherFrom, otherTo] = extent(other);
          expect(Math.min(to, otherTo)).toBeLessThanOrEqual(Math.max(from, otherFrom));
        }
    }),
    RUNS,
  );
});

const rowsOf = (d: LayoutDocument) =>
  [...straighten(d).lines.values()].map(({ line, row, xAtStart, xAtEnd }) => [line, row, xAtStart, xAtEnd]);

test('what is cut, placed or moved on a line moves no line', () => {
  fc.assert(
    fc.property(
      plan,
      fc.nat(),
      fc.integer({ min: 1, max: 99 }),
      fc.constantFrom('cut', 'signal', 'buffer'),
      (d, pick, percent, what) => {
        const line = d.lines[pick % d.lines.length]!;
        const at = cm((line.length.tenthUm * percent) / 100 / 1e5);
        const edit: Edit =
          what === 'cut'
            ? { do: 'add cut', kind: 'gap', line: line.id, at }
            : what === 'signal'
              ? { do: 'add signal', line: line.id, at, governs: 'up' }
              : { do: 'add buffer', line: line.id, at };
        const result = applyEdit(d, edit);
        if (!result.ok) return;
        const { document } = result.change;
        expect(rowsOf(document)).toEqual(rowsOf(d));
        const moved = applyEdit(document, { do: 'move', id: document.features.at(-1)!.id, at: cm(1) });
        if (moved.ok) expect(rowsOf(moved.change.document)).toEqual(rowsOf(d));
      },
    ),
    RUNS,
  );
});
