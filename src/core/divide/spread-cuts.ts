import type { TenthUm } from '../measure';
import type { Stretch } from './runs';

/** Track between two boundaries, which cuts may divide into blocks. */
export interface Room extends Stretch {
  /** How far the blocks at its ends reach beyond it, over points. */
  before: TenthUm;
  after: TenthUm;
  /** Where no cut may be, in order, none touching the next. */
  barred: readonly Stretch[];
}

/** The nearest place from a distance on, or back, at which a cut may be. */
function freeFrom({ barred }: Room, at: TenthUm, way: 1 | -1): TenthUm {
  const inside = barred.find(({ from, to }) => at > from && at < to);
  return inside ? (way === 1 ? inside.to : inside.from) : at;
}

/** Cuts as near to one end as blocks of a length allow: as many as there can be, or as are asked for. */
function packed(room: Room, need: TenthUm, way: 1 | -1, most = Number.POSITIVE_INFINITY): TenthUm[] {
  const cuts: TenthUm[] = [];
  const [begin, end] =
    way === 1 ? [room.from - room.before, room.to + room.after] : [room.to + room.after, room.from - room.before];
  let last = begin;
  while (cuts.length < most) {
    const least = way === 1 ? Math.max(last + need, room.from + 1) : Math.min(last - need, room.to - 1);
    const at = freeFrom(room, least, way);
    const inRoom = way === 1 ? at < room.to : at > room.from;
    if (!inRoom || (end - at) * way < need) break;
    cuts.push(at);
    last = at;
  }
  return cuts;
}

/** Into how many blocks of at least a length it can be divided, less one; none where it is not even one. */
export const mostCuts = (room: Room, need: TenthUm): number => packed(room, Math.max(1, need), 1).length;

/**
 * So many cuts, the shortest block as long as can be, the rest as even as that leaves. `count` must be no more than there can be with
 * blocks of the length that is needed.
 */
export function spreadCuts(room: Room, count: number, need: TenthUm): TenthUm[] {
  const whole = room.to + room.after - room.from + room.before;
  let [low, high] = [Math.max(1, need), Math.max(1, need, Math.floor(whole / (count + 1)))];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (packed(room, middle, 1, count).length >= count) low = middle;
    else high = middle - 1;
  }
  const latest = packed(room, low, -1, count).reverse();
  const cuts: TenthUm[] = [];
  latest.forEach((late, i) => {
    const least = Math.max((cuts[i - 1] ?? room.from - room.before) + low, room.from + 1);
    const even = Math.round(room.from - room.before + (whole * (i + 1)) / (count + 1));
    const wanted = Math.min(late, Math.max(least, even));
    const [back, on] = [freeFrom(room, wanted, -1), freeFrom(room, wanted, 1)];
    cuts.push(back >= least && (wanted - back <= on - wanted || on > late) ? back : Math.min(on, late));
  });
  return cuts;
}

/** The same cuts at whole steps of a length, wherever that leaves every block as long as is needed. */
export function toSteps(
  room: Room,
  cuts: readonly TenthUm[],
  need: TenthUm,
  step: (at: TenthUm) => TenthUm,
): TenthUm[] {
  const done = [...cuts];
  cuts.forEach((cut, i) => {
    const at = step(cut);
    const back = done[i - 1] ?? room.from - room.before;
    const on = done[i + 1] ?? room.to + room.after;
    const fits = at > room.from && at < room.to && freeFrom(room, at, 1) === at;
    if (fits && at - back >= need && on - at >= need) done[i] = at;
  });
  return done;
}
