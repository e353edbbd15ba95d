const FREE = -1;
/** Of the table's places at most this share is taken before it doubles. */
const FULLEST = 0.6;

/**
 * A set of packed states, each a fixed number of 32-bit words, numbered in the order in which they were added. Open addressing;
 * a state's words stand in the table itself beside its number, so that a look-up touches one place in memory, and once more
 * in a list in order, from which the search reads them.
 */
export class StateSet {
  private list: Int32Array;
  private table: Int32Array;
  private mask: number;
  private room: number;
  private readonly stride: number;
  size = 0;

  constructor(readonly words: number) {
    this.stride = words + 1;
    this.list = new Int32Array(words * 1024);
    this.mask = 2047;
    this.table = new Int32Array(this.stride * 2048).fill(FREE);
    this.room = Math.floor(2048 * FULLEST);
  }

  /** Adds the state in the first words of `from`. Its number when it is new, ~number when it was known. */
  add(from: Int32Array): number {
    return this.addAt(from, 0, -1);
  }

  private addAt(from: Int32Array, offset: number, first: number): number {
    const { words, table, stride, mask } = this;
    let slot = first >= 0 ? first : this.hash(from, offset) & mask;
    for (;;) {
      const at = slot * stride;
      const held = table[at]!;
      if (held === FREE) break;
      let w = 0;
      while (w < words && table[at + 1 + w] === from[offset + w]) w += 1;
      if (w === words) return ~held;
      slot = (slot + 1) & mask;
    }
    const number = this.size++;
    const at = slot * stride;
    table[at] = number;
    if (number * words + words > this.list.length) this.list = grown(this.list);
    for (let w = 0, to = number * words; w < words; w++) {
      const value = from[offset + w]!;
      table[at + 1 + w] = value;
      this.list[to + w] = value;
    }
    if (this.size > this.room) this.rehash();
    return number;
  }

  /**
   * Adds `count` states that stand one after the other in `from`; `result` gets for each what `add` would have returned. The
   * table is touched for all of them first, so that the processor fetches from memory side by side.
   */
  addAll(from: Int32Array, count: number, result: Int32Array): void {
    const { words, mask, stride } = this;
    let touched = 0;
    for (let i = 0; i < count; i++) {
      const slot = this.hash(from, i * words) & mask;
      result[i] = slot;
      touched |= this.table[slot * stride]!;
    }
    result[count] = touched;
    for (let i = 0; i < count; i++) result[i] = this.addAt(from, i * words, mask === this.mask ? result[i]! : -1);
  }

  /** Copies the words of a state. */
  read(number: number, into: Int32Array): void {
    const at = number * this.words;
    for (let w = 0; w < this.words; w++) into[w] = this.list[at + w]!;
  }

  private hash(from: Int32Array, offset: number): number {
    let h = 0x9e3779b9;
    for (let w = 0; w < this.words; w++) {
      h = Math.imul(h ^ from[offset + w]!, 0x85ebca6b);
      h ^= h >>> 15;
    }
    h = Math.imul(h, 0xc2b2ae35);
    return h ^ (h >>> 13);
  }

  private rehash(): void {
    const places = (this.mask + 1) * 2;
    const { words, stride, list } = this;
    const table = new Int32Array(places * stride).fill(FREE);
    const mask = places - 1;
    for (let number = 0; number < this.size; number++) {
      let slot = this.hash(list, number * words) & mask;
      while (table[slot * stride] !== FREE) slot = (slot + 1) & mask;
      table[slot * stride] = number;
      for (let w = 0; w < words; w++) table[slot * stride + 1 + w] = list[number * words + w]!;
    }
    this.table = table;
    this.mask = mask;
    this.room = Math.floor(places * FULLEST);
  }

  /** Bytes of memory held now. */
  get bytes(): number {
    return this.list.byteLength + this.table.byteLength;
  }
}

/** The same numbers in an array of twice the size. */
export function grown(array: Int32Array): Int32Array<ArrayBuffer> {
  const larger = new Int32Array(array.length * 2);
  larger.set(array);
  return larger;
}
