import { describe, expect, test } from 'vitest';
import { checkDesign, reasonBlock, viewDesign } from '@/core/design';
import { cm, showLength } from '@/core/measure';
import { countStatements } from '@/core/reasoning';
import { type LayoutDocument, signalsOf, systemOf } from '@/core/survey';
import { straighten } from '@/core/track';
import { generatedLine } from '@/demo/generated';
import { learningOval } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { smallValley } from '@/demo/small-valley';
import { type Box, placeLabels, textWidth } from '@/ui/sheet/label-placement';
import { onPaper } from '@/ui/sheet/on-paper';
import { planLabels, standsAbove } from '@/ui/sheet/plan-labels';
import { layoutTicks, RULER_HEIGHT, scaleTicks } from '@/ui/sheet/ruler-steps';
import { firstView, fitView, GUTTER, SheetGeometry, zoomView } from '@/ui/sheet/sheet-geometry';
import { HEAD_HEIGHT, headWidth } from '@/ui/sheet/signal-head';
import { done } from './editing';
import { randomLine } from './random-line';

const WIDTH = 820;
const sheetOf = (d: LayoutDocument, zoom = 1) => {
  const drawing = straighten(d);
  const fit = fitView(drawing, WIDTH);
  const view = zoom === 1 ? fit : zoomView(fit, fit, zoom, GUTTER);
  return new SheetGeometry(drawing, view, RULER_HEIGHT + 46, 60);
};

describe('geometry of the sheet', () => {
  const d = smallValley();
  const sheet = sheetOf(d);
  test('the reference line is level and true: equal distances are equally far apart', () => {
    const xs = [0, 200, 400, 600].map((at) => sheet.at('main', cm(at).tenthUm));
    for (const p of xs) expect(p.y).toBe(sheet.rowY(0));
    expect(xs[1]!.x - xs[0]!.x).toBeCloseTo(xs[3]!.x - xs[2]!.x, 6);
  });
  test('a diverging track begins at its blade tips on the other line and reaches its own row before its first gap', () => {
    const tips = sheet.at('main', cm(480).tenthUm);
    const start = sheet.at('m2', 0);
    expect(start.x).toBeCloseTo(tips.x, 6);
    expect(start.y).toBeCloseTo(tips.y, 6);
    for (const f of d.features) {
      if (f.kind !== 'gap' && f.kind !== 'signal') continue;
      expect(sheet.at(f.line, f.at.tenthUm).y, `${f.id} stands on a level piece`).toBeCloseTo(
        sheet.rowY(sheet.drawn(f.line).row),
        6,
      );
    }
  });
  test('the nearest place on the track to a drawn place is that place', () => {
    for (const line of d.lines) {
      for (const share of [0.25, 0.5, 0.8]) {
        const at = Math.round(line.length.tenthUm * share);
        const found = sheet.nearest(sheet.at(line.id, at), 3);
        expect(found?.line).toBe(line.id);
        expect(Math.abs(found!.at - at)).toBeLessThan(cm(1).tenthUm);
      }
    }
    expect(sheet.nearest({ x: 300, y: 5 }, 14)).toBeUndefined();
  });
  test('zooming keeps the place under the pointer and stays within bounds', () => {
    const fit = fitView(sheet.drawing, WIDTH);
    const about = 400;
    const before = new SheetGeometry(sheet.drawing, fit, 0, 60).valueAt(about);
    const zoomed = zoomView(fit, fit, 3, about);
    expect(new SheetGeometry(sheet.drawing, zoomed, 0, 60).valueAt(about)).toBeCloseTo(before, 0);
    expect(zoomView(fit, fit, 1e9, about).scale).toBeLessThanOrEqual(4e-4);
    expect(zoomView(fit, fit, 1e-9, about).scale).toBe(fit.scale * 0.5);
  });
  test('a long layout opens at a readable scale, a short one whole', () => {
    const long = fitView(straighten(generatedLine(200)), WIDTH);
    expect(firstView(long).scale).toBeGreaterThan(long.scale);
    expect(firstView(sheet.view)).toEqual(sheet.view);
  });
  test('only what is on the sheet or within a third of its width of it is near; on paper everything is', () => {
    const { drawing, view } = sheetOf(generatedLine(100), 20);
    const seen = new SheetGeometry(drawing, view, 0, 60, WIDTH);
    for (const [x, near] of [
      [-WIDTH / 3 - 1, false],
      [-WIDTH / 3 + 1, true],
      [(4 * WIDTH) / 3 - 1, true],
      [(4 * WIDTH) / 3 + 1, false],
    ] as const) {
      expect(seen.isNear(x), `${x}`).toBe(near);
      expect(seen.isNear(x, x)).toBe(near);
    }
    expect(seen.isNear(-1e6, 1e6)).toBe(true);
    expect(seen.hasNear({ line: 'main', from: 0, to: drawing.to })).toBe(true);
    expect(seen.hasNear({ line: 'main', from: drawing.to - 10, to: drawing.to })).toBe(false);
    expect(
      new SheetGeometry(drawing, view, 0, 60).hasNear({ line: 'main', from: drawing.to - 10, to: drawing.to }),
    ).toBe(true);
  });
  test.each([
    ['the demo', smallValley()],
    ['a long line', generatedLine(60)],
  ])('labels on the sheet stand where they would with everything drawn: %s', (_, layout) => {
    const design = viewDesign(layout, checkDesign(layout));
    const drawing = straighten(layout);
    const fit = fitView(drawing, WIDTH);
    for (const zoom of [8, 16, 30]) {
      const view = { ...zoomView(fit, fit, zoom, GUTTER), from: drawing.from + (drawing.to - drawing.from) * 0.4 };
      const labels = (width?: number) =>
        planLabels(layout, design, new SheetGeometry(drawing, view, RULER_HEIGHT + 46, 60, width), true);
      const [near, all] = [labels(WIDTH), labels()];
      const isSeen = ({ x }: { x: number }) => x > 0 && x < WIDTH;
      for (const kind of ['plates', 'turnouts', 'lengths'] as const) {
        const seen = [...all[kind]].filter(([, place]) => isSeen(place));
        expect(seen.map(([id]) => near[kind].get(id))).toEqual(seen.map(([, place]) => place));
        expect(near[kind].size).toBeLessThanOrEqual(all[kind].size);
      }
      expect(near.plates.size).toBeGreaterThan(0);
    }
  });
  test('a path runs from end to end and bends where its leads meet the level', () => {
    const path = sheet.path('m2', 0, cm(262).tenthUm);
    expect(path.match(/[ML]/g)).toEqual(['M', 'L', 'L', 'L']);
    expect(sheet.path('m2', cm(262).tenthUm, 0).match(/[ML]/g)).toHaveLength(4);
    expect(() => sheet.path('nowhere', 0, 1)).toThrow('nowhere');
  });
});

/** The boxes of everything that was placed, rebuilt from where it is drawn rather than from the plan. */
function boxesOf(d: LayoutDocument, sheet: SheetGeometry, paper = false): { name: string; box: Box }[] {
  const placed = planLabels(d, viewDesign(d), sheet, true, paper);
  const boxes: { name: string; box: Box }[] = [];
  for (const signal of signalsOf(d)) {
    const drop = placed.signals.get(signal.id);
    if (drop === undefined) continue;
    const { x, y } = sheet.at(signal.line, signal.at.tenthUm);
    const rightwards = (signal.governs === 'up') === sheet.ascends(signal.line);
    const name = textWidth(signal.name);
    const left = rightwards ? x - 5 - headWidth(systemOf(d, signal.system)) - 4 - name : x + 5;
    boxes.push({
      name: signal.name,
      box: {
        x: left,
        y: y + drop - HEAD_HEIGHT / 2,
        width: headWidth(systemOf(d, signal.system)) + 4 + name,
        height: HEAD_HEIGHT,
      },
    });
  }
  for (const [name, plate] of placed.plates)
    boxes.push({ name, box: { x: plate.x - plate.width / 2, y: plate.y - 8.5, width: plate.width, height: 17 } });
  for (const turnout of d.turnouts) {
    const spot = placed.turnouts.get(turnout.id);
    const width = textWidth(turnout.name) - 2;
    if (spot) boxes.push({ name: turnout.name, box: { x: spot.x - width / 2, y: spot.y - 9, width, height: 11 } });
  }
  for (const [name, length] of placed.lengths) {
    const width = textWidth(length.text, 6);
    boxes.push({ name: `${name} length`, box: { x: length.x - width / 2, y: length.y - 6, width, height: 10 } });
  }
  return boxes;
}

describe('labels', () => {
  const layouts = [smallValley(), learningOval(), ...[5, 20, 45, 100].map((n) => generatedLine(n))];
  const overlapping = (boxes: ReturnType<typeof boxesOf>): string[] => {
    const found: string[] = [];
    for (let i = 0; i < boxes.length; i++) {
      for (let k = i + 1; k < boxes.length; k++) {
        const [a, b] = [boxes[i]!.box, boxes[k]!.box];
        const overlap =
          a.x < b.x + b.width - 0.01 &&
          b.x < a.x + a.width - 0.01 &&
          a.y < b.y + b.height - 0.01 &&
          b.y < a.y + a.height - 0.01;
        if (overlap) found.push(`${boxes[i]!.name} and ${boxes[k]!.name}`);
      }
    }
    return found;
  };
  test.each(layouts.flatMap((d) => [1, 2.5, 7].map((zoom) => [d.name, zoom, d] as const)))(
    'of %s at zoom %d never overlap',
    (_, zoom, d) => expect(overlapping(boxesOf(d, sheetOf(d, zoom)))).toEqual([]),
  );
  test.each([ondrelValley(), smallValley(), learningOval(), generatedLine(20)])(
    'of $name never overlap on paper, where all of them are',
    (d) => expect(overlapping(boxesOf(d, onPaper(straighten(d), 'fit').geometry, true))).toEqual([]),
  );
  test('the demo at full view shows every signal and most blocks', () => {
    const d = smallValley();
    const placed = planLabels(d, viewDesign(d), sheetOf(d), true);
    expect(placed.signals.size).toBe(signalsOf(d).length);
    expect(placed.plates.size).toBeGreaterThan(10);
  });
  test('where only a few heads find room, none is shown rather than a chance few', () => {
    const d = generatedLine(200);
    expect(planLabels(d, viewDesign(d), sheetOf(d), true).signals.size).toBe(0);
  });
  const crowded = [smallValley(), generatedLine(60), ...Array.from({ length: 8 }, (_, i) => randomLine(i + 1))];
  test.each(crowded)('nothing vanishes: $name, at three zooms and three widths, and on paper', (d) => {
    const design = viewDesign(d);
    const drawing = straighten(d);
    for (const width of [500, 820, 1500]) {
      for (const zoom of [1, 3, 9]) {
        const fit = fitView(drawing, width);
        const geometry = new SheetGeometry(drawing, zoomView(fit, fit, zoom, GUTTER), RULER_HEIGHT + 46, 60);
        const shown = planLabels(d, design, geometry, true);
        for (const { id, name } of design.blocks)
          expect(Number(shown.plates.has(id)) + Number(shown.marks.has(id)), name).toBe(1);
        const paper = planLabels(d, design, geometry, true, true);
        expect(paper.plates.size).toBe(design.blocks.length);
        expect(paper.marks.size).toBe(0);
        expect(paper.signals.size).toBe(signalsOf(d).length);
        expect(paper.turnouts.size).toBe(d.turnouts.length);
      }
    }
  });
  test('the first free choice is taken; what fits nowhere is left out', () => {
    const at = (x: number): Box => ({ x, y: 0, width: 10, height: 10 });
    const placed = placeLabels([
      { id: 'a', choices: [at(0)] },
      { id: 'b', choices: [at(5), at(12)] },
      { id: 'c', choices: [at(3)] },
    ]);
    expect([...placed]).toEqual([
      ['a', 0],
      ['b', 1],
    ]);
  });
  test('signals stand on the side of the track that the layout says', () => {
    const d = smallValley();
    expect(standsAbove(d.signalSide, true)).toBe(false);
    expect(standsAbove('left', true)).toBe(true);
    const left = done(d, { do: 'stand signals', side: 'left' }).document;
    expect(standsAbove(left.signalSide, true)).toBe(true);
  });
});

describe('rulers', () => {
  test('centimetres in steps of 1, 2 or 5 with labels far enough apart', () => {
    for (const scale of [1e-6, 5.7e-6, 2e-5, 3e-4]) {
      const { ticks, unit } = layoutTicks(0, cm(1200).tenthUm, scale, 'cm');
      const labels = ticks.filter((t) => t.label);
      expect(unit).toBe('cm');
      expect(labels.length).toBeGreaterThan(0);
      for (let i = 1; i < labels.length; i++) expect((labels[i]!.at - labels[i - 1]!.at) * scale).toBeGreaterThan(45);
    }
  });
  test('a label says its own distance, in inches and at full size', () => {
    const inches = layoutTicks(0, 254_000 * 200, 5e-6, 'inch').ticks.filter((t) => t.label);
    for (const tick of inches) expect(tick.at).toBeCloseTo(Number(tick.label) * 254_000, 3);
    const full = scaleTicks(0, cm(500).tenthUm, 5e-6, 'cm', 'H0').ticks.filter((t) => t.label);
    for (const tick of full) expect(tick.at).toBeCloseTo((Number(tick.label) * 1e7) / 87, 3);
  });
});

describe('the reasons of a block', () => {
  const d = smallValley();
  const view = viewDesign(d);
  test('a plain block’s terms add up to its length', () => {
    for (const block of view.blocks) {
      const reason = reasonBlock(d, block);
      expect(reason.value).toBe(showLength(block.length, 'cm'));
      const [length] = reason.because;
      if (length!.says !== 'Its length') continue;
      const sum = length!.because.reduce((total, part) => total + Number.parseFloat(part.value!), 0);
      expect(sum).toBeCloseTo(block.length / 1e5, 6);
    }
  });
  test('it says of every train whether it fits, and by how much', () => {
    const reason = reasonBlock(d, view.blocks.find((b) => b.name === 'SB')!);
    expect(reason.because.map((r) => `${r.says}: ${r.value ?? ''}`)).toContain(
      'Quarry empties is too long and occupies the block behind too: −21 cm',
    );
    expect(reason.because.map((r) => `${r.says}: ${r.value ?? ''}`)).toContain('Morning stopper fits: +31 cm');
    expect(countStatements(reason)).toBeGreaterThan(6);
  });
  test('a block without a detector says that it counts as occupied', () => {
    const blind = { ...d, sensors: [] };
    expect(reasonBlock(blind, viewDesign(blind).blocks[0]!).because.map((r) => r.says)).toContain(
      'No detector watches it, so it counts as occupied',
    );
    expect(checkDesign(blind).findings.filter((f) => f.kind === 'track without detection')).toHaveLength(19);
  });
});
