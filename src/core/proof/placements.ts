import { type Consist, MOST_UNSEEN_TAIL_MM, onwardPieces, type Partition, type Piece } from '../detection';
import { mmOf } from '../measure';
import type { SignalReading } from '../signals';
import type { EdgeEnd } from '../track';

/** Where a train begins: a piece, the end by which it will leave it, and how far its nose has come along it. */
export interface Start {
  /** Pieces it stands on, tail first, each with the end by which it leaves it. */
  tape: { piece: number; exit: EdgeEnd }[];
  /** How far the nose has run in the last of them, in mm. */
  noseMm: number;
}

/** What happens when a train goes from one placement to the next. */
export interface Advance {
  to: number;
  /** Index of the signal it passes, or -1. */
  signal: number;
  /** The turnout it runs onto, or -1, and how that must lie: 0 straight, 1 diverging. */
  turnout: number;
  position: number;
  facing: boolean;
  /** Whether a detector notices: an axle comes into a section, or the last one leaves it. */
  seen: boolean;
  /** How far the train runs between the middles of the two placements, in mm. */
  runMm: number;
}

/** A stretch of a train’s way in which nothing about it changes for anybody: it is somewhere between two events. */
export interface Placement {
  tape: { piece: number; exit: EdgeEnd }[];
  /** Blocks it stands in, and sections that see one of its axles. */
  blocks: number[];
  sections: number[];
  /** Turnouts whose blades it stands over. */
  over: number[];
  /** The next signal before it, when that is no farther than its braking distance; -1 for none. */
  facing: number;
  advances: Advance[];
}

/** Distances nearer than this are one. */
const SAME_MM = 1e-6;

/**
 * Every placement that a train can reach from its start, whatever the points: its nose, each detectable axle and its tail
 * crossing each boundary, signals passed, and braking points, in the order that follows from its lengths. The first is the
 * start; `leadMm` is how far the train runs from where it stands to the middle of it. A train whose length is 0 goes from piece to piece in one step.
 */
export function placementsOf(
  partition: Partition,
  readings: SignalReading[],
  consist: Consist,
  brakingMm: number,
  start: Start,
): { placements: Placement[]; leadMm: number } {
  const signals = new Map<string, { index: number; alongMm: number }[]>();
  for (const reading of readings) {
    const piece = partition.pieces[reading.piece]!;
    const at = reading.signal.at.tenthUm;
    const alongMm = mmOf(reading.exit === 1 ? at - piece.from : piece.to - at);
    const key = `${reading.piece} ${reading.exit}`;
    signals.set(key, [...(signals.get(key) ?? []), { index: reading.index, alongMm }]);
  }
  /** Where its tail is taken to be: a short overhang behind the last axle that is seen holds nothing. */
  const tailMm =
    consist.unseenTailMm <= MOST_UNSEEN_TAIL_MM ? consist.lengthMm - consist.unseenTailMm : consist.lengthMm;
  const lengthOf = (piece: number) => mmOf(partition.pieces[piece]!.to - partition.pieces[piece]!.from);
  /**
   * Signals of a piece in order and the first one beyond it, with their distances from its entry. Beyond facing points the way
   * is not known, so there none is looked for.
   */
  const signalsAhead = (piece: number, exit: EdgeEnd) => {
    const own = (signals.get(`${piece} ${exit}`) ?? []).sort((a, b) => a.alongMm - b.alongMm);
    let here = { piece, exit };
    for (let reach = lengthOf(piece); reach < lengthOf(piece) + brakingMm; reach += lengthOf(here.piece)) {
      const [on, ...others] = onwardPieces(partition, partition.pieces[here.piece]!, here.exit);
      if (!on || others.length > 0) break;
      here = { piece: on.piece.index, exit: on.enters === 0 ? 1 : 0 };
      const [first] = signals.get(`${here.piece} ${here.exit}`) ?? [];
      if (first) return [...own, { index: first.index, alongMm: reach + first.alongMm }];
    }
    return own;
  };
  const known = new Map<string, number>();
  const found: Placement[] = [];
  const middles: number[] = [];

  /** The placement of a train on a tape with its nose just beyond `noseMm`; 0 means just entered. */
  const placementAt = (tape: Start['tape'], noseMm: number): number => {
    const head = tape[tape.length - 1]!;
    const length = lengthOf(head.piece);
    /** Distance behind the entry of the head piece at which each earlier boundary lies. */
    const behind: number[] = [];
    for (let i = tape.length - 1, sum = 0; i >= 0; i--) {
      behind[i] = sum;
      if (i > 0) sum += lengthOf(tape[i - 1]!.piece);
    }
    const here = signalsAhead(head.piece, head.exit);
    const marks = [length];
    for (const { alongMm } of here) marks.push(alongMm, alongMm - brakingMm);
    for (const back of behind.slice(1)) for (const at of [...consist.axlesMm, tailMm]) marks.push(at - back);
    const next = Math.min(...marks.filter((mark) => mark > noseMm + SAME_MM && mark <= length + SAME_MM));
    const from = Math.max(0, ...marks.filter((mark) => mark <= noseMm + SAME_MM));
    const middle = (from + next) / 2;
    while (tape.length > 1 && middle - tailMm >= -behind[1]! - SAME_MM) {
      tape = tape.slice(1);
      behind.shift();
    }
    const key = `${tape.map(({ piece, exit }) => piece * 2 + exit).join(' ')}|${from.toFixed(4)}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const number = found.length;
    known.set(key, number);
    middles.push(middle);
    const sections = new Set<number>();
    for (const axle of consist.axlesMm) {
      let i = tape.length - 1;
      while (i > 0 && middle - axle < -behind[i]!) i -= 1;
      sections.add(partition.pieces[tape[i]!.piece]!.section);
    }
    const facing = here.find(({ alongMm }) => alongMm > middle && alongMm - middle <= brakingMm);
    const placement: Placement = {
      tape,
      blocks: [...new Set(tape.map(({ piece }) => partition.pieces[piece]!.block))].sort((a, b) => a - b),
      sections: [...sections].sort((a, b) => a - b),
      over: turnoutsOver(partition, tape),
      facing: facing?.index ?? -1,
      advances: [],
    };
    found.push(placement);
    const passes = here.find(({ alongMm }) => Math.abs(alongMm - next) <= SAME_MM)?.index ?? -1;
    const add = (to: number, runMm: number, turnout?: { index: number; position: string; facing: boolean }) =>
      placement.advances.push({
        to,
        signal: passes,
        turnout: turnout?.index ?? -1,
        position: turnout?.position === 'diverging' ? 1 : 0,
        facing: turnout?.facing ?? false,
        seen: found[to]!.sections.join() !== placement.sections.join(),
        runMm,
      });
    if (next < length - SAME_MM) {
      const to = placementAt(tape, next);
      add(to, middles[to]! - middle);
    } else
      for (const on of onwardPieces(partition, partition.pieces[head.piece]!, head.exit)) {
        const exit: EdgeEnd = on.enters === 0 ? 1 : 0;
        const to = placementAt([...tape, { piece: on.piece.index, exit }], 0);
        add(to, middles[to]! + length - middle, on.turnout);
      }
    return number;
  };
  placementAt(start.tape, start.noseMm);
  const { placements, runMm } = withoutUnseen(found);
  return { placements, leadMm: middles[0]! - start.noseMm + runMm };
}

/** Leaves out placements from which the train can only go on to one that nobody can tell from it. */
function withoutUnseen(placements: Placement[]): { placements: Placement[]; runMm: number } {
  const alike = (a: Placement, b: Placement) =>
    a.facing === b.facing &&
    (['blocks', 'sections', 'over'] as const).every((field) => a[field].join() === b[field].join());
  /** Where a placement leads to that is told apart, and how far that is. */
  const onward = (number: number): { to: number; runMm: number } => {
    let to = number;
    let runMm = 0;
    for (let steps = 0; steps < placements.length; steps++) {
      const { advances } = placements[to]!;
      const [only] = advances;
      if (!only || advances.length > 1 || only.signal >= 0 || only.turnout >= 0) break;
      if (only.to === to || !alike(placements[to]!, placements[only.to]!)) break;
      to = only.to;
      runMm += only.runMm;
    }
    return { to, runMm };
  };
  const numbers = new Map<number, number>();
  const kept: Placement[] = [];
  const numberOf = (old: number): number => {
    const known = numbers.get(old);
    if (known !== undefined) return known;
    const number = kept.length;
    numbers.set(old, number);
    const copy: Placement = { ...placements[old]!, advances: [] };
    kept.push(copy);
    copy.advances = placements[old]!.advances.map((advance) => {
      const { to, runMm } = onward(advance.to);
      return { ...advance, to: numberOf(to), runMm: advance.runMm + runMm };
    });
    return number;
  };
  const { to, runMm } = onward(0);
  numberOf(to);
  return { placements: kept, runMm };
}

/** Turnouts with the stem under one part of the train and a leg under the next. */
function turnoutsOver(partition: Partition, tape: Start['tape']): number[] {
  const { graph, pieces } = partition;
  const found: number[] = [];
  for (let i = 0; i + 1 < tape.length; i++) {
    const [one, two]: [Piece, Piece] = [pieces[tape[i]!.piece]!, pieces[tape[i + 1]!.piece]!];
    for (const node of graph.turnouts) {
      const legs = [node.straight.edge, node.diverging.edge];
      const over =
        (one.edge === node.stem.edge && legs.includes(two.edge)) ||
        (two.edge === node.stem.edge && legs.includes(one.edge));
      if (over && !found.includes(node.index)) found.push(node.index);
    }
  }
  return found.sort((a, b) => a - b);
}
