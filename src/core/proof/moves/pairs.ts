import { encodeMove, kindOf } from './code';

/** The kind of two things within one scan; it has no place in MOVES. */
const TOGETHER = 100;

/** Codes for two things done within one scan, given as they are met. */
export class Pairs {
  private readonly parts: [number, number][] = [];
  private readonly numbers = new Map<number, number>();

  codeOf(one: number, two: number): number {
    const key = one * 0x4000000 + two;
    let number = this.numbers.get(key);
    if (number === undefined) {
      number = this.parts.length;
      this.numbers.set(key, number);
      this.parts.push([one, two]);
    }
    return encodeMove(TOGETHER, 0, 0) | number;
  }
  /** The single things that a step is made of: one, or two. */
  partsOf(code: number): [number] | [number, number] {
    return kindOf(code) === TOGETHER ? this.parts[code & 0xffffff]! : [code];
  }
}
