import { HAZARDS, type HazardId } from '../simulation';
import { areApart, mayPair, someTrainLooks } from './apart';
import { hazardsOf } from './hazard-bits';
import type { ProofModel } from './model';
import { NOTHING, RuleSteps } from './rule-steps';
import { grown, StateSet } from './state-set';

/** A step that does hazard: the state it is taken from, and the step; without one, the start itself. */
export interface Failure {
  from: number;
  /** The step’s code. */
  move?: number;
}

/** Where a step leads that is not followed: nobody can say that no way on is there. */
const NOT_FOLLOWED = -1;

/**
 * Every state that plant and program can reach, breadth first, so that the first way found to a hazard is a shortest one. A step
 * that does hazard is noted once for each kind, and followed where the trains can go on.
 */
export class Explorer {
  readonly set: StateSet;
  readonly hazards = new Map<HazardId, Failure>();
  /** Harms after which something could no longer be followed. */
  readonly ended = new Set<HazardId>();
  moves = 0;
  /** The state nearest to the start from which no train can ever get anywhere; found once all states are known. */
  deadlock: number | undefined;
  private next = 0;
  /** In the state being looked at, no train can get anywhere at once. */
  private isStill = false;
  private parents = new Int32Array(1024).fill(-1);
  private steps = new Int32Array(1024);
  private readonly state: Int32Array;
  private readonly choices: number[] = [];
  /** How the rules take each of them. */
  private readonly effects: number[] = [];
  private readonly ruleSteps = new RuleSteps();
  /** States in which no train can get anywhere at once, and where the steps from each of them lead: its number, their count, and they. */
  private still = new Int32Array(1024);
  private stillEnd = 0;

  /** `thorough`: also takes two things within one scan that have nothing to do with each other. It finds the same, later. */
  constructor(
    readonly model: ProofModel,
    private readonly thorough = false,
  ) {
    this.set = new StateSet(model.words);
    this.state = new Int32Array(model.words);
    this.set.add(model.pack());
    for (const hazard of hazardsOf(model.hazards)) this.hazards.set(hazard, { from: 0 });
    if (model.ended) this.noteEnd(model.hazards);
  }

  get finished(): boolean {
    return this.next >= this.set.size;
  }
  get waiting(): number {
    return this.set.size - this.next;
  }
  /** Bytes held for each state found, and those of the tables of the rules beside them. */
  get bytesAState(): number {
    const { set, parents, steps, still } = this;
    return (set.bytes + parents.byteLength + steps.byteLength + still.byteLength) / set.size;
  }
  get bytesOfRules(): number {
    return this.ruleSteps.bytes + this.model.rules.bytes;
  }

  /** Follows every step from up to `states` states. True when there is nothing more to follow. */
  run(states: number): boolean {
    const { model, set, state } = this;
    for (const last = this.next + states; this.next < last && this.next < set.size; this.next++) {
      set.read(this.next, state);
      model.unpack(state);
      this.followAll();
    }
    if (this.finished && this.deadlock === undefined) this.findDeadlock();
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
    const from = this.stillEnd;
    if (this.isStill) this.keepStill(count + trainMoves * (trainMoves + count));
    for (let i = 0; i < trainMoves; i++) {
      this.take(choices[i]!, NOTHING);
      effects[i] = model.effect;
    }
    for (let i = 0; i < count; i++) {
      const [one, two] = [ruleSteps.one(at, i), ruleSteps.two(at, i)];
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
          const [one, effectOfOne, two, effectOfTwo] = [choices[i]!, effects[i]!, choices[k]!, effects[k]!];
          if (!mayPair(model, one, effectOfOne, two, effectOfTwo)) continue;
          if (thorough || !areApart(model, one, effectOfOne, two, effectOfTwo)) this.take(one, two);
        }
    if (this.isStill) this.still[from + 1] = this.stillEnd - from - 2;
  }

  private someGetsSomewhere(): boolean {
    for (const move of this.choices) if (this.model.getsSomewhere(move)) return true;
    return false;
  }

  private keepStill(steps: number): void {
    while (this.stillEnd + 2 + steps > this.still.length) this.still = grown(this.still);
    this.still[this.stillEnd] = this.next;
    this.still[this.stillEnd + 1] = steps;
    this.stillEnd += 2;
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
    if (this.isStill) this.still[this.stillEnd++] = to;
    model.back();
  }

  private note(one: number, two: number): void {
    for (const hazard of hazardsOf(this.model.hazards))
      if (!this.hazards.has(hazard)) this.hazards.set(hazard, { from: this.next, move: this.codeOf(one, two) });
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
    const number = this.set.add(this.model.pack());
    if (number < 0) return ~number;
    if (number >= this.parents.length) {
      this.parents = grown(this.parents);
      this.steps = grown(this.steps);
    }
    this.parents[number] = this.next;
    this.steps[number] = this.codeOf(one, two);
    return number;
  }

  /** Of the states in which no train can get anywhere, those from which none ever will: no step leads out of them. */
  private findDeadlock(): void {
    const { set } = this;
    const { still, stillEnd } = this;
    /** By state: 1 where no train can get anywhere at once; those that a way out is found for become 0. */
    const dead = new Uint8Array(set.size);
    for (let at = 0; at < stillEnd; at += 2 + still[at + 1]!) dead[still[at]!] = 1;
    for (let changed = true; changed; ) {
      changed = false;
      for (let at = 0; at < stillEnd; at += 2 + still[at + 1]!) {
        if (dead[still[at]!] === 0) continue;
        for (let i = at + 2; i < at + 2 + still[at + 1]!; i++) {
          if (still[i] !== NOT_FOLLOWED && dead[still[i]!] === 1) continue;
          dead[still[at]!] = 0;
          changed = true;
          break;
        }
      }
    }
    const nearest = dead.indexOf(1);
    if (nearest >= 0) this.deadlock = nearest;
  }

  /** The steps from the start to a state. */
  path(to: number): number[] {
    const moves: number[] = [];
    for (let number = to; number > 0; number = this.parents[number]!) moves.push(this.steps[number]!);
    return moves.reverse();
  }
}
