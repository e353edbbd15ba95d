import { describe, expect, test } from 'vitest';
import { Bench, checkDesign, viewSignal } from '@/core/design';
import { FreeLayout } from '@/core/design/free-layout';
import { names } from '@/core/patterns';
import { signalsOf } from '@/core/survey';
import { generatedLine } from '@/demo/generated';
import { ring } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { fork } from './fork';

const matrixOf = (d: Parameters<typeof checkDesign>[0]) => new Bench(checkDesign(d)).matrix({});

describe('every place against every signal', () => {
  test('on a ring, by pencil: stop before the block, caution one before, clear else', () => {
    const { signals, alone, rows } = matrixOf(ring('Seven', 7, 150));
    expect(signals.map(({ name }) => name)).toEqual(['S1', 'S2', 'S3', 'S4', 'S5', 'S6', 'S7']);
    expect(new Set(alone)).toEqual(new Set(['clear']));
    rows.forEach(({ name, aspects }) => {
      const block = Number(name.slice(1));
      aspects.forEach((aspect, s) => {
        /** The signal before block n is Sn; it is read from block n - 1. */
        const ahead = (block - (s + 1) + 7) % 7;
        expect(aspect, `${name} S${s + 1}`).toBe(
          ahead === 0 ? 'stop' : ahead === 6 ? undefined : ahead === 1 ? 'caution' : 'clear',
        );
      });
    });
  });
  test.each([
    ['Ondrel Valley', ondrelValley()],
    ['a line worked both ways', generatedLine(12)],
  ])('%s: each cell is what a fresh layout gives on which nothing was tried before', (_, d) => {
    const design = checkDesign(d);
    const { partition, readings, trafficSections, aspects, terminals } = design.system;
    const { rows } = new Bench(design).matrix({});
    let compared = 0;
    for (let row = 0; row < rows.length; row += 5)
      for (let s = row % 3; s < readings.length; s += 3) {
        const { signal, rear, piece, exit } = readings[s]!;
        if (partition.blocks[rear]!.id === rows[row]!.block) continue;
        const stretch = trafficSections.all[trafficSections.ofBlock[rear]!]!;
        const side = trafficSections.sideCameInBy(piece, exit);
        const said = terminals.find('direction', stretch.index, side)?.slot;
        const came = stretch.bothWays && said !== undefined ? [said] : [];
        const fresh = new FreeLayout(design.system, {});
        const values = fresh.setDown(new Set([partition.blocks[rear]!.id, rows[row]!.block]), came);
        const shows = aspects[values[fresh.compiled.slots.get(names.shows(signal))!]!]!.id;
        expect(rows[row]!.aspects[s], `${signal.name} with ${rows[row]!.name} taken`).toBe(shows);
        compared += 1;
      }
    expect(compared).toBeGreaterThan(8);
  });
  test('an occupied block is never passed at clear by the signal before it', () => {
    const design = checkDesign(ondrelValley());
    const { rows, signals } = new Bench(design).matrix({});
    let looked = 0;
    for (const { block, aspects } of rows)
      signals.forEach(({ id }, s) => {
        const reading = design.scheme.readings.find(({ signal }) => signal.id === id)!;
        const index = design.scheme.partition.blocks.findIndex((one) => one.id === block);
        if (reading.routes.length === 0 || !reading.routes.every(({ blocks }) => blocks.some((b) => b.block === index)))
          return;
        /** Where a post lets trains in, no sensor is asked. */
        if (aspects[s] === undefined || reading.signal.patterns?.includes('authority')) return;
        looked += 1;
        expect(aspects[s], `${signals[s]!.name} with ${block} taken`).toBe('stop');
      });
    expect(looked).toBeGreaterThan(20);
  });
});

describe('what a signal shows, and when, read off its rule', () => {
  const treeOf = (system: string, name: string) => {
    const d = fork(system);
    const view = viewSignal(checkDesign(d), signalsOf(d).find((s) => s.name === name)!.id)!;
    return Object.fromEntries(view.routes.map(({ to, branches }) => [to, branches]));
  };
  test('three aspects', () => {
    expect(treeOf('three-aspect', 'Home')).toEqual({
      Last: [
        { aspect: 'caution', when: ['Last at stop'] },
        { aspect: 'clear', when: ['Last shows proceed'] },
      ],
      Side: [
        { aspect: 'caution', when: ['Side at stop'] },
        { aspect: 'clear', when: ['Side shows proceed'] },
      ],
    });
    expect(treeOf('three-aspect', 'Last')).toEqual({ C: [{ aspect: 'caution', when: [] }] });
  });
  test('four aspects tell what the next announces', () => {
    expect(treeOf('four-aspect', 'Home').Last).toEqual([
      { aspect: 'caution', when: ['Last at stop'] },
      { aspect: 'early caution', when: ['Last at caution'] },
      { aspect: 'clear', when: ['Last shows proceed'] },
    ]);
  });
  test('speed signals tell ways aside, their own and the next one’s', () => {
    expect(treeOf('speed-signals', 'Home').Side).toEqual([
      { aspect: 'medium caution', when: ['Side at stop'] },
      { aspect: 'medium clear', when: ['Side shows proceed'] },
    ]);
    expect(treeOf('speed-signals', 'Far').Home).toEqual([
      { aspect: 'caution', when: ['Home at stop'] },
      { aspect: 'clear', when: ['Home shows proceed, straight on'] },
      { aspect: 'approach medium', when: ['Home shows proceed, aside'] },
    ]);
  });
});
