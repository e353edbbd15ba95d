const MULTIPLIER = 6364136223846793005n;
const MASK = (1n << 64n) - 1n;

/**
 * PCG32 (XSH-RR 64/32), a published generator with published test vectors: the same seed gives the same numbers in any
 * browser and on any server.
 */
export class Random {
  private state = 0n;
  private readonly increment: bigint;

  constructor(seed: number | bigint, sequence: number | bigint = 54) {
    this.increment = ((BigInt(sequence) << 1n) | 1n) & MASK;
    this.next32();
    this.state = (this.state + BigInt(seed)) & MASK;
    this.next32();
  }

  /** A whole number from 0 to 2^32 - 1. */
  next32(): number {
    const old = this.state;
    this.state = (old * MULTIPLIER + this.increment) & MASK;
    const shifted = Number((((old >> 18n) ^ old) >> 27n) & 0xffffffffn);
    const turn = Number(old >> 59n);
    return ((shifted >>> turn) | (shifted << (-turn & 31))) >>> 0;
  }

  /** From 0 up to but not including 1. */
  uniform(): number {
    return this.next32() / 4294967296;
  }

  /** Nearly normal with mean 0 and deviation 1: twelve uniforms summed, so that no logarithm or cosine is needed. */
  normal(): number {
    let sum = -6;
    for (let i = 0; i < 12; i++) sum += this.uniform();
    return sum;
  }
}
