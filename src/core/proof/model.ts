import { type Compiled, emitWasm, layoutOf, type Program, previousSlots, startWasm, type WasmProgram } from '../logic';
import { names, type Scheme } from '../patterns';
import { Rehearsal, TICK_MS } from '../simulation';
import type { LayoutDocument } from '../survey';
import { ADVANCE, ARRIVE, encodeMove, THROW, TIMER } from './move';
import { Packing } from './packing';
import { blockWords, type ProofTrain, proofTrainsOf } from './proof-train';
import { timerKinds } from './timers';

/** Turnout states: lies straight, lies diverging, moves to straight, moves to diverging. */
export const MOVING = 2;
const TURNOUT_STATES = 4;
const BETWEEN = 2;
/** The most values that a name of the rule language has. */
const MOST_VALUES = 4;
/** Scans after which a program that still changes counts as one that never settles. */
const MOST_SCANS = 60;
/** How long the trains stand before the proof begins, so that power-up is over. */
export const STANDING_TICKS = 1500;

export type Harm =
  | 'two trains in a block'
  | 'points moved under a train'
  | 'opposing trains'
  | 'points lie wrong'
  | 'never settles';

/** What a state says of the plant: where each train is, whether it counts on the signal before it, how each turnout stands. */
export interface Present {
  at: Int32Array;
  committed: Int32Array;
  turnouts: Int32Array;
}

/** The emitted program with the means to pack a state and to go back to one. */
type Machine = WasmProgram & { pack(): void; unpack(): void };

/**
 * Plant and rule program as one machine that takes one small step at a time: a train goes on to its next event, a timer that
 * counts ends, a person throws a turnout, a turnout arrives. After each the program scans until it settles. Nothing has a
 * duration: a train may wait anywhere, and a timer may end at any moment. Program and plant share one memory, in words.
 */
export class ProofModel {
  readonly trains: ProofTrain[];
  readonly scheme: Scheme;
  readonly compiled: Compiled;
  readonly program: Program;
  /** Slots that some PREVIOUS reads. */
  readonly previous: number[];
  /** 32-bit words of a packed state. */
  readonly words: number;
  readonly present: Present;
  /** Set by `apply` when the step does harm. */
  harm: Harm | undefined;
  private readonly machine: Machine;
  private readonly memory: Int32Array;
  /** Where in memory the program’s parts begin. */
  private readonly at: { before: number; state: number; mayEnd: number };
  /** Where `pack` writes, and from where `unpack` reads. */
  private readonly packed: Int32Array;
  private readonly origin: Int32Array;
  /** For each train and placement, the detectors that see it, and the signal before it; as words of memory, −1 for none. */
  private readonly seenBy: Int32Array[][];
  private readonly watches: Int32Array[];
  private readonly detectSlots: Int32Array;
  private readonly pointSlots: number[];
  private readonly askSlots: [number, number][];
  private readonly driveSlots: number[];
  private readonly aspectSlots: Int32Array;
  private readonly aspects: Int32Array;
  private readonly timers: { word: number; ton: boolean }[];
  private readonly blockWords: number;

  constructor(readonly document: LayoutDocument) {
    const start = new Rehearsal(document, 0);
    for (const train of start.plant.trains) train.running = false;
    for (let i = 0; i < STANDING_TICKS; i++) start.step();
    this.scheme = start.scheme;
    this.compiled = start.compiled;
    this.program = start.program;
    this.previous = previousSlots(this.compiled);
    this.trains = proofTrainsOf(start);
    const { partition, readings } = this.scheme;
    this.blockWords = blockWords(partition);
    const slot = (name: string) => this.compiled.slots.get(name)!;
    const detectors = new Map(document.detectors.map((detector) => [detector.id, slot(names.detect(detector.name))]));
    const detectorsOf = (section: number) => partition.sections[section]!.detectors.map((id) => detectors.get(id)!);
    this.detectSlots = Int32Array.from(partition.sections.flatMap((section) => detectorsOf(section.index)));
    this.pointSlots = document.turnouts.map((t) => slot(names.points(t.name)));
    this.askSlots = document.turnouts.map((t) => [
      slot(names.ask(t.name, 'straight')),
      slot(names.ask(t.name, 'diverging')),
    ]);
    this.driveSlots = document.turnouts.map((t) => slot(names.drive(t.name)));
    this.aspectSlots = Int32Array.from(readings, (reading) => slot(names.shows(reading.signal.name)));
    this.aspects = new Int32Array(readings.length);
    this.seenBy = this.trains.map((t) => t.placements.map((p) => Int32Array.from(p.sections.flatMap(detectorsOf))));
    this.watches = this.trains.map((t) =>
      Int32Array.from(t.placements, (p) => (p.facing >= 0 ? this.aspectSlots[p.facing]! : -1)),
    );

    const layout = layoutOf(this.compiled);
    this.at = { before: layout.before / 4, state: layout.state / 4, mayEnd: layout.mayEnd / 4 };
    const kinds = timerKinds(this.compiled);
    this.timers = this.compiled.timers.map((at) => ({ word: this.at.state + at, ton: kinds.get(at)!.ton }));
    const [trains, turnouts] = [this.trains.length, document.turnouts.length];
    const plantAt = layout.end / 4;
    const packing = this.packing(plantAt);
    this.words = packing.words;
    const packedAt = plantAt + 2 * trains + turnouts;
    const originAt = packedAt + this.words;
    const functions = packing.functions(4 * packedAt, 4 * originAt);
    const bytes = 4 * (originAt + this.words) - layout.end;
    this.machine = startWasm<Machine>(emitWasm(this.compiled, { untimed: true, beside: { functions, bytes } }));
    this.memory = new Int32Array(this.machine.memory.buffer);
    const part = (from: number, length: number) => this.memory.subarray(from, from + length);
    this.packed = part(packedAt, this.words);
    this.origin = part(originAt, this.words);
    this.present = {
      at: part(plantAt, trains),
      committed: part(plantAt + trains, trains),
      turnouts: part(plantAt + 2 * trains, turnouts),
    };

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
    this.present.turnouts.set(start.plant.motors.map((motor) => (motor.position === 'diverging' ? 1 : 0)));
    this.settle();
  }

  /** What a state is made of: the plant, what latches, edges and timers remember, and what PREVIOUS reads. */
  private packing(plantAt: number): Packing {
    const packing = new Packing();
    const trains = this.trains.length;
    this.trains.forEach((train, t) => {
      packing.field(4 * (plantAt + t), train.placements.length);
    });
    for (let t = 0; t < trains; t++) packing.field(4 * (plantAt + trains + t), 2);
    for (let t = 0; t < this.document.turnouts.length; t++)
      packing.field(4 * (plantAt + 2 * trains + t), TURNOUT_STATES);
    /** When a timer began to count is left out: it may end at any moment. */
    const since = new Set(this.compiled.timers.map((at) => at + 1));
    for (const at of this.compiled.state.keys()) if (!since.has(at)) packing.field(4 * (this.at.state + at), 2);
    for (const slot of this.previous) packing.field(4 * (this.at.before + slot), MOST_VALUES);
    return packing;
  }

  /** The state as it now stands, packed; the same array at every call. */
  pack(): Int32Array {
    this.machine.pack();
    return this.packed;
  }

  /** Goes to a packed state; every value of the program is then what it was. */
  unpack(from: Int32Array): void {
    this.origin.set(from);
    this.machine.unpack();
    this.writeInputs();
    this.machine.scan(0);
    for (let s = 0; s < this.aspectSlots.length; s++) this.aspects[s] = this.memory[this.aspectSlots[s]!]!;
  }

  /** Back to the state last unpacked, after a step from it. */
  back(): void {
    this.machine.unpack();
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
    this.machine.scan(0);
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
    const { memory, detectSlots, seenBy, pointSlots } = this;
    const { at, turnouts } = this.present;
    for (let d = 0; d < detectSlots.length; d++) memory[detectSlots[d]!] = 0;
    for (let t = 0; t < at.length; t++) {
      const seen = seenBy[t]![at[t]!]!;
      for (let d = 0; d < seen.length; d++) memory[seen[d]!] = 1;
    }
    for (let t = 0; t < turnouts.length; t++) memory[pointSlots[t]!] = turnouts[t]! >= MOVING ? BETWEEN : turnouts[t]!;
  }

  /** Scans until nothing changes; turnouts begin to move, and drivers who see proceed close before a signal count on it. */
  private settle(): void {
    const { turnouts } = this.present;
    this.writeInputs();
    for (let scans = 0; ; scans++) {
      const changed = this.machine.scan(0);
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
    const { memory, watches } = this;
    const { at, committed } = this.present;
    for (let t = 0; t < at.length; t++) {
      const slot = watches[t]![at[t]!]!;
      if (slot >= 0 && memory[slot] !== 0) committed[t] = 1;
    }
  }
}
