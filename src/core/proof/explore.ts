import { HAZARDS, type HazardId } from '../simulation';
import { DeadEnds, NOT_FOLLOWED } from './engine/dead-ends';
import { Search } from './engine/search';
import { hazardsOf } from './hazards/hazard-bits';
import { areApart, mayPair, someTrainLooks } from './model/apart';
import type { ProofModel } from './model/model';
import { NOTHING, RuleSteps } from './model/rule-steps';

/** A step that does hazard: the state it is taken from, and the step; without one, the start itself. */
export interface Failure {
  from: number;
  /** The step’s code. */
  move?: number;
}

/**
 * Every state that plant and program can reach, breadth first, so that the first way found to a hazard is a shortest one. A step
 * that does it is noted once for each kind, and followed where the trains can go on.
 */
export class Explorer {
  readonly search: Search;
  readonly hazards = new Map<HazardId, Failure>();
  /** Hazards after which something could no longer be followed. */
  readonly ended = new Set<HazardId>();
  moves = 0;
  /** All states are known, and whether any train can get anywhere from each of them. */
  finished = false;
  /** In the state being looked at, no train can get anywhere at once. */
  private isStill = false;
  private readonly state: Int32Array;
  private readonly choices: number[] = [];
  /** How the rules take each of them. */
  private readonly effects: number[] = [];
  private readonly ruleSteps = new RuleSteps();
  private readonly deadEnds = new DeadEnds();

  /** `thorough`: also takes two things within one scan that have nothing to do with each other. It finds the same, later. */
  constructor(
    readonly model: ProofModel,
    private readonly thorough = false,
  ) {
    this.search = new Search(model.pack());
    this.state = new Int32Array(model.words);
    for (const hazard of hazardsOf(model.hazards)) this.hazards.set(hazard, { from: 0 });
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
    const { model, choices, effects, ruleSteps, thorough } = this;
    model.moves(choices, false);
    const trainMoves = choices.length;
    const at = ruleSteps.of(model);
    const count = ruleSteps.count(at);
    this.isStill = !model.couldTurnBack() && !this.someGetsSomewhere();
    if (this.isStill) this.deadEnds.begin(this.search.current, count + trainMoves * (trainMoves + count));
    for (let i = 0; i < trainMoves; i++) {
      this.take(choices[i]!, NOTHING);
      effects[i] = model.effect;
    }
    for (let i = 0; i < count; i++) {
      const one = ruleSteps.one(at, i);
      const two = ruleSteps.two(at, i);
      const effect = ruleSteps.effect(at, i);
      if (two === NOTHING) {
        effects[choices.length] = effect;
        choices.push(one);
      }
      if (ruleSteps.changesNothing(at, i)) continue;
      if (ruleSteps.isApart(at, i)) {
        if (thorough || someTrainLooks(model, one, effect, two, ruleSteps.effectOfTwo(at, i))) this.take(one, two);
      } else {
        model.applyKnown(ruleSteps.to(at, i), effect);
        this.taken(one, two);
      }
    }
    if (model.on.has('one scan'))
      for (let i = 0; i < trainMoves; i++)
        for (let k = i + 1; k < choices.length; k++) {
          const one = choices[i]!;
          const effectOfOne = effects[i]!;
          const two = choices[k]!;
          const effectOfTwo = effects[k]!;
          if (!mayPair(model, one, effectOfOne, two, effectOfTwo)) continue;
          if (thorough || !areApart(model, one, effectOfOne, two, effectOfTwo)) this.take(one, two);
        }
    if (this.isStill) this.deadEnds.ended();
  }

  private someGetsSomewhere(): boolean {
    for (const move of this.choices) if (this.model.getsSomewhere(move)) return true;
    return false;
  }

  /** Takes one thing, or two within one scan, and goes back. */
  private take(one: number, two: number): void {
    this.model.applyBoth(one, two);
    this.taken(one, two);
  }
  private taken(one: number, two: number): void {
    const { model } = this;
    this.moves += 1;
    if (model.hazards !== 0) this.note(one, two);
    const to = model.ended ? NOT_FOLLOWED : this.add(one, two);
    if (this.isStill) this.deadEnds.leadsTo(to);
    model.back();
  }

  private note(one: number, two: number): void {
    for (const hazard of hazardsOf(this.model.hazards))
      if (!this.hazards.has(hazard))
        this.hazards.set(hazard, { from: this.search.current, move: this.codeOf(one, two) });
    if (this.model.ended) this.noteEnd(this.model.hazards);
  }
  private codeOf(one: number, two: number): number {
    return two === NOTHING ? one : this.model.pairs.codeOf(one, two);
  }
  private noteEnd(hazards: number): void {
    for (const hazard of hazardsOf(hazards)) if (HAZARDS[hazard].ends) this.ended.add(hazard);
  }

  /** Adds the state that a step has led to; returns its number. */
  private add(one: number, two: number): number {
    const { search } = this;
    const number = search.add(this.model.pack());
    if (search.isNew) search.foundBy(number, this.codeOf(one, two));
    return number;
  }

  /** The steps from the start to a state. */
  path(to: number): number[] {
    return this.search.path(to);
  }
}
