import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { divideTrack, type Partition, pieceAt } from '@/core/detection';
import { cm } from '@/core/measure';
import { replay } from '@/core/simulation';
import { applyEdit, type LayoutDocument, newDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { compileTrack, distanceAt, onwardFrom, straighten, xOf } from '@/core/track';
import { block, gap, signal, turnout } from '@/demo/build';
import { generatedLine } from '@/demo/generated';
import { ring } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';

const line = (id: string, length: number) => ({ id, name: id, length: cm(length), drawing: undefined });

/** A reverse loop: the loop track meets its own turnout with both legs. */
function reverseLoop(): LayoutDocument {
  const d = newDocument('Reverse loop');
  d.referenceLine = 'main';
  d.lines = [line('main', 300), line('loop', 200)];
  d.turnouts = [
    {
      ...turnout('T1', 'main', 300, 'up', 'left', 'loop'),
      legs: [{ line: 'loop', end: 'start' }],
      straight: { line: 'loop', end: 'end' },
    },
  ];
  return d;
}

describe('track graph', () => {
  test('a turnout leads from its blades to two legs, and from each leg back to the blades', () => {
    const graph = compileTrack(smallValley());
    const [stem, ...legs] = graph.points.find(({ name }) => name === 'T5')!.ports;
    const facing = onwardFrom(graph, stem!.edge, stem!.end);
    expect(facing.flatMap(({ over }) => over.map(({ position }) => position))).toEqual(['straight', 'diverging']);
    for (const leg of legs) {
      expect(onwardFrom(graph, leg.edge, leg.end)).toMatchObject([{ edge: stem!.edge, over: [{ facing: false }] }]);
    }
  });
  test('a circuit goes on over its joint; a buffer ends the way', () => {
    const graph = compileTrack(ring('r', 4, 100));
    expect(onwardFrom(graph, 0, 1)).toEqual([{ edge: 0, enters: 0, over: [] }]);
    const demo = compileTrack(smallValley());
    const dock = demo.byLine.get('pd')!.at(-1)!;
    expect(onwardFrom(demo, dock.index, 1)).toEqual([]);
  });
  test('a reverse loop comes back by the other leg of the same turnout', () => {
    const graph = compileTrack(reverseLoop());
    const [stem] = graph.byLine.get('main')!;
    const ways = onwardFrom(graph, stem!.index, 1);
    expect(ways).toHaveLength(2);
    for (const way of ways) {
      const out = onwardFrom(graph, way.edge, way.enters === 0 ? 1 : 0);
      expect(out).toMatchObject([{ edge: stem!.index, enters: 1 }]);
    }
  });
});

describe('sections and blocks', () => {
  const names = (partition: Partition) => partition.blocks.map((b) => b.name).sort();
  test('the demo has the 19 blocks it names, each watched by its own detector', () => {
    const { partition } = checkDesign(smallValley()).scheme;
    expect(names(partition)).toEqual(
      smallValley()
        .blocks.map((b) => b.name)
        .sort(),
    );
    expect(partition.sections.every((s) => s.sensors.length === 1 && s.blocks.length === 1)).toBe(true);
  });
  test('block lengths come from the gaps: UM is 470 − 300 cm', () => {
    const { partition } = checkDesign(smallValley()).scheme;
    expect(partition.blocks.find((b) => b.name === 'UM')!.length).toBe(cm(170).tenthUm);
  });
  test('a gap makes two sections, a block mark two blocks of one section', () => {
    const base = newDocument('x');
    base.referenceLine = 'a';
    base.lines = [line('a', 300)];
    const parts = (kind: 'gap' | 'mark') => {
      const d = structuredClone(base);
      d.features.push(
        kind === 'gap'
          ? gap('g1', 'a', 100)
          : { id: 'm1', kind: 'mark', line: 'a', at: cm(100), certainty: 'tentative' },
      );
      const partition = divideTrack(d, compileTrack(d));
      return [partition.sections.length, partition.blocks.length];
    };
    expect(parts('gap')).toEqual([2, 2]);
    expect(parts('mark')).toEqual([1, 2]);
  });
  test('a block keeps its name while a new gap splits it; the other part is called after its place', () => {
    const d = smallValley();
    d.features.push(gap('g99', 'main', 600));
    expect(names(divideTrack(d, compileTrack(d))).filter((n) => n === 'M1' || n === 'Main 524')).toEqual([
      'M1',
      'Main 524',
    ]);
  });
  test('one gap in a ring makes one block that ends at both its sides', () => {
    const { partition } = checkDesign(ring('r', 1, 300)).scheme;
    expect(partition.blocks).toHaveLength(1);
    expect(partition.blocks[0]!.length).toBe(cm(300).tenthUm);
  });
  test('every distance of every line lies in exactly one piece', () => {
    const d = smallValley();
    const { partition } = checkDesign(d).scheme;
    for (const l of d.lines) {
      const total = partition.pieces.filter((p) => p.line === l.id).reduce((sum, p) => sum + p.to - p.from, 0);
      expect(total).toBe(l.length.tenthUm);
      const middle = pieceAt(partition, l.id, l.length.tenthUm / 2, 'up');
      expect(middle.from <= l.length.tenthUm / 2 && middle.to > l.length.tenthUm / 2).toBe(true);
    }
  });
});

describe('the straightened drawing', () => {
  test('x is true on the reference line and never turns back on any', () => {
    for (const d of [smallValley(), ring('r', 4, 120), generatedLine(50), reverseLoop()]) {
      const { lines } = straighten(d);
      expect([...lines.keys()].sort()).toEqual(d.lines.map((l) => l.id).sort());
      for (const [id, drawn] of lines) {
        expect(drawn.xAtStart).not.toBe(drawn.xAtEnd);
        if (id === d.referenceLine) expect(drawn.stretch).toBe(1);
        expect(distanceAt(drawn, xOf(drawn, drawn.length / 3))).toBeCloseTo(drawn.length / 3, 0);
      }
    }
  });
  test('a loop hangs on both its turnouts, a spur runs on at true length', () => {
    const { lines } = straighten(smallValley());
    expect(lines.get('m2')).toMatchObject({ xAtStart: cm(480).tenthUm, xAtEnd: cm(736).tenthUm });
    expect(lines.get('pd')).toMatchObject({ xAtStart: cm(494).tenthUm, xAtEnd: cm(684).tenthUm, stretch: 1 });
  });
  test('no two lines lie over one another on a row', () => {
    for (const d of [smallValley(), generatedLine(100)]) {
      const all = [...straighten(d).lines.values()];
      for (const a of all) {
        for (const b of all) {
          if (a === b || a.row !== b.row) continue;
          const apart =
            Math.max(a.xAtStart, a.xAtEnd) <= Math.min(b.xAtStart, b.xAtEnd) ||
            Math.max(b.xAtStart, b.xAtEnd) <= Math.min(a.xAtStart, a.xAtEnd);
          expect(apart, `${a.line} and ${b.line}`).toBe(true);
        }
      }
    }
  });
});

describe('findings', () => {
  const kinds = (d: LayoutDocument) => checkDesign(d).findings.map((f) => `${f.severity} ${f.kind}`);
  test('the demo has no unsafe finding', () =>
    expect(kinds(smallValley()).filter((k) => k.startsWith('unsafe'))).toEqual([]));
  test('a block shorter than the longest train is named with what is missing', () => {
    const found = checkDesign(smallValley()).findings.find((f) => f.id === 'short-block block b-SB')!;
    expect(found.says).toContain('21 cm shorter than Quarry empties');
  });
  test('track without a detector, and the edit that mends it', () => {
    const d = smallValley();
    d.sensors = d.sensors.filter((x) => x.name !== 'UM');
    const found = checkDesign(d).findings.find((f) => f.kind === 'track without detection')!;
    expect(found.fixes[0]!.edit).toMatchObject({ do: 'add sensor', line: 'main' });
    expect(kinds(d)).toContain('check signal into undetected track');
  });
  test('points that a train can reach without a signal', () => {
    const d = newDocument('Siding');
    d.referenceLine = 'main';
    d.lines = [line('main', 300), line('siding', 120)];
    d.turnouts = [turnout('T1', 'main', 150, 'up', 'right', 'siding')];
    d.features = [
      gap('g1', 'main', 100),
      gap('g2', 'main', 200),
      gap('g3', 'siding', 40),
      signal('S1', 'main', 100, 'up'),
    ];
    const found = checkDesign(d).findings.find((f) => f.kind === 'points without protection')!;
    expect(found).toMatchObject({ severity: 'unsafe', subject: 't-T1' });
    expect(found.fixes.map((r) => r.edit)).toMatchObject([
      { do: 'add signal', line: 'main', at: { tenthUm: cm(200).tenthUm }, governs: 'down' },
      { do: 'add signal', line: 'siding', at: { tenthUm: cm(40).tenthUm }, governs: 'down' },
    ]);
  });
  test('points in one long block are offered gaps either side, and those set them apart', () => {
    let d = newDocument('Bare');
    d.referenceLine = 'main';
    d.lines = [line('main', 300), line('siding', 120)];
    d.turnouts = [turnout('T1', 'main', 150, 'up', 'right', 'siding')];
    const found = checkDesign(d).findings.find((f) => f.kind === 'points without protection')!;
    expect(found.severity).toBe('check');
    expect(found.fixes.map((r) => r.says)).toEqual([
      'Cut a gap at 140 cm on main',
      'Cut a gap at 170 cm on main',
      'Cut a gap at 20 cm on siding',
    ]);
    for (const remedy of found.fixes) {
      const result = applyEdit(d, remedy.edit);
      if (!result.ok) throw new Error(result.problem);
      d = result.change.document;
    }
    const { partition } = checkDesign(d).scheme;
    expect(partition.blocks).toHaveLength(4);
    expect(partition.blocks.find((b) => b.points.length > 0)!.length).toBe(cm(30).tenthUm);
  });
  test('what no detector watches is the same length in the finding as in the lane', () => {
    const d = smallValley();
    d.sensors = d.sensors.filter((x) => x.name !== 'UB');
    const found = checkDesign(d).findings.find((f) => f.kind === 'track without detection')!;
    expect(found.figures).toEqual([{ name: 'length unseen', value: '134 cm' }]);
  });
  test('a signal further out protects the points as well, if the way to them passes no other', () => {
    const d = smallValley();
    d.features = d.features.filter((f) => f.id !== 's-MW');
    expect(kinds(d).filter((k) => k.includes('points without'))).toEqual([]);
  });
  test('a train whose unseen middle is longer than the block of a turnout could have it moved underneath', () => {
    const d = smallValley();
    d.vehicles = d.vehicles.map((v) =>
      v.id.startsWith('v-wagon') ? { ...v, axles: v.axles.map((a) => ({ ...a, feeds: 'nothing' as const })) } : v,
    );
    const found = checkDesign(d).findings.filter((f) => f.kind === 'unseen over points');
    expect(found.map((f) => f.subject)).toEqual(['tr-quarry']);
    expect(found[0]!.says).toContain('T6');
  });
  test('a signal before the end of the track has nothing to protect', () => {
    const d = smallValley();
    d.features.push(signal('X', 'pd', 190, 'up'));
    expect(kinds(d)).toContain('check signal with nothing to protect');
  });
  test('a signal inside its block says how far it is from the end', () => {
    const d = smallValley();
    d.features.push(signal('X', 'main', 400, 'up'));
    expect(checkDesign(d).findings.find((f) => f.subject === 's-X')!.figures).toEqual([
      { name: 'to the end of the block', value: '70 cm' },
    ]);
  });
  test('a train no detector sees, and an unseen tail, are unsafe', () => {
    const d = smallValley();
    d.vehicles = d.vehicles.map((v) =>
      v.id === 'v-van' ? { ...v, axles: v.axles.map((a) => ({ ...a, feeds: 'nothing' as const })) } : v,
    );
    expect(kinds(d)).toContain('unsafe unseen tail');
    d.vehicles = d.vehicles.map((v) => ({ ...v, axles: [] }));
    expect(kinds(d)).toContain('unsafe train no detector sees');
  });
  test('two things of one name work as they did under two, and it is said that nobody can tell them apart', () => {
    const d = smallValley();
    d.blocks[3]!.name = 'UC1';
    d.sensors[1]!.name = d.sensors[0]!.name;
    expect(kinds(d)).toContain('check two things with one name');
    const run = (layout: LayoutDocument) => {
      const commands = layout.trains.map(({ id }) => ({
        tick: 5,
        command: { kind: 'run' as const, train: id, on: true },
      }));
      return replay(compileSystem(layout), 1, 3000, commands).traceHash;
    };
    expect(run(d)).toBe(run(smallValley()));
  });
  test('two detectors with no gap between them', () => {
    const d = smallValley();
    block(d, 'Twice', 'main', 1000);
    expect(kinds(d)).toContain('check two detectors in one section');
  });
});
