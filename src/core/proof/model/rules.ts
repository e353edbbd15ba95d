import { POWER_LEVELS } from '../../kinds';
import { emitWasm, layoutOf, previousSlots, startWasm, type WasmProgram } from '../../logic';
import { Answers } from '../engine/answers';
import { type Field, Packing } from '../engine/packing';
import { grown, numberIn, StateSet } from '../engine/state-set';
import { timerKinds } from './byte-code';
import { DisplayedAspects } from './displayed-aspects';
import { Independence } from './independence';
import type { Standing, Wiring } from './wiring';

/** Turnout states: lies straight, lies diverging, moves to straight, moves to diverging. */
export const MOVING = 2;
const TURNOUT_STATES = 4;
const BETWEEN = 2;
/** Scans after which a program that still changes counts as one that never settles. */
const MOST_SCANS = 60;
const [NOTHING, SEVERAL] = [-1, -2];
/** In place of a print: none was taken, or the rules never settled. */
const NOT_TAKEN = -1;
const UNSETTLED = -2;

/** The emitted program with the means to pack a state and to go back to one. */
type Machine = WasmProgram & { pack(): void; unpack(): void };

/**
 * The rule program of a proof as an automaton, built as it is asked. Its settled states are numbered: what latches, edges, timers
 * and PREVIOUS remember, what is held by hand, and the inputs. Many places of the trains look the same to it, so that most
 * questions have been answered before; the others it answers by scanning until nothing changes. A timer may end at any moment
 * once it counts, and at no other.
 */
export class Rules {
  /** Slots that some PREVIOUS reads. */
  readonly previous: number[];
  readonly timerCount: number;
  /** Number of the state in which it stands before the first step. */
  readonly start: number;
  /** Words of bits that say which detectors see something; and of bits of turnouts. */
  readonly inputWords: number;
  readonly turnoutWords: number;
  /** What signals show and how turnouts lie, by number. */
  readonly displays: DisplayedAspects;
  readonly independence: Independence;

  /** Of the step asked for last: the state it leads to, and how it goes, as a number (`shownIn` and what follows it). */
  to = 0;
  effect = 0;
  /** How many steps were asked for, and how many of these had to be found by scanning. */
  questions = 0;
  misses = 0;

  private readonly states: StateSet;
  private readonly machine: Machine;
  private readonly memory: Int32Array;
  private readonly packed: Int32Array;
  private readonly origin: Int32Array;
  /** Where in memory the program’s parts begin. */
  private readonly at: { before: number; state: number; mayEnd: number };
  private readonly turnouts: Int32Array;
  /** Of each output for power, whether its section is cut off; and of each sensor, which feeds it, if one does. */
  private readonly dead: Int32Array;
  private readonly fedBy: number[];
  /** Sensors that want power, and where memory has what each would see with it. */
  private readonly under: number[];
  private readonly underAt: number;
  /** What sensors see, or would see if they were fed. */
  private readonly seen: Int32Array;
  private readonly turnoutFields: Field[];
  private readonly deadFields: Field[];
  private readonly holdFields: Field[];
  private readonly timerFields: { last: Field; counts: Field; ton: boolean }[];
  /** For each state, what it shows. */
  private shows = new Int32Array(1024);
  /** For each state, how turnouts lie: two bits each, 16 in a word. */
  private lies: Int32Array;
  private readonly liesWords: number;
  /** How steps go: the print, what was shown, turnouts that began to move, and those that were locked in the first scan. */
  private readonly effects: StateSet;
  private readonly effectNow: Int32Array;
  private readonly answers: Answers;
  private readonly question: Int32Array;
  /** What is done to words in the next step, and how many of these count: twice the word, and one more to turn it over for good. */
  private readonly pokes: number[] = [];
  private poked = 0;
  /** What was shown at each scan of the step that is being taken. */
  private readonly shown = new Int32Array(MOST_SCANS + 3);
  /** Numbers of more than two things done to words at once. */
  private readonly several = new Map<string, number>();
  /** The state that memory holds, and the one whose memory the prints know. */
  private loaded = NOTHING;
  private printedFrom = NOTHING;

  constructor(
    readonly wiring: Wiring,
    standing: Standing,
  ) {
    const { compiled, program, drives, aspects } = wiring;
    const count = drives.length;
    this.previous = previousSlots(compiled);
    this.inputWords = Math.max(1, Math.ceil(wiring.detects.length / 32));
    this.turnoutWords = Math.max(1, Math.ceil(count / 32));
    this.liesWords = Math.ceil(count / 16);
    this.lies = new Int32Array(64 * this.liesWords);
    this.timerCount = compiled.timers.length;

    const layout = layoutOf(compiled);
    this.at = { before: layout.before / 4, state: layout.state / 4, mayEnd: layout.mayEnd / 4 };
    const turnoutsAt = layout.end / 4;
    const deadAt = turnoutsAt + count;
    const kinds = timerKinds(compiled);
    const packing = new Packing();
    this.turnoutFields = drives.map((_, t) => packing.field(turnoutsAt + t, TURNOUT_STATES));
    for (const slot of wiring.detects) packing.field(slot, 2);
    this.deadFields = wiring.powers.map((_, p) => packing.field(deadAt + p, 2));
    this.fedBy = wiring.detects.map((_, d) => wiring.powers.findIndex(({ detects }) => detects.includes(d)));
    this.underAt = deadAt + wiring.powers.length;
    this.under = this.fedBy.flatMap((power, d) => (power >= 0 ? [d] : []));
    this.under.forEach((_, i) => {
      packing.field(this.underAt + i, 2);
    });
    /** When a timer began to count is left out: it may end at any moment. */
    const since = new Set(compiled.timers.map((at) => at + 1));
    const remembered = [...compiled.state.keys()].map((at) =>
      since.has(at) ? undefined : packing.field(this.at.state + at, 2),
    );
    this.timerFields = compiled.timers.map((at) => ({
      last: remembered[at]!,
      counts: remembered[at + 2]!,
      ton: kinds.get(at)!.ton,
    }));
    const types = new Map(program.declarations.map(({ name, type }) => [compiled.slots.get(name)!, type]));
    for (const slot of this.previous)
      packing.field(this.at.before + slot, program.enums[types.get(slot)!]?.length ?? 2);
    this.holdFields = wiring.hands.map(({ slot }) => packing.field(slot, 2));

    const packedAt = this.underAt + this.under.length;
    const originAt = packedAt + packing.words;
    const functions = packing.functions(packedAt, originAt);
    const bytes = 4 * (originAt + packing.words) - layout.end;
    this.machine = startWasm<Machine>(emitWasm(compiled, { untimed: true, beside: { functions, bytes } }));
    this.memory = new Int32Array(this.machine.memory.buffer);
    const part = (from: number, length: number) => this.memory.subarray(from, from + length);
    this.turnouts = part(turnoutsAt, count);
    this.dead = part(deadAt, wiring.powers.length);
    this.seen = new Int32Array(this.inputWords);
    this.packed = part(packedAt, packing.words);
    this.origin = part(originAt, packing.words);
    this.states = new StateSet(packing.words);
    this.displays = new DisplayedAspects(aspects.length, count, wiring.stops);
    this.independence = new Independence(compiled, count, aspects.length + count);
    this.effects = new StateSet(2 + 2 * this.turnoutWords);
    this.effectNow = new Int32Array(this.effects.words);
    this.question = new Int32Array(3 + this.inputWords + Math.ceil(count / 16));
    this.answers = new Answers(this.question.length);

    this.memory.set(standing.values, 0);
    this.memory.set(standing.before, this.at.before);
    this.memory.set(standing.state, this.at.state);
    for (const at of compiled.timers) {
      const { ton, ms } = kinds.get(at)!;
      const word = this.at.state + at;
      if (ton) this.memory[word + 2] = this.memory[word] === 1 && standing.nowMs - this.memory[word + 1]! >= ms ? 1 : 0;
      this.memory[word + 1] = 0;
    }
    this.turnouts.set(standing.turnouts);
    this.dead.set(standing.dead);
    wiring.detects.forEach((slot, d) => {
      if (this.memory[slot]) this.seen[d >> 5]! |= 1 << (d & 31);
    });
    this.keepUnder();
    this.settle(NOTHING);
    this.start = this.to;
  }

  /** Bytes held for states and answers. */
  get bytes(): number {
    const parts = [this.states, this.displays, this.independence, this.effects, this.answers];
    return parts.reduce((sum, { bytes }) => sum + bytes, this.shows.byteLength + this.lies.byteLength);
  }

  private read(state: number, { word, shift, mask }: Field): number {
    return (this.states.word(state, word) >>> shift) & mask;
  }
  turnoutIn(state: number, motor: number): number {
    return this.read(state, this.turnoutFields[motor]!);
  }
  /** The same for every motor. */
  readTurnouts(state: number, into: Int32Array): void {
    for (let t = 0, at = state * this.liesWords; t < into.length; at++)
      for (let bits = this.lies[at]!, i = 0; i < 32 && t < into.length; i += 2) into[t++] = (bits >> i) & 3;
  }
  isCutOff(state: number, power: number): boolean {
    return this.read(state, this.deadFields[power]!) === 1;
  }
  isHeld(state: number, hold: number): boolean {
    return this.read(state, this.holdFields[hold]!) === 1;
  }
  counts(state: number, timer: number): boolean {
    const { last, counts, ton } = this.timerFields[timer]!;
    return ton ? this.read(state, last) === 1 && this.read(state, counts) === 0 : this.read(state, counts) === 1;
  }
  /** What a state shows (`displays`). */
  displayedIn(state: number): number {
    return this.shows[state]!;
  }

  /** What signals showed and how turnouts lay at each scan, as a list of displays. */
  shownIn(effect: number): number {
    return this.effects.word(effect, 1);
  }
  /** Whether a turnout was locked in the first scan. */
  wasLocked(effect: number, motor: number): boolean {
    return ((this.effects.word(effect, 2 + this.turnoutWords + (motor >> 5)) >> (motor & 31)) & 1) === 1;
  }
  /** Turnouts that began to move, as bits of one word after the other. */
  movedIn(effect: number, word: number): number {
    return this.effects.word(effect, 2 + word);
  }
  neverSettles(effect: number): boolean {
    return this.effects.word(effect, 0) === UNSETTLED;
  }
  /** Two steps from one state, of which prints were taken, have nothing to do with each other (`Independence.areApart`). */
  areApart(effect: number, other: number): boolean {
    const [one, two] = [this.effects.word(effect, 0), this.effects.word(other, 0)];
    return one >= 0 && two >= 0 && this.independence.areApart(one, two);
  }
  /** Whether a step of which a print was taken changes any of some signals and turnouts. */
  changesAny(effect: number, bits: Int32Array, at: number): boolean {
    return this.independence.changesAny(this.effects.word(effect, 0), bits, at);
  }

  /** The step asked for last leads back to the state that it was taken from, and nothing was shown meanwhile that is not shown there. */
  leavesAlone(from: number): boolean {
    const shown = this.shownIn(this.effect);
    const steady =
      this.displays.first(shown) === this.shows[from] && this.displays.rest(shown) === DisplayedAspects.NONE;
    return this.to === from && steady && !this.neverSettles(this.effect);
  }

  /** Sets a slot for the one scan that follows in the next step, */
  pulse(slot: number): void {
    this.pokes[this.poked++] = 2 * slot;
  }
  /** lets a timer end in it, */
  endTimer(timer: number): void {
    this.pulse(this.at.mayEnd + timer);
  }
  /** or works an input by hand, or lets it go. */
  holdOrLetGo(hand: number): void {
    this.pokes[this.poked++] = 2 * this.wiring.hands[hand]!.slot + 1;
  }

  /** From a settled state: detectors see so, and turnouts lie so. Sets `to` and `effect`. */
  step(from: number, seen: Int32Array, turnouts: Int32Array, wantPrint: boolean): void {
    const { question, pokes, poked, answers } = this;
    this.questions += 1;
    if (this.isOnce) {
      this.scanFrom(from, seen, turnouts, wantPrint);
      this.poked = 0;
      return;
    }
    let k = 0;
    question[k++] = from;
    question[k++] = poked > 2 ? SEVERAL : poked > 0 ? pokes[0]! : NOTHING;
    question[k++] = poked > 2 ? this.numberOf(pokes.slice(0, poked)) : poked > 1 ? pokes[1]! : NOTHING;
    for (let w = 0; w < seen.length; w++) question[k++] = seen[w]!;
    for (let t = 0; t < turnouts.length; k++) {
      let bits = 0;
      for (let i = 0; i < 32 && t < turnouts.length; i += 2) bits |= turnouts[t++]! << i;
      question[k] = bits;
    }
    const known = answers.find(question);
    if (known >= 0 && !(wantPrint && this.effects.word(answers.second(known), 0) === NOT_TAKEN)) {
      this.to = answers.first(known);
      this.effect = answers.second(known);
    } else {
      this.scanFrom(from, seen, turnouts, wantPrint);
      answers.keep(question, this.to, this.effect);
    }
    this.poked = 0;
  }

  /** Steps that nobody will ask for again are not looked for among those known, nor kept in the place of others. */
  isOnce = false;

  private scanFrom(from: number, seen: Int32Array, turnouts: Int32Array, wantPrint: boolean): void {
    this.misses += 1;
    if (wantPrint && this.printedFrom !== from) {
      this.independence.before(this.valuesIn(from));
      this.printedFrom = from;
    }
    this.load(from);
    this.seen.set(seen);
    this.keepUnder();
    this.writeSeen();
    this.turnouts.set(turnouts);
    this.settle(wantPrint ? from : NOTHING);
  }

  private numberOf(pokes: number[]): number {
    const text = pokes.sort((a, b) => a - b).join();
    const number = this.several.get(text) ?? this.several.size;
    this.several.set(text, number);
    return number;
  }

  /** Brings memory to a settled state; values that rules compute are those of some other one. */
  private load(state: number): void {
    this.states.read(state, this.origin);
    this.machine.unpack();
    this.loaded = NOTHING;
  }

  /** Scans until nothing changes; turnouts begin to move as they are driven. A print is taken where the state before is given. */
  private settle(from: number): void {
    const { memory, turnouts, effectNow, independence, displays, wiring, pokes, poked, shown } = this;
    let shownCount = 0;
    let displayed = NOTHING;
    let unsettled = false;
    /** What goes into the next scan is not what went into the one before. */
    let isOther = true;
    effectNow.fill(0);
    independence.begin();
    this.writePoints();
    for (let i = 0; i < poked; i++) {
      const poke = pokes[i]!;
      if (from >= 0) independence.touch(poke >> 1);
      memory[poke >> 1] = poke & 1 ? 1 - memory[poke >> 1]! : 1;
    }
    for (let scans = 0; ; scans++) {
      let changed = this.machine.scan(0);
      if (scans === 0) {
        for (let i = 0; i < poked; i++)
          if (!(pokes[i]! & 1)) {
            memory[pokes[i]! >> 1] = 0;
            changed = 1;
          }
        for (let t = 0; t < turnouts.length; t++)
          if (this.isLocked(t)) effectNow[2 + this.turnoutWords + (t >> 5)]! |= 1 << (t & 31);
      }
      /** A scan that has changed nothing, from the same inputs, shows what was shown before. */
      if (isOther || changed !== 0) {
        displayed = displays.take(memory, wiring.aspects, turnouts);
        if (shownCount === 0 || shown[shownCount - 1] !== displayed) shown[shownCount++] = displayed;
        if (from >= 0) independence.after(memory);
      }
      isOther = false;
      for (let t = 0; t < turnouts.length; t++) {
        const drive = memory[wiring.drives[t]!]!;
        if ((turnouts[t]! & 1) === drive) continue;
        turnouts[t] = MOVING + drive;
        effectNow[2 + (t >> 5)]! |= 1 << (t & 31);
        isOther = true;
      }
      if (isOther) this.writePoints();
      if (this.cutOff()) {
        this.writeSeen();
        isOther = true;
      } else if (!isOther && changed === 0) break;
      if (scans > MOST_SCANS) {
        unsettled = true;
        break;
      }
    }
    effectNow[0] = unsettled
      ? UNSETTLED
      : from >= 0
        ? independence.end(displays, this.shows[from]!, shown, shownCount)
        : NOT_TAKEN;
    effectNow[1] = displays.listOf(shown, shownCount);
    this.effect = numberIn(this.effects, effectNow);
    this.machine.pack();
    const known = this.states.size;
    this.to = numberIn(this.states, this.packed);
    if (this.to === known) this.noteLies(known);
    this.loaded = this.to;
    if (this.to >= this.shows.length) this.shows = grown(this.shows);
    this.shows[this.to] = unsettled ? displays.take(memory, wiring.aspects, turnouts) : displayed;
  }

  private noteLies(state: number): void {
    const { turnouts, liesWords } = this;
    while ((state + 1) * liesWords > this.lies.length) this.lies = grown(this.lies);
    for (let t = 0; t < turnouts.length; t++)
      this.lies[state * liesWords + (t >> 4)]! |= turnouts[t]! << ((t & 15) * 2);
  }

  /** Sections are cut off, or fed again, as rules say; true when any is. */
  private cutOff(): boolean {
    const { memory, dead, wiring } = this;
    let changed = false;
    for (let p = 0; p < dead.length; p++) {
      const now = POWER_LEVELS[memory[wiring.powers[p]!.slot]!]!.feeds ? 0 : 1;
      if (dead[p] === now) continue;
      dead[p] = now;
      changed = true;
    }
    return changed;
  }

  /** What a sensor would see if its section were fed is part of the state: it does see it as soon as that has power again. */
  private keepUnder(): void {
    for (let i = 0; i < this.under.length; i++) {
      const d = this.under[i]!;
      this.memory[this.underAt + i] = (this.seen[d >> 5]! >> (d & 31)) & 1;
    }
  }

  /** A sensor in a section that is cut off sees nothing. */
  private writeSeen(): void {
    const { memory, seen, dead, fedBy } = this;
    const { detects } = this.wiring;
    for (let d = 0; d < detects.length; d++)
      memory[detects[d]!] = dead[fedBy[d]!] === 1 ? 0 : (seen[d >> 5]! >> (d & 31)) & 1;
  }

  private writePoints(): void {
    const { memory, turnouts, wiring } = this;
    for (let t = 0; t < turnouts.length; t++)
      memory[wiring.points[t]!] = turnouts[t]! >= MOVING ? BETWEEN : turnouts[t]!;
  }

  private isLocked(motor: number): boolean {
    const locks = this.wiring.refusedBy[motor]!;
    for (let i = 0; i < locks.length; i++) if (this.memory[locks[i]!] === 0) return false;
    return locks.length > 0;
  }

  /** The values of every slot in a settled state; the same array at every call. */
  valuesIn(state: number): Int32Array {
    if (this.loaded !== state) {
      this.load(state);
      this.writePoints();
      this.machine.scan(0);
      this.loaded = state;
    }
    return this.memory;
  }
  /** What latches, edges and timers hold in a settled state, and what PREVIOUS would read. */
  memoryIn(state: number): { state: Int32Array; before: Int32Array } {
    const memory = this.valuesIn(state);
    const { before, state: kept, mayEnd } = this.at;
    return { state: memory.slice(kept, mayEnd), before: memory.slice(before, kept) };
  }
}
