import { Answers } from '../engine/answers';
import type { Field } from '../engine/packing';
import { grown, numberIn, StateSet } from '../engine/state-set';
import { DisplayedAspects } from './displayed-aspects';
import { Effects } from './effects';
import { Independence } from './independence';
import { MOVING, RuleMemory } from './rule-memory';
import type { Standing, Wiring } from './wiring';

/** Scans after which a program that still changes counts as one that never settles. */
const MOST_SCANS = 60;
const [NOTHING, SEVERAL] = [-1, -2];

/**
 * The rule program of a proof as an automaton, built as it is asked. Its settled states are numbered: what latches, edges, timers
 * and PREVIOUS remember, what is held by hand, and the inputs. Many places of the trains look the same to it, so that most
 * questions have been answered before; the others it answers by scanning until nothing changes. A timer may end at any moment
 * once it counts, and at no other.
 */
export class Rules {
  readonly timerCount: number;
  /** Number of the state in which it stands before the first step. */
  readonly start: number;
  /** Words of bits that say which detectors see something. */
  readonly inputWords: number;
  /** What signals show and how turnouts lie, by number. */
  readonly displays: DisplayedAspects;
  readonly independence: Independence;
  readonly effects: Effects;

  /** Of the step asked for last: the state it leads to, and how it goes, as a number (`Effects`). */
  to = 0;
  effect = 0;
  /** How many steps were asked for, and how many of these had to be found by scanning. */
  questions = 0;
  misses = 0;

  private readonly states: StateSet;
  private readonly memory: RuleMemory;
  /** For each state, what it shows. */
  private shows = new Int32Array(1024);
  /** For each state, how turnouts lie: two bits each, 16 in a word. */
  private lies: Int32Array;
  private readonly liesWords: number;
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
    const { compiled, drives, aspects } = wiring;
    const count = drives.length;
    this.timerCount = compiled.timers.length;
    this.memory = new RuleMemory(wiring, standing);
    this.inputWords = this.memory.seen.length;
    this.liesWords = Math.ceil(count / 16);
    this.lies = new Int32Array(64 * this.liesWords);
    this.states = new StateSet(this.memory.packed.length);
    this.displays = new DisplayedAspects(aspects.length, count, wiring.stops);
    this.independence = new Independence(compiled, count, aspects.length + count);
    this.effects = new Effects(count);
    this.question = new Int32Array(3 + this.inputWords + Math.ceil(count / 16));
    this.answers = new Answers(this.question.length);
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
  /** Slots that some PREVIOUS reads. */
  get previous(): number[] {
    return this.memory.previous;
  }
  turnoutIn(state: number, motor: number): number {
    return this.read(state, this.memory.fields.turnouts[motor]!);
  }
  /** The same for every motor. */
  readTurnouts(state: number, into: Int32Array): void {
    for (let t = 0, at = state * this.liesWords; t < into.length; at++)
      for (let bits = this.lies[at]!, i = 0; i < 32 && t < into.length; i += 2) into[t++] = (bits >> i) & 3;
  }
  isCutOff(state: number, power: number): boolean {
    return this.read(state, this.memory.fields.dead[power]!) === 1;
  }
  isHeld(state: number, hold: number): boolean {
    return this.read(state, this.memory.fields.hands[hold]!) === 1;
  }
  counts(state: number, timer: number): boolean {
    const { last, counts, ton } = this.memory.fields.timers[timer]!;
    return ton ? this.read(state, last) === 1 && this.read(state, counts) === 0 : this.read(state, counts) === 1;
  }
  /** What a state shows (`displays`). */
  displayedIn(state: number): number {
    return this.shows[state]!;
  }

  /** Two steps from one state, of which prints were taken, have nothing to do with each other (`Independence.areApart`). */
  areApart(effect: number, other: number): boolean {
    const one = this.effects.printIn(effect);
    const two = this.effects.printIn(other);
    return one >= 0 && two >= 0 && this.independence.areApart(one, two);
  }
  /** Whether a step of which a print was taken changes any of some signals and turnouts. */
  changesAny(effect: number, bits: Int32Array, at: number): boolean {
    return this.independence.changesAny(this.effects.printIn(effect), bits, at);
  }

  /** The step asked for last leads back to the state that it was taken from, and nothing was shown meanwhile that is not shown there. */
  leavesAlone(from: number): boolean {
    const shown = this.effects.shownIn(this.effect);
    const steady =
      this.displays.first(shown) === this.shows[from] && this.displays.rest(shown) === DisplayedAspects.NONE;
    return this.to === from && steady && !this.effects.neverSettles(this.effect);
  }

  /** Sets a slot for the one scan that follows in the next step, */
  pulse(slot: number): void {
    this.pokes[this.poked++] = 2 * slot;
  }
  /** lets a timer end in it, */
  endTimer(timer: number): void {
    this.pulse(this.memory.at.mayEnd + timer);
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
    if (known >= 0 && !(wantPrint && this.effects.hasNoPrint(answers.second(known)))) {
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
    this.memory.see(seen);
    this.memory.turnouts.set(turnouts);
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
    this.states.read(state, this.memory.origin);
    this.memory.machine.unpack();
    this.loaded = NOTHING;
  }

  /** Scans until nothing changes; turnouts begin to move as they are driven. A print is taken where the state before is given. */
  private settle(from: number): void {
    const { effects, independence, displays, wiring, pokes, poked, shown } = this;
    const { machine, memory, turnouts } = this.memory;
    let shownCount = 0;
    let displayed = NOTHING;
    let unsettled = false;
    /** What goes into the next scan is not what went into the one before. */
    let isOther = true;
    effects.begin();
    independence.begin();
    this.memory.writePoints();
    for (let i = 0; i < poked; i++) {
      const poke = pokes[i]!;
      if (from >= 0) independence.touch(poke >> 1);
      memory[poke >> 1] = poke & 1 ? 1 - memory[poke >> 1]! : 1;
    }
    for (let scans = 0; ; scans++) {
      let changed = machine.scan(0);
      if (scans === 0) {
        for (let i = 0; i < poked; i++)
          if (!(pokes[i]! & 1)) {
            memory[pokes[i]! >> 1] = 0;
            changed = 1;
          }
        for (let t = 0; t < turnouts.length; t++) if (this.memory.isLocked(t)) effects.locks(t);
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
        effects.moves(t);
        isOther = true;
      }
      if (isOther) this.memory.writePoints();
      if (this.memory.cutOff()) isOther = true;
      else if (!isOther && changed === 0) break;
      if (scans > MOST_SCANS) {
        unsettled = true;
        break;
      }
    }
    const list = displays.listOf(shown, shownCount);
    if (unsettled) this.effect = effects.endUnsettled(list);
    else if (from < 0) this.effect = effects.end(undefined, list);
    else this.effect = effects.end(independence.end(displays, this.shows[from]!, shown, shownCount), list);
    machine.pack();
    const known = this.states.size;
    this.to = numberIn(this.states, this.memory.packed);
    if (this.to === known) this.noteLies(known);
    this.loaded = this.to;
    if (this.to >= this.shows.length) this.shows = grown(this.shows);
    this.shows[this.to] = unsettled ? displays.take(memory, wiring.aspects, turnouts) : displayed;
  }

  private noteLies(state: number): void {
    const { turnouts } = this.memory;
    const { liesWords } = this;
    while ((state + 1) * liesWords > this.lies.length) this.lies = grown(this.lies);
    for (let t = 0; t < turnouts.length; t++)
      this.lies[state * liesWords + (t >> 4)]! |= turnouts[t]! << ((t & 15) * 2);
  }

  /** The values of every slot in a settled state; the same array at every call. */
  valuesIn(state: number): Int32Array {
    if (this.loaded !== state) {
      this.load(state);
      this.memory.writePoints();
      this.memory.machine.scan(0);
      this.loaded = state;
    }
    return this.memory.memory;
  }
  /** What latches, edges and timers hold in a settled state, and what PREVIOUS would read. */
  memoryIn(state: number): { state: Int32Array; before: Int32Array } {
    const memory = this.valuesIn(state);
    const { before, state: kept, mayEnd } = this.memory.at;
    return { state: memory.slice(kept, mayEnd), before: memory.slice(before, kept) };
  }
}
