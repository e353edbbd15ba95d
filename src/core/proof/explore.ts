import { HAZARDS, type HazardId } from '../simulation';
import { DeadEnds, NOT_FOLLOWED } from './engine/dead-ends';
import { Search } from './engine/search';
import { hazardsOf } from './hazards/hazard-bits';
import { areTwoTrains, mayPair, trainsLooking } from './model/apart';
import type { ProofModel } from './model/model';
import { NOTHING, RuleSteps } from './model/rule-steps';

/** A step that leads to a hazard: the state it is taken from, and the step; without one, the start itself. */
export interface Failure {
  from: number;
  /** The step’s code. */
  move?: number;
}

const MOST_FURTHER_WAYS = 8;

/**
 * Every state that plant and program can reach, breadth first, so that the first way found to a hazard is a shortest one. A step
 * that does it is noted once for each kind, and followed where the trains can go on.
 */
export class Explorer {
  readonly search: Search;
  readonly hazards = new Map<HazardId, Failure>();
  /** More ways to each hazard, whose last steps differ: the first of each, and not many. */
  readonly furtherWays = new Map<HazardId, Failure[]>();
  /** Hazards after which something could no longer be followed. */
  readonly ended = new Set<HazardId>();
  moves = 0;
  /** All states are known, and whether any train can get anywhere from each of them. */
  finished = false;
  /** In the state being looked at, no train can get anywhere at once. */
  private isStill = false;
  private readonly state: Int32Array;
  /** What can be done in it, one thing at a time: so many. */
  private readonly choices: number[] = [];
  private count = 0;
  /** How the rules take each of them. */
  private readonly effects: number[] = [];
  /** The trains that look at what each changes (`trainsLooking`); NOTHING, not yet asked. */
  private readonly looking: number[] = [];
  /** The steps taken from the state being looked at that lead on: the one thing of each, and the other. */
  private readonly ones: number[] = [];
  private readonly twos: number[] = [];
  private readonly ruleSteps = new RuleSteps();
  private readonly deadEnds = new DeadEnds();
  /** Hears of each state that is followed, and then all to which a step leads from it: the model stands in it. */
  watch: { from(model: ProofModel): void; to(model: ProofModel): void } | undefined;

  /** `thorough`: also takes two things within one scan that have nothing to do with each other. It finds the same, later. */
  constructor(
    readonly model: ProofModel,
    private readonly thorough = false,
  ) {
    this.search = new Search(model.pack());
    this.state = new Int32Array(model.words);
    /** What comes while trains only stand, the model need not find: two that stand end to end touch. */
    for (const hazard of [...hazardsOf(model.hazards), ...model.startHazards]) this.hazards.set(hazard, { from: 0 });
    if (model.ended) this.noteEnd(model.hazards);
  }

  /** The state nearest to the start from which no train can ever get anywhere; found once all states are known. */
  get deadlock(): number | undefined {
    return this.deadEnds.nearest;
  }
  get states(): number {
    return this.search.set.size;
  }
  get waiting(): number {
    return this.search.waiting;
  }
  /** Bytes held for each state found, and those of the tables of the rules beside them. */
  get bytesAState(): number {
    return (this.search.bytes + this.deadEnds.bytes) / this.states;
  }
  /** What was done so far, in numbers that no machine changes. */
  get counts(): { questions: number; misses: number; probes: number; bytesAState: number } {
    const { questions, misses } = this.model.rules;
    return { questions, misses, probes: this.search.set.probes, bytesAState: this.bytesAState };
  }
  get bytesOfRules(): number {
    return this.ruleSteps.bytes + this.model.rules.bytes;
  }

  /** Follows every step from up to `states` states, and once all are known looks for dead ends. True when there is nothing more to do. */
  run(states: number): boolean {
    const { model, search, state } = this;
    for (let i = 0; i < states && !search.finished; i++) {
      search.read(state);
      model.unpack(state);
      this.followAll();
      search.goOn();
    }
    if (search.finished && !this.finished) this.finished = this.deadEnds.find(this.states, 1);
    return this.finished;
  }

  /** Follows every step from the state in which the model stands. */
  private followAll(): void {
    const { model, choices, effects, looking, ruleSteps, thorough } = this;
    this.watch?.from(model);
    const trainMoves = model.moves(choices, false);
    this.count = trainMoves;
    const at = ruleSteps.of(model);
    const steps = ruleSteps.count(at);
    this.isStill = !model.couldTurnBack() && !this.someGetsSomewhere();
    if (this.isStill) this.deadEnds.begin(this.search.current, steps + trainMoves * (trainMoves + steps));
    for (let i = 0; i < trainMoves; i++) {
      this.take(choices[i]!, NOTHING);
      effects[i] = model.effect;
      looking[i] = NOTHING;
    }
    for (let i = 0; i < steps; i++) {
      const one = ruleSteps.one(at, i);
      const two = ruleSteps.two(at, i);
      const effect = ruleSteps.effect(at, i);
      if (two === NOTHING) {
        choices[this.count] = one;
        effects[this.count] = effect;
        looking[this.count] = NOTHING;
        this.count += 1;
      }
      if (ruleSteps.changesNothing(at, i)) continue;
      if (ruleSteps.isApart(at, i)) {
        const first = trainMoves + ruleSteps.firstOfTwo(at, i);
        const second = trainMoves + ruleSteps.secondOfTwo(at, i);
        if (thorough || this.lookingAt(first) & this.lookingAt(second)) this.take(one, two);
      } else {
        model.applyKnown(ruleSteps.to(at, i), effect);
        this.taken(one, two);
        model.backFromKnown();
      }
    }
    if (model.on.has('one scan')) this.followPairs(trainMoves);
    this.addAll();
    if (this.isStill) this.deadEnds.ended();
  }

  /** Follows two things within one scan of which one moves a train, where they have anything to do with each other. */
  private followPairs(trainMoves: number): void {
    const { model, choices, effects, count, thorough } = this;
    for (let i = 0; i < trainMoves; i++)
      for (let k = i + 1; k < count; k++)
        if (mayPair(model, choices[i]!, effects[i]!, choices[k]!, effects[k]!) && (thorough || !this.areApart(i, k)))
          this.take(choices[i]!, choices[k]!);
  }

  /**
   * Two things have nothing to do with each other, so that within one scan they do what they do one after the other: in the rules
   * (`Independence.areApart`), and because no train looks at what both of them change.
   */
  private areApart(i: number, k: number): boolean {
    const { model, choices, effects } = this;
    if (areTwoTrains(choices[i]!, choices[k]!) || !model.rules.areApart(effects[i]!, effects[k]!)) return false;
    return (this.lookingAt(i) & this.lookingAt(k)) === 0;
  }
  private lookingAt(i: number): number {
    if (this.looking[i] === NOTHING) this.looking[i] = trainsLooking(this.model, this.choices[i]!, this.effects[i]!);
    return this.looking[i]!;
  }

  private someGetsSomewhere(): boolean {
    for (let i = 0; i < this.count; i++) if (this.model.getsSomewhere(this.choices[i]!)) return true;
    return false;
  }

  /** Takes one thing, or two within one scan, and goes back. */
  private take(one: number, two: number): void {
    this.model.applyBoth(one, two);
    this.taken(one, two);
    this.model.back();
  }
  private taken(one: number, two: number): void {
    const { model } = this;
    this.moves += 1;
    if (model.hazards !== 0) this.note(one, two);
    if (!model.ended) {
      this.watch?.to(model);
      const noted = this.search.note(model.pack());
      this.ones[noted] = one;
      this.twos[noted] = two;
    } else if (this.isStill) this.deadEnds.leadsTo(NOT_FOLLOWED);
  }

  private note(one: number, two: number): void {
    for (const hazard of hazardsOf(this.model.hazards)) {
      if (!this.hazards.has(hazard)) {
        this.hazards.set(hazard, { from: this.search.current, move: this.codeOf(one, two) });
        this.furtherWays.set(hazard, []);
      } else if (two === NOTHING) this.noteFurther(hazard, one);
    }
    if (this.model.ended) this.noteEnd(this.model.hazards);
  }
  private noteFurther(hazard: HazardId, move: number): void {
    const ways = this.furtherWays.get(hazard);
    if (!ways || ways.length === MOST_FURTHER_WAYS || this.hazards.get(hazard)!.move === move) return;
    if (!ways.some((way) => way.move === move)) ways.push({ from: this.search.current, move });
  }
  private codeOf(one: number, two: number): number {
    return two === NOTHING ? one : this.model.pairs.codeOf(one, two);
  }
  private noteEnd(hazards: number): void {
    for (const hazard of hazardsOf(hazards)) if (HAZARDS[hazard].ends) this.ended.add(hazard);
  }

  /** Adds the states that the steps have led to. */
  private addAll(): void {
    const { search, ones, twos } = this;
    const count = search.addNoted();
    for (let i = 0; i < count; i++) {
      const number = search.numbers[i]!;
      if (number >= 0) search.foundBy(number, this.codeOf(ones[i]!, twos[i]!));
      if (this.isStill) this.deadEnds.leadsTo(number < 0 ? ~number : number);
    }
  }

  /** The steps from the start to a state. */
  path(to: number): number[] {
    return this.search.path(to);
  }
}
