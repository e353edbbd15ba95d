import { consistOf } from '../detection';
import { fromMm, type TenthUm } from '../measure';
import { isKind, type LayoutDocument } from '../survey';
import type { BlockView } from './design-view';

/** A block, a platform, or a loop or road between its points, and how much longer it is than each train; below zero the train does not fit. */
export interface Room {
  id: string;
  name: string;
  kind: 'block' | 'platform' | 'track';
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
  return [...standing, ...platforms, ...tracks(document).map(room)].sort(
    (a, b) => a.worst - b.worst || (a.name < b.name ? -1 : 1),
  );
}

/** Loops and roads, whether cut or not: of each track that leads from points, the longest stretch that is clear of all points on it. */
function tracks(document: LayoutDocument): Omit<Room, 'spare' | 'worst'>[] {
  const { lines, turnouts, crossings } = document;
  return lines.flatMap(({ id, name, length: { tenthUm: whole } }) => {
    const leading = turnouts.flatMap(({ legs, clearance }) =>
      legs.flatMap((leg) => (leg.line === id ? { end: leg.end, clear: clearance.tenthUm } : [])),
    );
    if (leading.length === 0) return [];
    const fouled = [
      ...leading.map(({ end, clear }) =>
        end === 'start' ? { from: 0, to: clear } : { from: whole - clear, to: whole },
      ),
      ...turnouts
        .filter(({ line }) => line === id)
        .map(({ at: { tenthUm: at }, facing, clearance: { tenthUm: clear } }) =>
          facing === 'up' ? { from: at, to: at + clear } : { from: at - clear, to: at },
        ),
      ...crossings
        .flatMap(({ a, b, clearance }) => [a, b].map((place) => ({ ...place, clear: clearance.tenthUm })))
        .filter(({ line }) => line === id)
        .map(({ at: { tenthUm: at }, clear }) => ({ from: at - clear, to: at + clear })),
    ].sort((a, b) => a.from - b.from);
    let best = { from: 0, to: 0 };
    let from = 0;
    for (const next of [...fouled, { from: whole, to: whole }]) {
      if (next.from - from > best.to - best.from) best = { from, to: next.from };
      from = Math.max(from, next.to);
    }
    const length = best.to - best.from;
    return length > 0 ? [{ id, name, kind: 'track' as const, length, on: { line: id, ...best } }] : [];
  });
}
