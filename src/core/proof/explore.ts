import type { Harm, ProofModel } from './model';
import { decodeMove } from './move';
import { grown, StateSet } from './state-set';

/** A step that does harm: the state it is taken from, and the step. */
export interface Failure {
  from: number;
  /** The step’s code. */
  move: number;
}

/**
 * Every state that plant and program can reach, breadth first, so that the first way found to a harm is a shortest one. A
 * harmful step is noted once for each kind of harm and not followed.
 */
export class Explorer {
  readonly set: StateSet;
  readonly harms = new Map<Harm, Failure>();
  moves = 0;
  /** The state from which no train can ever move again that is nearest to the start; found once all states are known. */
  deadlock: number | undefined;
  private next = 0;
  private parents = new Int32Array(1024).fill(-1);
  private steps = new Int32Array(1024);
  private readonly state: Int32Array;
  private readonly choices: Int32Array;
  /** States in which no train can move at once. */
  private readonly still: number[] = [];

  constructor(readonly model: ProofModel) {
    this.set = new StateSet(model.words);
    this.state = new Int32Array(model.words);
    this.choices = new Int32Array(model.mostMoves);
    this.set.add(model.pack());
    if (model.harm) this.harms.set(model.harm, { from: 0, move: 0 });
  }

  get finished(): boolean {
    return this.next >= this.set.size;
  }
  get waiting(): number {
    return this.set.size - this.next;
  }
  /** Bytes held for each state found. */
  get bytesAState(): number {
    return (this.set.bytes + this.parents.byteLength + this.steps.byteLength) / this.set.size;
  }

  /** Follows every step from up to `states` states. True when there is nothing more to follow. */
  run(states: number): boolean {
    const { model, set, state, choices } = this;
    for (const last = this.next + states; this.next < last && this.next < set.size; this.next++) {
      set.read(this.next, state);
      model.unpack(state);
      const count = model.moves(choices);
      for (let i = 0; i < count; i++) {
        const move = choices[i]!;
        model.apply(move);
        if (model.harm) {
          if (!this.harms.has(model.harm)) this.harms.set(model.harm, { from: this.next, move });
        } else this.add(move);
        model.back();
      }
      this.moves += count;
      if (count === 0 || decodeMove(choices[0]!).kind !== 'advance') this.still.push(this.next);
    }
    if (this.finished && this.deadlock === undefined) this.findDeadlock();
    return this.finished;
  }

  private add(move: number): void {
    const number = this.set.add(this.model.pack());
    if (number < 0) return;
    if (number >= this.parents.length) {
      this.parents = grown(this.parents);
      this.steps = grown(this.steps);
    }
    this.parents[number] = this.next;
    this.steps[number] = move;
  }

  /** Of the states in which no train can move, those from which none ever will: no step leads out of them. */
  private findDeadlock(): void {
    const { model, set, state } = this;
    const dead = new Set(this.still);
    /** For each of them, those of them from which a step leads to it. */
    const before = new Map<number, number[]>();
    const alive: number[] = [];
    for (const number of this.still) {
      set.read(number, state);
      model.unpack(state);
      let leadsOut = false;
      const count = model.moves(this.choices);
      for (let i = 0; i < count; i++) {
        model.apply(this.choices[i]!);
        const to = model.harm ? number : ~set.add(model.pack());
        model.back();
        leadsOut ||= !dead.has(to);
        if (before.has(to)) before.get(to)!.push(number);
        else before.set(to, [number]);
      }
      if (leadsOut) alive.push(number);
    }
    for (let number = alive.pop(); number !== undefined; number = alive.pop()) {
      if (dead.delete(number)) alive.push(...(before.get(number) ?? []));
    }
    for (const number of dead) this.deadlock = Math.min(number, this.deadlock ?? number);
  }

  /** The steps from the start to a state. */
  path(to: number): number[] {
    const moves: number[] = [];
    for (let number = to; number > 0; number = this.parents[number]!) moves.push(this.steps[number]!);
    return moves.reverse();
  }
}
