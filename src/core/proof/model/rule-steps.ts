import { grown } from '../engine/state-set';
import { mayPair } from './apart';
import type { ProofModel } from './model';

/**
 * Numbers for each step: the one thing, the other, where they lead and in what effect (`Effects`). In place of where it leads, that its two
 * things have nothing to do with each other in the rules, or that it changes nothing.
 */
const STRIDE = 4;
const [APART, NOWHERE] = [-1, -2];
/** Two numbers in one: the first in its lower bits. */
const BITS = 16;
const LOWER = 2 ** BITS - 1;
/** No second thing in the same scan. */
export const NOTHING = -1;

/**
 * Steps that leave the trains where they are, one thing or two within one scan. What comes of them depends on the state of the
 * rules alone, in which many places of the trains look the same; so they are worked out once for each of these.
 */
export class RuleSteps {
  /** For each state of the rules, where in the list its steps begin; below 0, not yet worked out. */
  private first = new Int32Array(1024).fill(-1);
  /** How many there are; then each, single things first. Two that are APART have in place of an effect which of the single ones they are. */
  private list = new Int32Array(1024);
  private end = 0;

  get bytes(): number {
    return this.first.byteLength + this.list.byteLength;
  }

  /** Where the steps of the state begin in which the model stands: first those of one thing, in the order of their numbers. */
  of(model: ProofModel): number {
    const { ruleState } = model;
    while (ruleState >= this.first.length) {
      const { length } = this.first;
      this.first = grown(this.first).fill(-1, length);
    }
    if (this.first[ruleState]! < 0) this.first[ruleState] = this.workOut(model);
    return this.first[ruleState]!;
  }

  count(at: number): number {
    return this.list[at]!;
  }
  one(at: number, i: number): number {
    return this.list[at + 1 + i * STRIDE]!;
  }
  two(at: number, i: number): number {
    return this.list[at + 2 + i * STRIDE]!;
  }
  isApart(at: number, i: number): boolean {
    return this.list[at + 3 + i * STRIDE] === APART;
  }
  /** It leaves everything as it is, and shows nothing new: a request that is refused. */
  changesNothing(at: number, i: number): boolean {
    return this.list[at + 3 + i * STRIDE] === NOWHERE;
  }
  to(at: number, i: number): number {
    return this.list[at + 3 + i * STRIDE]!;
  }
  effect(at: number, i: number): number {
    return this.list[at + 4 + i * STRIDE]!;
  }
  /** Of two things that are apart, the number of the step that is the one alone, and of that which is the other. */
  firstOfTwo(at: number, i: number): number {
    return this.list[at + 4 + i * STRIDE]! & LOWER;
  }
  secondOfTwo(at: number, i: number): number {
    return this.list[at + 4 + i * STRIDE]! >>> BITS;
  }

  private workOut(model: ProofModel): number {
    const { rules, ruleState } = model;
    rules.isOnce = true;
    const begins = this.end;
    this.add(0);
    const codes: number[] = [];
    model.moves(codes, true);
    const effects = codes.map((code) => {
      model.applyBoth(code, NOTHING);
      this.addStep(code, NOTHING, rules.leavesAlone(ruleState) ? NOWHERE : rules.to, rules.effect);
      model.back();
      return rules.effect;
    });
    if (model.on.has('one scan'))
      for (let i = 0; i < codes.length; i++)
        for (let k = i + 1; k < codes.length; k++) {
          const one = codes[i]!;
          const two = codes[k]!;
          if (!mayPair(model, one, effects[i]!, two, effects[k]!)) continue;
          if (rules.areApart(effects[i]!, effects[k]!)) this.addStep(one, two, APART, i | (k << BITS));
          else {
            model.applyBoth(one, two);
            if (!rules.leavesAlone(ruleState)) this.addStep(one, two, rules.to, rules.effect);
            model.back();
          }
        }
    rules.isOnce = false;
    this.list[begins] = (this.end - begins - 1) / STRIDE;
    return begins;
  }
  private addStep(one: number, two: number, to: number, effect: number): void {
    this.add(one);
    this.add(two);
    this.add(to);
    this.add(effect);
  }
  private add(number: number): void {
    if (this.end >= this.list.length) this.list = grown(this.list);
    this.list[this.end++] = number;
  }
}
