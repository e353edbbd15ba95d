/**
 * Small numbers packed into 32-bit words, none across two of them. Fields are numbered in the order in which they were asked for.
 */
export class Packing {
  words = 1;
  private used = 0;
  private readonly layout: { word: number; shift: number; mask: number }[] = [];

  /** Room for numbers from 0 up to but not including `values`; returns the number of the field. */
  field(values: number): number {
    const bits = Math.max(1, 32 - Math.clz32(Math.max(1, values - 1)));
    if (this.used + bits > 32) {
      this.words += 1;
      this.used = 0;
    }
    this.layout.push({ word: this.words - 1, shift: this.used, mask: bits === 32 ? -1 : (1 << bits) - 1 });
    this.used += bits;
    return this.layout.length - 1;
  }

  /** The fields from `first` on, `count` of them, as quick to read and write as can be. */
  group(first: number, count: number): FieldGroup {
    return new FieldGroup(this.layout.slice(first, first + count));
  }
}

/** Fields that are read and written together. */
export class FieldGroup {
  private readonly word: Int32Array;
  private readonly shift: Int32Array;
  private readonly mask: Int32Array;

  constructor(fields: { word: number; shift: number; mask: number }[]) {
    this.word = Int32Array.from(fields, (f) => f.word);
    this.shift = Int32Array.from(fields, (f) => f.shift);
    this.mask = Int32Array.from(fields, (f) => f.mask);
  }

  /** Unpacks every field of a state to the places `to` of an array; without places, one after the other. */
  read(state: Int32Array, into: Int32Array, to?: Int32Array): void {
    const { word, shift, mask } = this;
    for (let i = 0; i < word.length; i++) {
      const value = (state[word[i]!]! >>> shift[i]!) & mask[i]!;
      into[to ? to[i]! : i] = value;
    }
  }

  /** Packs them from there into a state whose words were 0. */
  write(state: Int32Array, from: Int32Array, at?: Int32Array): void {
    const { word, shift, mask } = this;
    for (let i = 0; i < word.length; i++) state[word[i]!]! |= (from[at ? at[i]! : i]! & mask[i]!) << shift[i]!;
  }
}
