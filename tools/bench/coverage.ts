import { standsAt } from '../../src/core/design';
import { consistOf, divideTrack } from '../../src/core/detection';
import type { LayoutDocument } from '../../src/core/survey';
import { compileTrack } from '../../src/core/track';
import { generatedLine, generatedTraffic } from '../../src/demo/generated';

/** Puts every train of a busy line into the middle of every block. */
export function coverageOfTraffic(): () => undefined {
  const busy = generatedTraffic(20);
  const partition = divideTrack(busy, compileTrack(busy));
  return () => {
    for (const train of busy.trains) {
      const consist = consistOf(busy, train);
      for (const { pieces } of partition.blocks) {
        const { line, from, to } = partition.pieces[pieces[0]!]!;
        standsAt(busy, partition, train, { line, at: Math.round((from + to) / 2), facing: 'up' }, false, consist);
      }
    }
    return undefined;
  };
}

/** A long line whose ends meet, without its gaps. */
export function uncut(blocks: number): LayoutDocument {
  const line = generatedLine(blocks);
  const [{ id }] = line.lines as [LayoutDocument['lines'][number]];
  return {
    ...line,
    features: line.features.filter(({ kind }) => kind !== 'gap' && kind !== 'mark'),
    joins: [...line.joins, { id: 'round', a: { line: id, end: 'end' }, b: { line: id, end: 'start' } }],
  };
}
