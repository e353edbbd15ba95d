import { StateSet } from '../engine/state-set';
import type { Placement } from './placement';

/** The outcome of counting. */
export interface Count {
  states: number;
  moves: number;
  /** States from which nothing can move. */
  dead: number;
  /** False when `most` states were found before the end. */
  finished: boolean;
  /** Most bytes held for a state. */
  bytesAState: number;
}

/**
 * The plant alone under perfect protection: a train goes on whenever no other train stands in a block that it would enter. Trains
 * in one group run over the same placements and are not told apart. A state is a set of placements, one bit each. Used for
 * counting, and to measure the explorer.
 */
export function countBlockSteps(groups: { placements: Placement[]; starts: number[] }[], most = 50_000_000): Count {
  const steps = new BlockSteps(groups);
  let n = 0;
  for (; n < steps.set.size && steps.set.size <= most; n++) steps.expand(n);
  const { set, moves, dead } = steps;
  return { states: set.size, moves, dead, finished: n === set.size, bytesAState: set.bytes / set.size };
}

class BlockSteps {
  readonly set: StateSet;
  moves = 0;
  dead = 0;
  private readonly state: Int32Array;
  private readonly next: Int32Array;
  private readonly result: Int32Array;
  /** Where each placement leads, from `first[p]` up to `first[p + 1]`. */
  private readonly first: Int32Array;
  private readonly leads: Int32Array;
  /** For each placement, the placements that share a block with it, as bits. */
  private readonly clashes: Int32Array;

  constructor(groups: { placements: Placement[]; starts: number[] }[]) {
    const all = groups.flatMap(({ placements }, g) => {
      const base = groups.slice(0, g).reduce((sum, other) => sum + other.placements.length, 0);
      return placements.map((p) => ({ blocks: p.blocks, leads: p.advances.map((a) => base + a.to), base }));
    });
    const words = Math.ceil(all.length / 32);
    this.set = new StateSet(words);
    this.first = new Int32Array(all.length + 1);
    all.forEach((p, i) => {
      this.first[i + 1] = this.first[i]! + p.leads.length;
    });
    this.leads = Int32Array.from(all.flatMap((p) => p.leads));
    this.clashes = new Int32Array(all.length * words);
    all.forEach((p, i) => {
      all.forEach((other, k) => {
        if (p.blocks.some((block) => other.blocks.includes(block)))
          this.clashes[i * words + (k >> 5)]! |= 1 << (k & 31);
      });
    });
    this.state = new Int32Array(words);
    const trains = groups.reduce((sum, group) => sum + group.starts.length, 0);
    const most = trains * Math.max(1, ...all.map((p) => p.leads.length));
    this.next = new Int32Array(words * most);
    this.result = new Int32Array(most + 1);
    for (const [g, { starts }] of groups.entries()) {
      const base = groups.slice(0, g).reduce((sum, other) => sum + other.placements.length, 0);
      for (const start of starts) this.state[(base + start) >> 5]! |= 1 << ((base + start) & 31);
    }
    this.set.add(this.state);
  }

  /** Adds every state that one move leads to from a state. */
  expand(number: number): void {
    const { state, next, first, leads, clashes } = this;
    const words = state.length;
    this.set.read(number, state);
    let count = 0;
    for (let word = 0; word < words; word++) {
      for (let bits = state[word]!; bits !== 0; bits &= bits - 1) {
        const bit = 31 - Math.clz32(bits & -bits);
        const from = word * 32 + bit;
        for (let k = first[from]!, last = first[from + 1]!; k < last; k++) {
          const to = leads[k]!;
          let clash = 0;
          for (let w = 0, at = to * words; w < words; w++) {
            const others = w === word ? state[w]! & ~(1 << bit) : state[w]!;
            clash |= others & clashes[at + w]!;
          }
          if (clash !== 0) continue;
          const at = count * words;
          for (let w = 0; w < words; w++) next[at + w] = state[w]!;
          next[at + word]! &= ~(1 << bit);
          next[at + (to >> 5)]! |= 1 << (to & 31);
          count += 1;
        }
      }
    }
    this.moves += count;
    if (count === 0) this.dead += 1;
    this.set.addAll(next, count, this.result);
  }
}
