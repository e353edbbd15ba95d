import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { pieceAt } from '@/core/detection';
import { cm } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import { straighten, xOf } from '@/core/track';
import { generatedLine } from '@/demo/generated';
import { smallValley } from '@/demo/small-valley';
import { randomLine } from './random-line';

/**
 * Blocks and sections by brute force: the track as beads a centimetre apart, each tied to the next unless a cut lies
 * between, and over joints and turnouts. It knows nothing of edges or pieces. Distances must be whole centimetres.
 */
function beads(d: LayoutDocument, cutBy: (kind: 'gap' | 'mark') => boolean): (line: string, bead: number) => string {
  const parent = new Map<string, string>();
  const find = (key: string): string => {
    let root = key;
    while (parent.get(root) !== root) root = parent.get(root)!;
    parent.set(key, root);
    return root;
  };
  const tie = (a: string, b: string) => parent.set(find(a), find(b));
  const length = new Map(d.lines.map((l) => [l.id, l.length.tenthUm / 1e5]));
  const cuts = new Set(
    d.features.flatMap((f) =>
      (f.kind === 'gap' || f.kind === 'mark') && cutBy(f.kind) ? [`${f.line} ${f.at.tenthUm / 1e5}`] : [],
    ),
  );
  for (const [line, long] of length) {
    for (let i = 0; i < long; i++) parent.set(`${line} ${i}`, `${line} ${i}`);
    for (let i = 1; i < long; i++) if (!cuts.has(`${line} ${i}`)) tie(`${line} ${i - 1}`, `${line} ${i}`);
  }
  const last = (end: { line: string; end: 'start' | 'end' }) => ({
    bead: `${end.line} ${end.end === 'start' ? 0 : length.get(end.line)! - 1}`,
    cut: cuts.has(`${end.line} ${end.end === 'start' ? 0 : length.get(end.line)!}`),
  });
  for (const join of d.joins) {
    const [a, b] = [last(join.a), last(join.b)];
    if (!a.cut && !b.cut) tie(a.bead, b.bead);
  }
  for (const turnout of d.turnouts) {
    const at = turnout.at.tenthUm / 1e5;
    const stem = `${turnout.line} ${turnout.facing === 'up' ? at - 1 : at}`;
    for (const leg of [...turnout.legs, ...(turnout.straight ? [turnout.straight] : [])]) {
      const end = last(leg);
      if (!end.cut) tie(stem, end.bead);
    }
  }
  return (line, bead) => find(`${line} ${bead}`);
}

const layouts: [string, LayoutDocument][] = [
  ['the demo', smallValley()],
  ['a generated line', generatedLine(30)],
  ...Array.from({ length: 20 }, (_, i): [string, LayoutDocument] => [`random line ${i + 1}`, randomLine(i + 1)]),
];

describe('blocks and sections against beads on a string', () => {
  const compare = (d: LayoutDocument, cutBy: (kind: 'gap' | 'mark') => boolean, pick: 'block' | 'section') => {
    const { partition } = checkDesign(d).scheme;
    const root = beads(d, cutBy);
    const seen = new Map<string, number>();
    const used = new Set<number>();
    for (const line of d.lines) {
      for (let i = 0; i < line.length.tenthUm / 1e5; i++) {
        const mine = pieceAt(partition, line.id, cm(i + 0.5).tenthUm, 'up')[pick];
        const theirs = root(line.id, i);
        const known = seen.get(theirs);
        if (known === undefined) {
          expect(used.has(mine), `${line.id} at ${i} cm`).toBe(false);
          seen.set(theirs, mine);
          used.add(mine);
        } else if (known !== mine)
          expect.fail(`${line.id} at ${i} cm is in another ${pick} than the beads it hangs with`);
      }
    }
    return used.size;
  };

  test.each(layouts)('%s', (_, d) => {
    const { partition } = checkDesign(d).scheme;
    expect(compare(d, () => true, 'block')).toBe(partition.blocks.length);
    expect(compare(d, (kind) => kind === 'gap', 'section')).toBe(partition.sections.length);
  });

  test('with every third gap turned into a block mark, sections grow and blocks stay', () => {
    const d = smallValley();
    d.sensors = [];
    let n = 0;
    d.features = d.features.map((f) =>
      f.kind === 'gap' && n++ % 3 === 0
        ? { id: f.id, kind: 'mark', line: f.line, at: f.at, certainty: f.certainty }
        : f,
    );
    const { partition } = checkDesign(d).scheme;
    expect(compare(d, () => true, 'block')).toBe(19);
    expect(compare(d, (kind) => kind === 'gap', 'section')).toBe(partition.sections.length);
    expect(partition.sections.length).toBeLessThan(19);
  });
});

test.each(layouts)(
  'the drawing of %s hangs every leg at its blade tips and lets no two lines share a place',
  (_, d) => {
    const { lines } = straighten(d);
    for (const turnout of d.turnouts) {
      const diverging = turnout.legs[0]!;
      const leg = lines.get(diverging.line)!;
      const x = diverging.end === 'start' ? leg.xAtStart : leg.xAtEnd;
      if (leg.cutAtStart === undefined && leg.cutAtEnd === undefined)
        expect(x).toBeCloseTo(xOf(lines.get(turnout.line)!, turnout.at.tenthUm), 0);
    }
    const all = [...lines.values()].map((l) => ({
      id: l.line,
      row: l.row,
      low: Math.min(l.xAtStart, l.xAtEnd),
      high: Math.max(l.xAtStart, l.xAtEnd),
    }));
    for (const a of all)
      for (const b of all)
        if (a.id < b.id && a.row === b.row)
          expect(a.high <= b.low || b.high <= a.low, `${a.id} and ${b.id}`).toBe(true);
  },
);
