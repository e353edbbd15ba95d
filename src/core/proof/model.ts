import { type Compiled, emitWasm, layoutOf, type Program, previousSlots, startWasm, type WasmProgram } from '../logic';
import { names, type Scheme } from '../patterns';
import { faceToFace } from '../plant';
import { END_OF_TRACK } from '../signals';
import { HARM_IDS, type HarmId, harmOfEvent, harmsNow, Rehearsal, type Telling, TICK_MS } from '../simulation';
import type { LayoutDocument } from '../survey';
import { boundCarried, boundNow, boundPast, boundValues, countedOn, STOOD } from './bound';
import { BIT } from './harm-bits';
import { locksOf } from './locks';
import { ADVANCE, choiceOf, encodeMove, indexOf, kindOf, MOVES, type MoveKind, THROW, TOGETHER } from './moves';
import { Packing } from './packing';
import type { Advance, Before } from './placements';
import { meet, type ProofTrain, proofTrainsOf } from './proof-train';
import { STANDARD_SWITCHES, type Switch } from './switches';
import { timerKinds } from './timers';
import { APART, ORDERS, touchOf } from './touch';

/** Turnout states: lies straight, lies diverging, moves to straight, moves to diverging. */
export const MOVING = 2;
const TURNOUT_STATES = 4;
const BETWEEN = 2;
const [NOTHING, SEVERAL] = [-1, -2];
/** Bound past one signal that showed proceed, and no more. */
const PAST_ONE = 2;
/** Scans after which a program that still changes counts as one that never settles. */
const MOST_SCANS = 60;
/** How long the trains stand before the proof begins, so that power-up is over. */
export const STANDING_TICKS = 1500;

/** What a state says of the plant. */
export interface Present {
  /** The placement of each train, and what it is bound to pass (`bound.ts`). */
  at: Int32Array;
  bound: Int32Array;
  turnouts: Int32Array;
  /** For each pair of trains on one piece of track, which lies lower (`touch.ts`). */
  orders: Int32Array;
}

/** The emitted program with the means to pack a state and to go back to one. */
type Machine = WasmProgram & { pack(): void; unpack(): void };

/**
 * Plant and rule program as one machine that takes one small step at a time (`moves.ts`). After each the program scans until it
 * settles. Nothing has a duration: a train may wait anywhere, and a timer may end at any moment. Program and plant share one
 * memory, in words; what steps do to that memory stands here together, since every part of it reads the others.
 */
export class ProofModel {
  readonly trains: ProofTrain[];
  readonly scheme: Scheme;
  readonly compiled: Compiled;
  readonly program: Program;
  /** Slots that some PREVIOUS reads. */
  readonly previous: number[];
  /** Trains that could not be put on the track, and why: nothing is said of them. */
  readonly notPlaced: string[];
  /** What is wrong with how the trains stand before anything moves. */
  readonly startHarms: HarmId[];
  /** 32-bit words of a packed state. */
  readonly words: number;
  readonly present: Present;
  /** Harms of the step taken last, one bit each in the order of HARM_IDS; of the start itself before any step. */
  harms = 0;
  /** The step taken last did harm after which nothing more can be told. */
  ended = false;
  readonly holdSlots: number[];
  readonly timerCount: number;
  private readonly machine: Machine;
  private readonly memory: Int32Array;
  /** Where in memory the program’s parts begin. */
  private readonly at: { before: number; state: number; mayEnd: number };
  /** Where `pack` writes, and from where `unpack` reads. */
  private readonly packed: Int32Array;
  private readonly origin: Int32Array;
  /** For each train and placement, the word of memory of the one signal before it; NOTHING, or SEVERAL things. */
  private readonly alone: Int32Array[];
  /** For each train and placement, the words of memory of the detectors that see it. */
  private readonly seenBy: Int32Array[][];
  private readonly detectSlots: Int32Array;
  private readonly pointSlots: number[];
  private readonly askSlots: [number, number][];
  private readonly driveSlots: number[];
  /** For each turnout, the locks that refuse a request for it; none where requests may do anything else. */
  private readonly refusedBy: number[][];
  /** Turnouts that were locked in the first scan of the step taken last, as bits. */
  lockedAtFirst = 0;
  private readonly aspectSlots: Int32Array;
  private readonly aspects: Int32Array;
  private readonly timers: { word: number; ton: boolean }[];
  /** Words set to 1 for the one scan that follows. */
  private readonly pulses: number[] = [];
  private readonly kinds: { kind: number; list: MoveKind['list'] }[];
  private readonly pairs: [number, number][] = [];
  private readonly pairNumbers = new Map<number, number>();
  private readonly aspectNow = (signal: number) => this.memory[this.aspectSlots[signal]!]!;
  private readonly lies = (turnout: number) => {
    const state = this.present.turnouts[turnout]!;
    return state >= MOVING ? undefined : state;
  };

  constructor(
    readonly document: LayoutDocument,
    readonly on: ReadonlySet<Switch> = STANDARD_SWITCHES,
  ) {
    this.kinds = MOVES.flatMap(({ needs, list }, kind) => (!needs || on.has(needs) ? [{ kind, list }] : []));
    const start = new Rehearsal(document, 0);
    for (const train of start.plant.trains) train.running = false;
    const atStart = new Set<HarmId>();
    for (let i = 0; i < STANDING_TICKS; i++)
      start.step((event) => {
        const harm = harmOfEvent(event);
        if (harm) atStart.add(harm);
      });
    for (const harm of harmsNow(start)) atStart.add(harm);
    this.startHarms = HARM_IDS.filter((harm) => atStart.has(harm));
    this.notPlaced = start.plant.notPlaced.map(({ problem }) => problem);
    this.scheme = start.scheme;
    this.compiled = start.compiled;
    this.program = start.program;
    this.previous = previousSlots(this.compiled);
    this.trains = proofTrainsOf(start, on.has('turn back'));
    const { partition, readings } = this.scheme;
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
    this.refusedBy = document.turnouts.map(({ name }) => locksOf(this.program, name).map(slot));
    this.aspectSlots = Int32Array.from(readings, (reading) => slot(names.shows(reading.signal.name)));
    this.holdSlots = on.has('hold') ? readings.map(({ signal }) => slot(names.hold(signal.name))) : [];
    this.aspects = new Int32Array(readings.length);
    this.alone = this.trains.map((t) =>
      Int32Array.from(t.placements, ({ before: [thing, ...more] }) =>
        !thing
          ? NOTHING
          : more.length + thing.over.length > 0 || thing.signal < 0
            ? SEVERAL
            : this.aspectSlots[thing.signal]!,
      ),
    );
    this.seenBy = this.trains.map((t) => t.placements.map((p) => Int32Array.from(p.sections.flatMap(detectorsOf))));

    const layout = layoutOf(this.compiled);
    this.at = { before: layout.before / 4, state: layout.state / 4, mayEnd: layout.mayEnd / 4 };
    const kinds = timerKinds(this.compiled);
    this.timers = this.compiled.timers.map((at) => ({ word: this.at.state + at, ton: kinds.get(at)!.ton }));
    this.timerCount = this.timers.length;
    const [trains, turnouts] = [this.trains.length, document.turnouts.length];
    const twos = (trains * (trains - 1)) / 2;
    const plantAt = layout.end / 4;
    const packing = this.packing(plantAt, twos);
    this.words = packing.words;
    const packedAt = plantAt + 2 * trains + turnouts + twos;
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
      bound: part(plantAt + trains, trains),
      turnouts: part(plantAt + 2 * trains, turnouts),
      orders: part(plantAt + 2 * trains + turnouts, twos),
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
    for (let t = 0; t < trains; t++) this.lookAround(t);
    this.settle();
  }

  /** What a state is made of: the plant, what latches, edges and timers remember, what PREVIOUS reads, and what is held by hand. */
  private packing(plantAt: number, twos: number): Packing {
    const packing = new Packing();
    const trains = this.trains.length;
    const off = this.on.has('lift') ? 1 : 0;
    this.trains.forEach(({ placements }, t) => {
      packing.field(4 * (plantAt + t), placements.length + off);
    });
    this.trains.forEach(({ placements }, t) => {
      const things = Math.max(...placements.map(({ before }) => before.length));
      if (things > 0) packing.field(4 * (plantAt + trains + t), boundValues(things));
    });
    const turnouts = this.document.turnouts.length;
    for (let t = 0; t < turnouts; t++) packing.field(4 * (plantAt + 2 * trains + t), TURNOUT_STATES);
    for (let i = 0; i < twos; i++) packing.field(4 * (plantAt + 2 * trains + turnouts + i), ORDERS);
    /** When a timer began to count is left out: it may end at any moment. */
    const since = new Set(this.compiled.timers.map((at) => at + 1));
    for (const at of this.compiled.state.keys()) if (!since.has(at)) packing.field(4 * (this.at.state + at), 2);
    const types = new Map(this.program.declarations.map(({ name, type }) => [this.compiled.slots.get(name)!, type]));
    for (const slot of this.previous)
      packing.field(4 * (this.at.before + slot), this.program.enums[types.get(slot)!]?.length ?? 2);
    for (const slot of this.holdSlots) packing.field(4 * slot, 2);
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
  valueAt(slot: number): number {
    return this.memory[slot]!;
  }

  isOff(train: number): boolean {
    return this.present.at[train] === this.trains[train]!.placements.length;
  }
  counts(timer: number): boolean {
    const { word, ton } = this.timers[timer]!;
    return ton ? this.memory[word] === 1 && this.memory[word + 2] === 0 : this.memory[word + 2] === 1;
  }

  /** Writes the code of every single thing that can be done in the present state. */
  moves(into: number[]): void {
    into.length = 0;
    for (const { kind, list } of this.kinds) list(this, (index, choice) => into.push(encodeMove(kind, index, choice)));
  }

  /** Whether a thing may fall into one scan with another. */
  mayPair(code: number): boolean {
    if (!MOVES[kindOf(code)]!.pairs) return false;
    return kindOf(code) !== ADVANCE || this.advanceOf(code).seen;
  }
  /** The code of two things done within one scan. */
  codeOfPair(one: number, two: number): number {
    const key = one * 0x4000000 + two;
    let number = this.pairNumbers.get(key);
    if (number === undefined) {
      number = this.pairs.length;
      this.pairNumbers.set(key, number);
      this.pairs.push([one, two]);
    }
    return encodeMove(TOGETHER, 0, 0) | number;
  }
  /** The single steps that a step is made of. */
  partsOf(code: number): number[] {
    return kindOf(code) === TOGETHER ? [...this.pairs[code & 0xffffff]!] : [code];
  }
  private advanceOf(code: number): Advance {
    const train = indexOf(code);
    return this.trains[train]!.placements[this.present.at[train]!]!.advances[choiceOf(code)]!;
  }
  /** Whether a step gets a train somewhere: past a signal, onto points, or where another detector sees it. */
  getsSomewhere(code: number): boolean {
    if (kindOf(code) !== ADVANCE) return false;
    const train = this.trains[indexOf(code)]!;
    const from = train.placements[this.present.at[indexOf(code)]!]!;
    const { to, passes, turnouts } = this.advanceOf(code);
    if (passes.length + turnouts.length > 0) return true;
    return train.placements[to]!.sections.some((section) => !from.sections.includes(section));
  }
  /** Trains do not turn back, and some train stands at the end of its line, where nothing else is left to do. */
  couldTurnBack(): boolean {
    if (this.on.has('turn back')) return false;
    return this.trains.some(({ placements }, t) => placements[this.present.at[t]!]?.terminus ?? false);
  }

  /** Takes a step, given by its code, from the present state and lets the program settle. */
  apply(code: number): void {
    if (kindOf(code) === TOGETHER) this.applyBoth(...this.pairs[code & 0xffffff]!);
    else this.applyBoth(code, NOTHING);
  }

  /** Takes two single things within one scan; the second may be missing. */
  applyBoth(one: number, two: number): void {
    this.harms = 0;
    this.ended = false;
    this.pulses.length = 0;
    this.lockedAtFirst = 0;
    let scans = this.take(one);
    if (two !== NOTHING) scans = this.take(two) || scans;
    if (scans) this.settle();
    if (this.harms & BIT['rules never settle']) this.ended = true;
  }

  private take(code: number): boolean {
    return MOVES[kindOf(code)]!.take(this, indexOf(code), choiceOf(code));
  }

  /** Whether everything that a train would pass lets it. */
  mayAdvance(train: number, { gates, turnouts }: Advance): boolean {
    const { before } = this.placementOf(train);
    const past = boundPast(this.present.bound[train]!);
    for (const gate of gates) {
      const { signal, over } = before[gate]!;
      if (past > gate || !this.isComing(over)) continue;
      if (signal === END_OF_TRACK || this.aspects[signal] === 0) return false;
    }
    for (const { turnout, position, facing } of turnouts)
      if (facing && (this.lies(turnout) ?? position) !== position) return false;
    return true;
  }

  /** The points do not lie otherwise. Those that move may still come to lie so. */
  private isComing(over: Before['over']): boolean {
    return over.every(({ turnout, position }) => (this.lies(turnout) ?? position) === position);
  }

  advance(train: number, way: number): boolean {
    const { at, bound, turnouts } = this.present;
    const from = this.placementOf(train);
    const { to, passes, carry, turnouts: onto, seen, offTheEnd } = from.advances[way]!;
    if (offTheEnd) {
      this.harms |= BIT['off the end of the track'];
      return false;
    }
    for (const thing of passes) {
      if (this.aspects[from.before[thing]!.signal] !== 0) continue;
      const fell = countedOn(bound[train]!, thing);
      this.harms |= BIT[fell ? 'signal falls too late to stop' : 'stop not announced in time'];
    }
    for (const { turnout, position } of onto) if (turnouts[turnout] !== position) this.harms |= BIT['points lie wrong'];
    at[train] = to;
    bound[train] = boundCarried(bound[train]!, carry);
    this.lookAround(train);
    if (!seen) this.bind(train);
    return seen;
  }

  turnBack(train: number, choice: number): boolean {
    const { at, bound } = this.present;
    const told = this.trains[train]!.tellings[at[train]!]![choice]!;
    at[train] = this.placementOf(train).turns[choice]!.to;
    bound[train] = STOOD;
    this.lookAround(train);
    this.tell(train, told);
    return true;
  }

  /** What a person says of a train where no other stands in the same stretch. */
  private tell(train: number, told: Telling[]): void {
    const { at } = this.present;
    for (const { stretch, input } of told) {
      const slot = this.compiled.slots.get(input);
      const shared = this.trains.some(
        (other, t) =>
          t !== train &&
          !this.isOff(t) &&
          other.placements[at[t]!]!.blocks.some((block) => this.scheme.stretches.ofBlock[block] === stretch),
      );
      if (slot !== undefined && !shared) this.pulses.push(slot);
    }
  }

  canStand(train: number): boolean {
    return this.present.bound[train]! > boundNow(this.placementOf(train).before, STOOD, this.aspectNow, this.lies);
  }
  stand(train: number): boolean {
    this.present.bound[train] = STOOD;
    this.bind(train);
    return false;
  }
  pulseTimer(timer: number): boolean {
    this.pulses.push(this.at.mayEnd + timer);
    return true;
  }
  ask(turnout: number, diverging: number): boolean {
    this.pulses.push(this.askSlots[turnout]![diverging]!);
    return true;
  }
  hold(signal: number, on: number): boolean {
    this.memory[this.holdSlots[signal]!] = on;
    return true;
  }
  lift(train: number): boolean {
    this.present.at[train] = this.trains[train]!.placements.length;
    this.present.bound[train] = STOOD;
    this.lookAround(train);
    return true;
  }
  isFreeToSetDown(train: number): boolean {
    return this.trains.every(
      (other, t) =>
        t === train || this.isOff(t) || !meet(this.trains[train]!.pieces, 0, other.pieces, this.present.at[t]!),
    );
  }
  setDown(train: number): boolean {
    this.present.at[train] = 0;
    this.lookAround(train);
    this.tell(train, this.trains[train]!.toldAtStart);
    return true;
  }

  private placementOf(train: number) {
    return this.trains[train]!.placements[this.present.at[train]!]!;
  }

  /** The harms that lie in where a train now is, and the order in which it stands with others on one piece of track. */
  private lookAround(train: number): void {
    const { at, orders } = this.present;
    const mine = this.trains[train]!;
    const p = at[train]!;
    for (let other = 0; other < this.trains.length; other++) {
      if (other === train) continue;
      const theirs = this.trains[other]!;
      const q = at[other]!;
      const [low, high] = train < other ? [train, other] : [other, train];
      const two = (high * (high - 1)) / 2 + low;
      if (this.isOff(train) || this.isOff(other)) {
        orders[two] = APART;
        continue;
      }
      if (meet(mine.blocks, p, theirs.blocks, q)) this.harms |= BIT['two trains in a block'];
      if (faceToFace(mine.stances[p]!, theirs.stances[q]!)) this.harms |= BIT['face to face'];
      const touch =
        train < other
          ? touchOf(mine, p, theirs, q, orders[two]!, true)
          : touchOf(theirs, q, mine, p, orders[two]!, false);
      orders[two] = touch.order;
      if (touch.possible) this.harms |= BIT['trains touch'];
      if (touch.certain) this.ended = true;
    }
  }

  private writeInputs(): void {
    const { memory, detectSlots, seenBy, pointSlots } = this;
    const { at, turnouts } = this.present;
    for (let d = 0; d < detectSlots.length; d++) memory[detectSlots[d]!] = 0;
    for (let t = 0; t < at.length; t++) {
      const seen = seenBy[t]![at[t]!];
      if (seen) for (let d = 0; d < seen.length; d++) memory[seen[d]!] = 1;
    }
    for (let t = 0; t < turnouts.length; t++) memory[pointSlots[t]!] = turnouts[t]! >= MOVING ? BETWEEN : turnouts[t]!;
  }

  /** Scans until nothing changes; turnouts begin to move, and drivers count on what they see. */
  private settle(): void {
    const { turnouts } = this.present;
    const { memory, pulses } = this;
    this.writeInputs();
    for (const word of pulses) memory[word] = 1;
    for (let scans = 0; ; scans++) {
      let changed = this.machine.scan(0);
      if (scans === 0) {
        if (pulses.length > 0) {
          for (const word of pulses) memory[word] = 0;
          changed = 1;
        }
        this.lockedAtFirst = 0;
        for (let t = 0; t < turnouts.length && t < 32; t++) if (this.isLocked(t)) this.lockedAtFirst |= 1 << t;
      }
      for (let t = 0; t < this.trains.length; t++) this.bind(t);
      let moved = false;
      for (let t = 0; t < turnouts.length; t++) {
        const drive = memory[this.driveSlots[t]!]!;
        if ((turnouts[t]! & 1) === drive) continue;
        turnouts[t] = MOVING + drive;
        moved = true;
        if (this.isOver(t)) this.harms |= BIT['points moved under a train'];
      }
      if (moved) this.writeInputs();
      else if (changed === 0) return;
      if (scans > MOST_SCANS) {
        this.harms |= BIT['rules never settle'];
        return;
      }
    }
  }

  private isLocked(turnout: number): boolean {
    const locks = this.refusedBy[turnout]!;
    for (let i = 0; i < locks.length; i++) if (this.memory[locks[i]!] === 0) return false;
    return locks.length > 0;
  }
  /** A request that is refused in the first scan of another step does nothing to it. */
  isRefused(code: number, lockedAtFirst: number): boolean {
    return kindOf(code) === THROW && indexOf(code) < 32 && (lockedAtFirst >> indexOf(code)) % 2 !== 0;
  }

  private isOver(turnout: number): boolean {
    const { at } = this.present;
    return this.trains.some((train, t) => train.placements[at[t]!]?.over.includes(turnout));
  }

  /** What a train is bound to pass by what its signals show now. */
  private bind(train: number): void {
    const { at, bound } = this.present;
    const alone = this.alone[train]![at[train]!] ?? NOTHING;
    if (alone >= 0) {
      if (this.memory[alone] !== 0) bound[train] = PAST_ONE;
    } else if (alone === NOTHING) bound[train] = STOOD;
    else bound[train] = boundNow(this.placementOf(train).before, bound[train]!, this.aspectNow, this.lies);
  }
}
