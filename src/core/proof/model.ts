import { consistOf } from '../detection';
import {
  type Compiled,
  emitWasm,
  layoutOf,
  Op,
  type Program,
  previousSlots,
  startWasm,
  type WasmProgram,
} from '../logic';
import { layoutSpeedMmPerS, stoppingDistanceMm } from '../measure';
import { names, type Scheme } from '../patterns';
import { Rehearsal, TICK_MS } from '../simulation';
import type { LayoutDocument } from '../survey';
import { type FieldGroup, Packing } from './packing';
import { type Placement, placementsOf } from './placements';

/** Turnout states: lies straight, lies diverging, moves to straight, moves to diverging. */
export const MOVING = 2;
const BETWEEN = 2;
/** Scans after which a program that still changes counts as one that never settles. */
const MOST_SCANS = 60;
/** How long the trains stand before the proof begins, so that power-up is over. */
export const STANDING_TICKS = 1500;

/** One step, for telling it: a train goes on, a timer ends, a person throws a turnout, a turnout arrives. */
export type Move =
  | { kind: 'advance'; train: number; way: number }
  | { kind: 'timer'; timer: number }
  | { kind: 'throw'; turnout: number; diverging: boolean }
  | { kind: 'arrive'; turnout: number };

/** Kinds of steps, in the uppermost byte of a step’s code; below it 16 bits say which thing, and 8 which choice. */
const [ADVANCE, TIMER, THROW, ARRIVE] = [0, 1, 2, 3] as const;
const encodeMove = (kind: number, index: number, choice: number) => (kind << 24) | (index << 8) | choice;

export function decodeMove(code: number): Move {
  const [index, choice] = [(code >> 8) & 0xffff, code & 0xff];
  switch (code >> 24) {
    case ADVANCE:
      return { kind: 'advance', train: index, way: choice };
    case TIMER:
      return { kind: 'timer', timer: index };
    case THROW:
      return { kind: 'throw', turnout: index, diverging: choice === 1 };
    default:
      return { kind: 'arrive', turnout: index };
  }
}

export type Harm =
  | 'two trains in a block'
  | 'points moved under a train'
  | 'opposing trains'
  | 'points lie wrong'
  | 'never settles';

export interface ProofTrain {
  id: string;
  name: string;
  placements: Placement[];
  /** From where it stands to the middle of its first placement, in mm. */
  leadMm: number;
  /** Bits of the blocks of each placement, `blockWords` words each. */
  blocks: Int32Array;
  /** Chains of plain blocks worked both ways that it stands in: twice the stretch, and one more when it runs back along it. */
  sides: number[][];
}

/** What a state says, unpacked. */
export interface Present {
  at: Int32Array;
  committed: Int32Array;
  turnouts: Int32Array;
}

/**
 * Plant and rule program as one machine that takes one small step at a time: a train goes on to its next event, a timer that
 * counts ends, a person throws a turnout, a turnout arrives. After each the program scans until it settles. Nothing has a
 * duration: a train may wait anywhere, and a timer may end at any moment.
 */
export class ProofModel {
  readonly trains: ProofTrain[] = [];
  readonly scheme: Scheme;
  readonly compiled: Compiled;
  readonly program: Program;
  /** Slots that some PREVIOUS reads. */
  readonly previous: number[];
  readonly words: number;
  /** Trains that stand nowhere and so take no part. */
  readonly present: Present;
  /** Set by `apply` when the step does harm. */
  harm: Harm | undefined;
  private readonly wasm: WasmProgram;
  private readonly memory: Int32Array;
  private readonly at: { before: number; state: number; mayEnd: number };
  private readonly trainFields: FieldGroup;
  private readonly committedFields: FieldGroup;
  private readonly turnoutFields: FieldGroup;
  private readonly memoryFields: FieldGroup;
  /** The words of memory that are part of a state: what is remembered, and what PREVIOUS reads. */
  private readonly remembered: Int32Array;
  private readonly detectSlots: { slot: number; section: number }[];
  private readonly pointSlots: number[];
  private readonly askSlots: [number, number][];
  private readonly driveSlots: number[];
  private readonly aspectSlots: Int32Array;
  private readonly aspects: Int32Array;
  private readonly timers: { word: number; ton: boolean }[];
  private readonly blockWords: number;
  private readonly seen: Uint8Array;

  constructor(readonly document: LayoutDocument) {
    const start = new Rehearsal(document, 0);
    for (const train of start.plant.trains) train.running = false;
    for (let i = 0; i < STANDING_TICKS; i++) start.step();
    this.scheme = start.scheme;
    this.compiled = start.compiled;
    this.program = start.program;
    this.previous = previousSlots(this.compiled);
    const { partition, readings, stretches } = this.scheme;
    this.blockWords = Math.ceil(partition.blocks.length / 32);
    for (const rolling of start.plant.trains) {
      const train = document.trains.find((t) => t.id === rolling.figures.id)!;
      const last = rolling.tape[rolling.tape.length - 1]!;
      const top = layoutSpeedMmPerS(train.topSpeedKmh, document.scale);
      const { placements, leadMm } = placementsOf(
        partition,
        readings,
        consistOf(document, train),
        stoppingDistanceMm(top, 0, train.brakingMmPerS2),
        { tape: rolling.tape.map(({ piece, exit }) => ({ piece, exit })), noseMm: rolling.head - last.from },
      );
      const blocks = new Int32Array(placements.length * this.blockWords);
      placements.forEach((placement, p) => {
        for (const block of placement.blocks) blocks[p * this.blockWords + (block >> 5)]! |= 1 << (block & 31);
      });
      const sides = placements.map(({ tape }) => {
        const found = new Map<number, number>();
        for (const { piece, exit } of tape) {
          const { block } = partition.pieces[piece]!;
          const stretch = stretches.all[stretches.ofBlock[block]!]!;
          if (!stretch.bothWays || found.has(stretch.index)) continue;
          const side = stretches.sideOf(block, piece, exit === 1 ? 0 : 1);
          if (side === 'onward' || side === 'back') found.set(stretch.index, side === 'back' ? 1 : 0);
        }
        return [...found].map(([stretch, back]) => stretch * 2 + back);
      });
      this.trains.push({ id: train.id, name: train.name, placements, leadMm, blocks, sides });
    }
    const slot = (name: string) => this.compiled.slots.get(name)!;
    const detectors = new Map(document.detectors.map((detector) => [detector.id, detector.name]));
    this.detectSlots = partition.sections.flatMap((section) =>
      section.detectors.map((id) => ({ slot: slot(names.detect(detectors.get(id)!)), section: section.index })),
    );
    this.pointSlots = document.turnouts.map((t) => slot(names.points(t.name)));
    this.askSlots = document.turnouts.map((t) => [
      slot(names.ask(t.name, 'straight')),
      slot(names.ask(t.name, 'diverging')),
    ]);
    this.driveSlots = document.turnouts.map((t) => slot(names.drive(t.name)));
    this.aspectSlots = Int32Array.from(readings, (reading) => slot(names.shows(reading.signal.name)));
    this.aspects = new Int32Array(readings.length);
    this.seen = new Uint8Array(partition.sections.length);

    const packing = new Packing();
    for (const train of this.trains) packing.field(train.placements.length);
    const count = this.trains.length;
    for (let t = 0; t < count; t++) packing.field(2);
    for (let t = 0; t < document.turnouts.length; t++) packing.field(4);
    const layout = layoutOf(this.compiled);
    this.at = { before: layout.before / 4, state: layout.state / 4, mayEnd: layout.mayEnd / 4 };
    const kinds = timerKinds(this.compiled);
    this.timers = this.compiled.timers.map((at) => ({ word: this.at.state + at, ton: kinds.get(at)!.op === Op.TON }));
    const since = new Set(this.compiled.timers.map((at) => at + 1));
    const words = [...this.compiled.state.keys()].filter((at) => !since.has(at)).map((at) => this.at.state + at);
    const { previous } = this;
    for (let i = 0; i < words.length; i++) packing.field(2);
    for (let i = 0; i < previous.length; i++) packing.field(4);
    this.remembered = Int32Array.from([...words, ...previous.map((slot) => this.at.before + slot)]);
    this.trainFields = packing.group(0, count);
    this.committedFields = packing.group(count, count);
    this.turnoutFields = packing.group(2 * count, document.turnouts.length);
    this.memoryFields = packing.group(2 * count + document.turnouts.length, this.remembered.length);
    this.words = packing.words;

    this.wasm = startWasm(emitWasm(this.compiled, { untimed: true }));
    this.memory = new Int32Array(this.wasm.memory.buffer);
    const { evaluator } = start;
    this.memory.set(evaluator.values, 0);
    this.memory.set(evaluator.before, this.at.before);
    this.memory.set(evaluator.state, this.at.state);
    this.timers.forEach(({ word, ton }, i) => {
      const ran = start.tick * TICK_MS - this.memory[word + 1]!;
      const { ms } = kinds.get(this.compiled.timers[i]!)!;
      if (ton) this.memory[word + 2] = this.memory[word] === 1 && ran >= ms ? 1 : 0;
      this.memory[word + 1] = 0;
    });
    this.present = {
      at: new Int32Array(this.trains.length),
      committed: new Int32Array(this.trains.length),
      turnouts: Int32Array.from(start.plant.motors, (motor) => (motor.position === 'diverging' ? 1 : 0)),
    };
    this.settle();
  }

  /** The state as it now stands, packed. */
  pack(into: Int32Array): void {
    const { at, committed, turnouts } = this.present;
    for (let w = 0; w < into.length; w++) into[w] = 0;
    this.trainFields.write(into, at);
    this.committedFields.write(into, committed);
    this.turnoutFields.write(into, turnouts);
    this.memoryFields.write(into, this.memory, this.remembered);
  }

  /** Goes to a packed state; every value of the program is then what it was. */
  unpack(from: Int32Array): void {
    this.readPlant(from);
    this.memoryFields.read(from, this.memory, this.remembered);
    this.writeInputs();
    this.wasm.scan(0);
    for (let s = 0; s < this.aspectSlots.length; s++) this.aspects[s] = this.memory[this.aspectSlots[s]!]!;
  }

  private readPlant(from: Int32Array): void {
    const { at, committed, turnouts } = this.present;
    this.trainFields.read(from, at);
    this.committedFields.read(from, committed);
    this.turnoutFields.read(from, turnouts);
  }

  /** Back to the state last unpacked, after a step from it. */
  back(from: Int32Array): void {
    this.readPlant(from);
    this.memoryFields.read(from, this.memory, this.remembered);
  }

  /** What a signal shows in the state last gone to: 0 stop, 1 caution, 2 clear. */
  aspect(signal: number): number {
    return this.aspects[signal]!;
  }

  /** What latches, edges and timers hold now, and what PREVIOUS would read. */
  memoryNow(): { state: Int32Array; before: Int32Array } {
    const { before, state, mayEnd } = this.at;
    return { state: this.memory.slice(state, mayEnd), before: this.memory.slice(before, state) };
  }

  /** The value of a name of the program in the present state. */
  valueOf(name: string): number {
    return this.memory[this.compiled.slots.get(name)!]!;
  }

  /** Writes the code of every step that can be taken from the present state; returns how many. */
  moves(into: Int32Array): number {
    let count = 0;
    const { at, committed, turnouts } = this.present;
    for (let t = 0; t < this.trains.length; t++) {
      const { advances } = this.trains[t]!.placements[at[t]!]!;
      for (let way = 0; way < advances.length; way++) {
        const { signal, turnout, position, facing } = advances[way]!;
        if (signal >= 0 && committed[t] === 0 && this.aspect(signal) === 0) continue;
        if (
          turnout >= 0 &&
          facing &&
          turnouts[turnout] !== (turnouts[turnout]! < MOVING ? position : MOVING + position)
        )
          continue;
        into[count++] = encodeMove(ADVANCE, t, way);
      }
    }
    for (let timer = 0; timer < this.timers.length; timer++)
      if (this.counts(timer)) into[count++] = encodeMove(TIMER, timer, 0);
    for (let t = 0; t < turnouts.length; t++)
      into[count++] =
        turnouts[t]! >= MOVING ? encodeMove(ARRIVE, t, 0) : encodeMove(THROW, t, turnouts[t] === 0 ? 1 : 0);
    return count;
  }

  /** At most this many steps can be taken from any state. */
  get mostMoves(): number {
    return 2 * this.trains.length + this.timers.length + this.present.turnouts.length;
  }

  private counts(timer: number): boolean {
    const { word, ton } = this.timers[timer]!;
    return ton ? this.memory[word] === 1 && this.memory[word + 2] === 0 : this.memory[word + 2] === 1;
  }

  /** Takes a step, given by its code, from the present state and lets the program settle. */
  apply(code: number): void {
    const { at, committed, turnouts } = this.present;
    const index = (code >> 8) & 0xffff;
    const choice = code & 0xff;
    this.harm = undefined;
    switch (code >> 24) {
      case ADVANCE: {
        const { to, signal, turnout, position, seen } = this.trains[index]!.placements[at[index]!]!.advances[choice]!;
        at[index] = to;
        if (signal >= 0) committed[index] = 0;
        if (turnout >= 0 && turnouts[turnout] !== position) this.harm = 'points lie wrong';
        else this.harm = this.clash(index);
        if (!seen) {
          const { facing } = this.trains[index]!.placements[to]!;
          if (facing >= 0 && this.aspects[facing] !== 0) committed[index] = 1;
          return;
        }
        break;
      }
      case TIMER:
        this.pulse(this.at.mayEnd + index);
        break;
      case THROW:
        this.pulse(this.askSlots[index]![choice]!);
        break;
      case ARRIVE:
        turnouts[index]! -= MOVING;
        break;
    }
    this.settle();
  }

  private pulse(word: number): void {
    this.writeInputs();
    this.memory[word] = 1;
    this.wasm.scan(0);
    this.memory[word] = 0;
  }

  private clash(train: number): Harm | undefined {
    const { at } = this.present;
    const words = this.blockWords;
    const mine = this.trains[train]!;
    for (let other = 0; other < this.trains.length; other++) {
      if (other === train) continue;
      const theirs = this.trains[other]!;
      for (const side of mine.sides[at[train]!]!)
        if (theirs.sides[at[other]!]!.includes(side ^ 1)) return 'opposing trains';
      for (let w = 0; w < words; w++)
        if (mine.blocks[at[train]! * words + w]! & theirs.blocks[at[other]! * words + w]!)
          return 'two trains in a block';
    }
    return undefined;
  }

  private writeInputs(): void {
    const { at, turnouts } = this.present;
    this.seen.fill(0);
    for (let t = 0; t < at.length; t++)
      for (const section of this.trains[t]!.placements[at[t]!]!.sections) this.seen[section] = 1;
    for (const { slot, section } of this.detectSlots) this.memory[slot] = this.seen[section]!;
    for (let t = 0; t < turnouts.length; t++)
      this.memory[this.pointSlots[t]!] = turnouts[t]! >= MOVING ? BETWEEN : turnouts[t]!;
  }

  /** Scans until nothing changes; turnouts begin to move, and drivers who see proceed close before a signal count on it. */
  private settle(): void {
    const { turnouts } = this.present;
    this.writeInputs();
    for (let scans = 0; ; scans++) {
      const changed = this.wasm.scan(0);
      this.commit();
      let moved = false;
      for (let t = 0; t < turnouts.length; t++) {
        const drive = this.memory[this.driveSlots[t]!]!;
        if ((turnouts[t]! & 1) === drive) continue;
        turnouts[t] = MOVING + drive;
        moved = true;
        if (this.isOver(t)) this.harm ??= 'points moved under a train';
      }
      if (moved) this.writeInputs();
      else if (changed === 0) return;
      if (scans > MOST_SCANS) {
        this.harm ??= 'never settles';
        return;
      }
    }
  }

  private isOver(turnout: number): boolean {
    const { at } = this.present;
    return this.trains.some((train, t) => train.placements[at[t]!]!.over.includes(turnout));
  }

  private commit(): void {
    const { at, committed } = this.present;
    for (let t = 0; t < at.length; t++) {
      const { facing } = this.trains[t]!.placements[at[t]!]!;
      if (facing >= 0 && this.memory[this.aspectSlots[facing]!] !== 0) committed[t] = 1;
    }
  }
}

/** The kind of each timer and its milliseconds, by where its state begins. */
function timerKinds({ code }: Compiled): Map<number, { op: number; ms: number }> {
  const kinds = new Map<number, { op: number; ms: number }>();
  for (let pc = 0; pc < code.length; ) {
    const op = code[pc++]!;
    if (op >= Op.TON && op <= Op.TP) kinds.set(code[pc]!, { op, ms: code[pc + 1]! });
    pc += op === Op.Not || op === Op.Is || op === Op.Choose ? 0 : op >= Op.TON && op <= Op.TP ? 2 : 1;
  }
  return kinds;
}
