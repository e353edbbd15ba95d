/** How a timer and an edge are called in the text. */
export type Timer = 'TON' | 'TOF' | 'TP';
export type Edge = 'R_TRIG' | 'F_TRIG';

/** What a reader makes of the parts of a rule. Memories and timers go by the number of their first state word. */
export interface Making<T> {
  constant(number: number): T;
  value(slot: number): T;
  before(slot: number): T;
  not(of: T): T;
  and(of: T[]): T;
  or(of: T[]): T;
  same(one: T, two: T): T;
  choose(when: T, then: T, otherwise: T): T;
  latch(kind: 'SR' | 'RS', at: number, set: T, reset: T, starts: boolean): T;
  timer(kind: Timer, at: number, ms: number, input: T, starts: boolean): T;
  edge(kind: Edge, at: number, input: T, starts: boolean): T;
}

/**
 * Reads the text of a program, from the grammar of docs/rule-language.md and not by the reader of the core; state words are counted as rules come in
 * the order in which they are asked for.
 */
export class TextReader<T> {
  private words: string[] = [];
  private at = 0;
  private state = 0;
  private readonly enums = new Map<string, string[]>();
  private readonly lines = new Map<string, { type: string; words: string[] }>();

  constructor(
    text: string,
    private readonly slots: ReadonlyMap<string, number>,
    private readonly make: Making<T>,
  ) {
    for (const line of text.split('\n')) {
      const words = line.match(/"(?:[^"\\]|\\.)*"|[A-Za-z0-9_]+|[#().,:=]/g) ?? [];
      if (words[0] === 'values') this.enums.set(words[1]!, listOf(words.slice(3)));
      if (words[0] !== 'input' && words[0] !== 'rule' && words[0] !== 'output') continue;
      this.words = words;
      this.at = 1;
      const name = this.name();
      this.take(':');
      this.lines.set(name, { type: this.words[this.at]!, words: words.slice(this.at + 2) });
    }
  }
  term(name: string): T {
    const { words, type } = this.lines.get(name)!;
    this.words = words;
    this.at = 0;
    return this.whole(type);
  }
  private is(word: string) {
    return this.words[this.at] === word;
  }
  private take(word: string) {
    if (!this.is(word)) throw new Error(`${word} is expected, not ${this.words[this.at]} in ${this.words.join(' ')}`);
    this.at += 1;
  }
  private takeIf(word: string) {
    if (!this.is(word)) return false;
    this.at += 1;
    return true;
  }
  private part() {
    const word = this.words[this.at++]!;
    return word.startsWith('"') ? (JSON.parse(word) as string) : word;
  }
  private name(): string {
    let name = this.part();
    while (this.takeIf('.')) name += `.${this.part()}`;
    return name;
  }
  private whole(type: string): T {
    if (!this.takeIf('if')) return this.or(type);
    const when = this.or('bool');
    this.take('then');
    const then = this.or(type);
    this.take('else');
    return this.make.choose(when, then, this.whole(type));
  }
  private series(word: 'and' | 'or', part: () => T): T {
    const parts = [part()];
    while (this.takeIf(word)) parts.push(part());
    return parts.length === 1 ? parts[0]! : this.make[word](parts);
  }
  private or = (type: string): T => this.series('or', () => this.series('and', () => this.comparison(type)));
  private comparison(type: string): T {
    const before = this.at;
    const name = /^["A-Za-z_]/.test(this.words[before] ?? '') ? this.typeAhead() : undefined;
    const left = this.unary(type);
    if (!this.takeIf('is')) return left;
    return this.make.same(left, this.unary(name ?? 'bool'));
  }
  private typeAhead(): string | undefined {
    const at = this.at;
    const name = this.name();
    this.at = at;
    return this.lines.get(name)?.type;
  }
  private unary(type: string): T {
    return this.takeIf('not') ? this.make.not(this.unary('bool')) : this.primary(type);
  }
  private primary(type: string): T {
    if (this.takeIf('(')) {
      const inner = this.whole(type);
      this.take(')');
      return inner;
    }
    if (this.takeIf('#')) return this.make.constant(this.enums.get(type)!.indexOf(this.part()));
    if (this.takeIf('true')) return this.make.constant(1);
    if (this.takeIf('false')) return this.make.constant(0);
    const word = this.words[this.at]!;
    if (/^(PREVIOUS|SR|RS|TON|TOF|TP|R_TRIG|F_TRIG)$/.test(word)) {
      this.at += 1;
      this.take('(');
      const made = this.block(word);
      this.take(')');
      return made;
    }
    return this.make.value(this.slots.get(this.name())!);
  }
  private block(word: string): T {
    if (word === 'PREVIOUS') return this.make.before(this.slots.get(this.name())!);
    const first = this.whole('bool');
    this.take(',');
    if (word === 'SR' || word === 'RS') {
      const reset = this.whole('bool');
      this.take(',');
      return this.make.latch(word, this.state++, first, reset, this.starts());
    }
    if (word.endsWith('TRIG')) return this.make.edge(word as Edge, this.state++, first, this.starts());
    const ms = Number(this.words[this.at]);
    this.at += 2;
    this.take(',');
    const at = this.state;
    this.state += 3;
    return this.make.timer(word as Timer, at, ms, first, this.starts());
  }
  /** The last argument of what remembers: what it holds before the first scan. */
  private starts(): boolean {
    return this.words[this.at++] === 'on';
  }
}
function listOf(words: readonly string[]): string[] {
  return words
    .filter((word) => word !== ',')
    .map((word) => (word.startsWith('"') ? (JSON.parse(word) as string) : word));
}
