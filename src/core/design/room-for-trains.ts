import { consistOf } from '../detection';
import { fromMm, type TenthUm } from '../measure';
import { isKind, type LayoutDocument } from '../survey';
import type { BlockView } from './design-view';

/** A block or a platform, and how much longer it is than each train; below zero the train does not fit. */
export interface Room {
  id: string;
  name: string;
  kind: 'block' | 'platform';
  length: TenthUm;
  on: { line: string; from: TenthUm; to: TenthUm };
  /** In the order of the trains. */
  spare: TenthUm[];
  /** What the longest train leaves. */
  worst: TenthUm;
}

/** Which train fits where, the worst case first. Blocks with points in them are no place to stand. */
export function roomForTrains(document: LayoutDocument, blocks: readonly BlockView[]): Room[] {
  const lengths = document.trains.map((train) => fromMm(consistOf(document, train).lengthMm));
  if (lengths.length === 0) return [];
  const room = (own: Omit<Room, 'spare' | 'worst'>): Room => {
    const spare = lengths.map((length) => own.length - length);
    return { ...own, spare, worst: Math.min(...spare) };
  };
  const standing = blocks
    .filter(({ turnouts }) => turnouts.length === 0)
    .map(({ id, name, length, pieces, middle }) => {
      const on = pieces.find(({ line, from, to }) => line === middle.line && middle.at >= from && middle.at <= to)!;
      return room({ id, name, kind: 'block', length, on });
    });
  const platforms = document.features.filter(isKind('platform')).map(({ id, name, line, at, to }) =>
    room({
      id,
      name,
      kind: 'platform',
      length: to.tenthUm - at.tenthUm,
      on: { line, from: at.tenthUm, to: to.tenthUm },
    }),
  );
  return [...standing, ...platforms].sort((a, b) => a.worst - b.worst || (a.name < b.name ? -1 : 1));
}
