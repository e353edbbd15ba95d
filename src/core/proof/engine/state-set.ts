const FREE = -1;
/** A place of the table holds the number of a state in its lower bits, and above these some of its hash, so that most others need not be compared. */
const NUMBER_BITS = 24;
const NUMBER = 2 ** NUMBER_BITS - 1;
/** Of the table's places at most this share is taken before it doubles. */
const FULLEST = 0.6;

/** Of a hash what stands above the number. */
const tagOf = (hash: number): number => hash & ~NUMBER;

/**
 * A set of packed states, each a fixed number of 32-bit words, numbered in the order in which they were added. Open addressing;
 * the table holds numbers, and the words of all states stand in a list in order.
 */
export class StateSet {
  private list: Int32Array;
  private table: Int32Array;
  private mask: number;
  private room: number;
  size = 0;
  /** How often a place of the table was looked at that was taken. */
  probes = 0;

  constructor(readonly words: number) {
    this.list = new Int32Array(words * 1024);
    this.mask = 2047;
    this.table = new Int32Array(2048).fill(FREE);
    this.room = Math.floor(2048 * FULLEST);
  }

  /** Adds the state in the first words of `from`. Its number when it is new, ~number when it was known. */
  add(from: Int32Array): number {
    return this.addAt(from, 0, StateSet.hash(from, 0, this.words));
  }

  private addAt(from: Int32Array, offset: number, hash: number): number {
    const { words, table, list, mask } = this;
    const tag = tagOf(hash);
    let slot = hash & mask;
    for (;;) {
      const held = table[slot]!;
      if (held === FREE) break;
      this.probes += 1;
      if ((held & ~NUMBER) === tag) {
        const at = (held & NUMBER) * words;
        let w = 0;
        while (w < words && list[at + w] === from[offset + w]) w += 1;
        if (w === words) return ~(held & NUMBER);
      }
      slot = (slot + 1) & mask;
    }
    if (this.size >= NUMBER) throw new RangeError(`More than ${NUMBER} states cannot be kept apart.`);
    const number = this.size++;
    table[slot] = tag | number;
    if (number * words + words > list.length) this.list = grown(list);
    for (let w = 0, to = number * words; w < words; w++) this.list[to + w] = from[offset + w]!;
    if (this.size > this.room) this.rehash();
    return number;
  }

  /**
   * Adds `count` states that stand one after the other in `from`; `result` gets for each what `add` would have returned. The
   * table is touched for all of them first, so that the processor fetches from memory side by side.
   */
  addAll(from: Int32Array, count: number, result: Int32Array): void {
    const { words, mask } = this;
    let touched = 0;
    for (let i = 0; i < count; i++) {
      const hash = StateSet.hash(from, i * words, words);
      result[i] = hash;
      touched |= this.table[hash & mask]!;
    }
    result[count] = touched;
    for (let i = 0; i < count; i++) result[i] = this.addAt(from, i * words, result[i]!);
  }

  /** Copies the words of a state. */
  read(number: number, into: Int32Array): void {
    const at = number * this.words;
    for (let w = 0; w < this.words; w++) into[w] = this.list[at + w]!;
  }

  /** One word of a state. */
  word(number: number, w: number): number {
    return this.list[number * this.words + w]!;
  }

  /** A number that is spread evenly over all 32 bits. */
  static hash(from: Int32Array, offset: number, words: number): number {
    let h = 0x9e3779b9;
    for (let w = 0; w < words; w++) {
      h = Math.imul(h ^ from[offset + w]!, 0x85ebca6b);
      h ^= h >>> 15;
    }
    h = Math.imul(h, 0xc2b2ae35);
    return h ^ (h >>> 13);
  }

  private rehash(): void {
    const places = (this.mask + 1) * 2;
    const { words, list } = this;
    const table = new Int32Array(places).fill(FREE);
    const mask = places - 1;
    for (let number = 0; number < this.size; number++) {
      const hash = StateSet.hash(list, number * words, words);
      let slot = hash & mask;
      while (table[slot] !== FREE) slot = (slot + 1) & mask;
      table[slot] = tagOf(hash) | number;
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

/** The number of a state in a set, which it is added to if it is new. */
export function numberIn(set: StateSet, state: Int32Array): number {
  const number = set.add(state);
  return number < 0 ? ~number : number;
}
