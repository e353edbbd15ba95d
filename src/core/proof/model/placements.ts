import {
  type Consist,
  cameInBy,
  eachCrossing,
  onwardPieces,
  type Partition,
  partsNoticed,
  turnedRound,
} from '../../detection';
import { mmOf, STOP_SHORT_MM } from '../../measure';
import { entriesBetween, type TapeEntry, turnoutsUnder, whyNotTurnBack } from '../../plant';
import { END_OF_TRACK, type SignalsOn } from '../../signals';
import type { EdgeEnd, Over } from '../../track';
import { withMissed } from './missed';
import type { Advance, Before, Motion, Placement, Start, Turn } from './placement';
import { withRest, withStandingStart } from './start-and-rest';
import { inEitherOrder, ordered, SAME_MM, takenTogether, unnoticedAsOne } from './unnoticed';

/** More signals than this within a braking distance is a survey error. */
export const MOST_BEFORE = 16;

/** The zones of each edge, in mm of its line. */
type ZonesOf = Map<number, { zone: number; from: number; to: number }[]>;

function zonesByEdge(partition: Partition): ZonesOf {
  const found: ZonesOf = new Map();
  partition.graph.fouling.forEach(({ a, b }, pair) => {
    for (const [side, stretches] of [a, b].entries())
      for (const { edge, from, to } of stretches)
        found.set(edge, [...(found.get(edge) ?? []), { zone: pair * 2 + side, from: mmOf(from), to: mmOf(to) }]);
  });
  return found;
}

/**
 * Every placement that a train can reach from its start, whatever the points: its nose, each part that a sensor
 * notices, its last wheel and its tail crossing each boundary; either end of its body crossing the end of a fouling place; signals passed, the places
 * where drivers stop, and braking points, in the order that follows from its lengths. Two events that can fall into one scan are
 * also taken in one step. The first is the start.
 */
export class PlacementsOfTrain {
  private readonly zones: ZonesOf;
  private readonly known = new Map<string, number>();
  private readonly found: Placement[] = [];
  private readonly lookedUp = new Map<number, Before[]>();
  private readonly consists: [Consist, Consist];

  constructor(
    private readonly partition: Partition,
    private readonly signalsOn: SignalsOn,
    consist: Consist,
    private readonly motion: Motion,
    private readonly mayTurn = true,
  ) {
    this.zones = zonesByEdge(partition);
    this.consists = [consist, turnedRound(consist)];
  }

  /** All of them; `leadMm` is how far before its nose the first begins, as a negative number. */
  from(start: Start): { placements: Placement[]; leadMm: number } {
    const last = start.tape[start.tape.length - 1]!;
    const tape = start.tape.map((entry) => ({ ...entry, from: entry.from - last.from, to: entry.to - last.from }));
    /** A nose that stands exactly at the end of a piece, or at a signal there, has not passed it. */
    const end = tape[tape.length - 1]!.to;
    this.at(tape, Math.min(start.noseMm - last.from, end - 3 * SAME_MM), false);
    for (let i = 0; i < this.found.length; i++) this.expand(i);
    const leadMm = this.found[0]!.noseMm[0] - (start.noseMm - last.from);
    const { misses } = this.motion;
    const noticed = takenTogether(
      inEitherOrder(unnoticedAsOne(this.found, this.motion.lookedAt)),
      this.motion.topMmPerS,
    );
    const moving = misses ? withMissed(noticed, misses) : noticed;
    return { placements: this.standing(moving), leadMm };
  }

  /** With the placements in which it stands, where that makes a difference. */
  private standing(moving: Placement[]): Placement[] {
    const { all } = this.partition.fields;
    if (this.motion.closes)
      return withRest(
        moving,
        (field) => all[field]!.fedBy !== undefined,
        (placement) => this.fedBy(placement),
      );
    const { beginsCutOffBy } = this.motion;
    if (beginsCutOffBy === undefined) return moving;
    const [place] = this.found as [Placement];
    const asItStands = { standsOn: place.tape, cameIn: this.cameIn(place.tape) };
    return withStandingStart(moving, place, asItStands, beginsCutOffBy);
  }
  /** The outputs for power that switch the sections in which it may stand; undefined where one of these has current in any case. */
  private fedBy({ tape, noseMm }: Placement): number[] | undefined {
    const under = entriesBetween(tape, noseMm[0] - this.consists[0]!.lengthMm, noseMm[1]);
    const powers = under.map(({ piece }) => this.motion.powers?.[this.partition.pieces[piece]!.section] ?? -1);
    return powers.includes(-1) ? undefined : [...new Set(powers)];
  }

  private lengthOf(piece: number): number {
    return mmOf(this.partition.pieces[piece]!.to - this.partition.pieces[piece]!.from);
  }

  /** The number of the placement of a train on a tape with its nose just beyond `noseMm` of the piece under it. */
  private at(given: TapeEntry[], noseMm: number, turned: boolean): number {
    const consist = this.consists[turned ? 1 : 0]!;
    const head = given[given.length - 1]!;
    const marks = this.marksOf(given, consist);
    const from = marks.reduce((most, mark) => (mark <= noseMm + SAME_MM && mark > most ? mark : most), 0);
    const next = marks.reduce((least, mark) => (mark > noseMm + SAME_MM && mark < least ? mark : least), head.to);
    const middle = (from + next) / 2;
    const tape = entriesBetween(given, middle - consist.lengthMm, middle);
    const key = `${turned ? 'turned ' : ''}${tape.map(({ piece, exit }) => piece * 2 + exit).join(' ')}|${from.toFixed(4)}`;
    const before = this.known.get(key);
    if (before !== undefined) return before;
    const number = this.found.length;
    this.known.set(key, number);
    this.found.push(this.placement(tape, from, next, turned, consist));
    return number;
  }

  /** Positions of the nose on the piece under it at which something happens. */
  private marksOf(tape: TapeEntry[], consist: Consist): number[] {
    const head = tape[tape.length - 1]!;
    const marks = [head.to];
    for (const { at } of this.ahead(head)) marks.push(at, at - STOP_SHORT_MM, at - this.motion.brakingMm);
    const back = [consist.wheelsMm[1], consist.lengthMm];
    eachCrossing(this.partition, consist, tape, (_, __, comes, gone) => marks.push(comes, gone));
    for (const entry of tape) {
      for (const along of back) marks.push(entry.from + along);
      const { edge } = this.partition.pieces[entry.piece]!;
      for (const zone of this.zones.get(edge) ?? []) {
        const [near, far] = this.along(entry, zone.from, zone.to);
        if (far <= entry.from || near >= entry.to) continue;
        if (entry === head) marks.push(near);
        if (far <= entry.to + SAME_MM) marks.push(far + consist.lengthMm);
      }
    }
    if (this.mayTurn)
      for (const entry of tape) {
        /** Where it would have to stop once turned back: a placement must not reach beyond. */
        const reached = this.signalsOn(entry.piece, entry.exit === 1 ? 0 : 1).map(({ alongMm }) => entry.to - alongMm);
        for (const at of [entry.from, ...reached])
          for (const place of [at, at + STOP_SHORT_MM])
            if (place <= entry.to + SAME_MM) marks.push(place + consist.lengthMm);
      }
    return marks.filter((mark) => mark > SAME_MM && mark <= head.to + SAME_MM).map((mark) => Math.min(mark, head.to));
  }

  /** Running distances at which a train that runs along an entry comes to a stretch of its line, and leaves it. */
  private along(entry: TapeEntry, fromMm: number, toMm: number): [number, number] {
    const piece = this.partition.pieces[entry.piece]!;
    return entry.exit === 1
      ? [entry.from + fromMm - mmOf(piece.from), entry.from + toMm - mmOf(piece.from)]
      : [entry.from + mmOf(piece.to) - toMm, entry.from + mmOf(piece.to) - fromMm];
  }

  /** Signals and ends of the track ahead as far as they can matter on a piece, nearest first, on every way. */
  private ahead({ piece: headPiece, exit: headExit }: TapeEntry): Before[] {
    const known = this.lookedUp.get(headPiece * 2 + headExit);
    if (known) return known;
    const upTo = this.lengthOf(headPiece) + this.motion.brakingMm;
    const found: Before[] = [];
    const walk = (piece: number, exit: EdgeEnd, from: number, over: Before['over'], depth: number): void => {
      if (from > upTo || depth > 200) return;
      for (const { index, alongMm } of this.signalsOn(piece, exit))
        if (from + alongMm <= upTo) found.push({ signal: index, at: from + alongMm, over });
      const end = from + this.lengthOf(piece);
      const onward = onwardPieces(this.partition, this.partition.pieces[piece]!, exit);
      if (onward.length === 0 && end <= upTo) found.push({ signal: END_OF_TRACK, at: end, over });
      for (const on of onward) {
        const facing = on.over.filter((o) => o.facing).map(positionOn);
        const set = (motor: number) => over.find((earlier) => earlier.motor === motor);
        if (facing.some(({ motor, position }) => (set(motor)?.position ?? position) !== position)) continue;
        const next = [...over, ...facing.filter(({ motor }) => !set(motor))];
        walk(on.piece.index, on.enters === 0 ? 1 : 0, end, next, depth + 1);
      }
    };
    walk(headPiece, headExit, 0, [], 0);
    found.sort((a, b) => a.at - b.at || a.signal - b.signal || (textOf(a) < textOf(b) ? -1 : 1));
    this.lookedUp.set(headPiece * 2 + headExit, found);
    return found;
  }

  private placement(tape: TapeEntry[], from: number, next: number, turned: boolean, consist: Consist): Placement {
    const { partition, motion } = this;
    const head = tape[tape.length - 1]!;
    const middle = (from + next) / 2;
    const parts: number[][] = Array.from({ length: partsNoticed(partition, consist) }, () => []);
    eachCrossing(partition, consist, tape, (part, field, comes, gone) => {
      if (middle >= comes && middle < gone) parts[part]!.push(field);
    });
    const held = entriesBetween(tape, middle - consist.wheelsMm[1], middle);
    const blocks = (held.length > 0 ? held : [head]).map(({ piece }) => partition.pieces[piece]!.block);
    const zones = new Set<number>();
    for (const entry of tape) {
      for (const zone of this.zones.get(partition.pieces[entry.piece]!.edge) ?? []) {
        const [near, far] = this.along(entry, zone.from, zone.to);
        const [low, high] = [Math.max(near, entry.from), Math.min(far, entry.to)];
        if (high > low && middle > low && middle - consist.lengthMm < high) zones.add(zone.zone);
      }
    }
    const before = this.ahead(head).filter(({ at }) => at > from + SAME_MM && at <= from + motion.brakingMm + SAME_MM);
    if (before.length > MOST_BEFORE)
      throw new Error(
        `A train needs ${Math.round(motion.brakingMm / 10)} cm to stop and has more than ${MOST_BEFORE} signals before it within that. Check its speed and its braking.`,
      );
    const ends = onwardPieces(partition, partition.pieces[head.piece]!, head.exit).length === 0;
    return {
      tape,
      turned,
      noseMm: [from, next],
      blocks: ordered(blocks),
      detected: ordered(parts.flat()),
      heldIn: [ordered(blocks)],
      parts: [parts, parts],
      over: turnoutsUnder(partition, tape),
      zones: ordered(zones),
      zonesThroughout: ordered(zones),
      before,
      terminus: ends && next >= head.to - STOP_SHORT_MM - SAME_MM && before.every(({ signal }) => signal < 0),
      advances: [],
      turns: [],
    };
  }

  /** Finds where a placement leads. */
  private expand(number: number): void {
    const placement = this.found[number]!;
    const { tape, turned, before } = placement;
    const next = placement.noseMm[1];
    const head = tape[tape.length - 1]!;
    const here = (mark: number) => Math.abs(mark - next) <= SAME_MM;
    const passes = [...before.keys()].filter((i) => before[i]!.signal >= 0 && here(before[i]!.at));
    const gates = [...before.keys()].filter((i) => here(before[i]!.at - STOP_SHORT_MM) || here(before[i]!.at));
    /** `onTo`: how far behind the new piece begins, when it comes onto one. */
    const add = (to: number, onTo: number, rest: Partial<Advance> = {}) => {
      const then = this.found[to]!;
      const way = rest.turnouts?.filter(({ facing }) => facing) ?? [];
      placement.advances.push({
        to,
        gates,
        passes,
        carry: before.map((thing, i) => carried(thing, passes.includes(i), then, onTo, way)),
        turnouts: [],
        seen: then.detected.join() !== placement.detected.join(),
        offTheEnd: false,
        runMm: 0,
        ...rest,
      });
    };
    if (next < head.to - SAME_MM) {
      const to = this.at(tape, next, turned);
      add(to, 0);
    } else {
      const onward = onwardPieces(this.partition, this.partition.pieces[head.piece]!, head.exit);
      if (onward.length === 0) add(number, 0, { offTheEnd: true });
      for (const on of onward) {
        const exit: EdgeEnd = on.enters === 0 ? 1 : 0;
        const entered = { piece: on.piece.index, exit, from: 0, to: this.lengthOf(on.piece.index) };
        const behind = tape.map((entry) => ({ ...entry, from: entry.from - head.to, to: entry.to - head.to }));
        const to = this.at([...behind, entered], 0, turned);
        add(to, head.to, { turnouts: on.over.map((o) => ({ ...positionOn(o), facing: o.facing })) });
      }
    }
    if (this.mayTurn) placement.turns = this.turnsOf(placement);
  }

  private turnsOf({ tape, turned, noseMm }: Placement): Turn[] {
    const { lengthMm } = this.consists[0]!;
    const middle = (noseMm[0] + noseMm[1]) / 2;
    if (whyNotTurnBack(this.partition, this.signalsOn, tape, middle - lengthMm, middle)) return [];
    const origin = tape[0]!.to;
    const back = tape
      .map(({ piece, exit, from, to }) => ({
        piece,
        exit: (exit === 1 ? 0 : 1) as EdgeEnd,
        from: origin - to,
        to: origin - from,
      }))
      .reverse();
    const [low, high] = [origin - noseMm[1] + lengthMm, origin - noseMm[0] + lengthMm];
    const found: Turn[] = [];
    for (let nose = Math.max(low, 0); nose < Math.min(high, back[back.length - 1]!.to) - SAME_MM; ) {
      const to = this.at(back, nose, !turned);
      const { tape: standsOn, noseMm: turnedMm } = this.found[to]!;
      found.push({
        to,
        standsOn,
        cameIn: this.cameIn(standsOn),
        standsMm: [high - Math.min(high, turnedMm[1]), high - Math.max(low, turnedMm[0])],
        beyondMm: high - turnedMm[0],
      });
      nose = Math.max(nose + 2 * SAME_MM, turnedMm[1]);
    }
    return found;
  }

  private cameIn(tape: TapeEntry[]): string {
    const ends = tape.map(({ piece, exit }) => cameInBy(this.partition, this.partition.pieces[piece]!, exit));
    return [...new Set(ends.map(({ piece, end }) => `${piece.index}:${end}`))].join(' ');
  }
}

/** A motor of points by its number, and how it has to lie: 0 straight, 1 diverging. */
const positionOn = ({ motor, position }: Over) => ({ motor: motor, position: position === 'diverging' ? 1 : 0 });

const textOf = ({ signal, over }: Before): string =>
  `${signal} ${over.map(({ motor, position }) => `${motor}:${position}`).join()}`;

/** Which of the things before the next placement a thing is; -1 when it was passed or lies on another way. */
function carried(
  thing: Before,
  passed: boolean,
  then: Placement,
  shift: number,
  way: { motor: number; position: number }[],
): number {
  if (passed) return -1;
  const taken = (motor: number) => way.find((chosen) => chosen.motor === motor)?.position;
  if (thing.over.some(({ motor, position }) => (taken(motor) ?? position) !== position)) return -1;
  const own = thing.over.filter(({ motor }) => taken(motor) === undefined);
  const key = textOf({ ...thing, over: own });
  return then.before.findIndex((other) => textOf(other) === key && Math.abs(other.at + shift - thing.at) <= 0.01);
}
