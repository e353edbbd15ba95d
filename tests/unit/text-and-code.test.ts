import { execFileSync } from 'node:child_process';
import { expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { type Compiled, compileProgram, Op, writeProgram } from '@/core/logic';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { ondrelValley } from '@/demo/ondrel-valley';

/**
 * The text of every generated rule against its byte code, by Debian’s z3. The text is read here by a reader of its own, from the grammar of
 * docs/rule-language.md; the byte code is run on terms in place of numbers. Every value is a whole number, true is 1.
 */
type Term = string;
const asTruth = (condition: string): Term => `(ite ${condition} 1 0)`;
const isTrue = (term: Term) => `(= ${term} 1)`;
/** Memories and timers by the number of their first state word: what they held is free, how a timer answers is a function of its own. */
const latch = (setWins: boolean, at: number, set: Term, reset: Term): Term => {
  const kept = isTrue(`m${at}`);
  return asTruth(
    setWins
      ? `(or ${isTrue(set)} (and (not ${isTrue(reset)}) ${kept}))`
      : `(and (not ${isTrue(reset)}) (or ${isTrue(set)} ${kept}))`,
  );
};
const timer = (at: number, ms: number, input: Term): Term => `(timer ${at} ${ms} ${input})`;
const edge = (rises: boolean, at: number, input: Term): Term =>
  rises
    ? asTruth(`(and ${isTrue(input)} (not ${isTrue(`m${at}`)}))`)
    : asTruth(`(and (not ${isTrue(input)}) ${isTrue(`m${at}`)})`);

/** The term that byte code stores into each slot. */
function termsOfCode({ code }: Compiled): Map<number, Term> {
  const stored = new Map<number, Term>();
  const stack: Term[] = [];
  const pop = () => stack.pop()!;
  for (let pc = 0; pc < code.length; ) {
    const op = code[pc++]! as Op;
    const word = () => code[pc++]!;
    switch (op) {
      case Op.Const:
        stack.push(String(word()));
        break;
      case Op.Load:
        stack.push(`v${word()}`);
        break;
      case Op.Previous:
        stack.push(`b${word()}`);
        break;
      case Op.Not:
        stack.push(asTruth(`(not ${isTrue(pop())})`));
        break;
      case Op.And:
      case Op.Or: {
        const parts = Array.from({ length: word() }, pop);
        stack.push(asTruth(`(${op === Op.And ? 'and' : 'or'} ${parts.map(isTrue).join(' ')})`));
        break;
      }
      case Op.Is: {
        const right = pop();
        stack.push(asTruth(`(= ${pop()} ${right})`));
        break;
      }
      case Op.Choose: {
        const [otherwise, then, when] = [pop(), pop(), pop()];
        stack.push(`(ite ${isTrue(when)} ${then} ${otherwise})`);
        break;
      }
      case Op.SR:
      case Op.RS: {
        const at = word();
        const reset = pop();
        stack.push(latch(op === Op.SR, at, pop(), reset));
        break;
      }
      case Op.TON:
      case Op.TOF:
      case Op.TP: {
        const at = word();
        stack.push(timer(at, word() * 4 + (op - Op.TON), pop()));
        break;
      }
      case Op.RTrig:
      case Op.FTrig:
        stack.push(edge(op === Op.RTrig, word(), pop()));
        break;
      case Op.Store:
        stored.set(word(), pop());
        break;
    }
  }
  return stored;
}

/** Reads the text of a program; state words are counted as rules come in the order in which they are evaluated. */
class TextReader {
  private words: string[] = [];
  private at = 0;
  private state = 0;
  private readonly enums = new Map<string, string[]>();
  private readonly lines = new Map<string, { type: string; words: string[] }>();

  constructor(
    text: string,
    private readonly slots: Map<string, number>,
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
  term(name: string): Term {
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
  private whole(type: string): Term {
    if (!this.takeIf('if')) return this.or(type);
    const when = this.or('bool');
    this.take('then');
    const then = this.or(type);
    this.take('else');
    return `(ite ${isTrue(when)} ${then} ${this.whole(type)})`;
  }
  private series(word: string, part: () => Term): Term {
    const parts = [part()];
    while (this.takeIf(word)) parts.push(part());
    return parts.length === 1 ? parts[0]! : asTruth(`(${word} ${parts.map(isTrue).join(' ')})`);
  }
  private or = (type: string): Term => this.series('or', () => this.series('and', () => this.comparison(type)));
  private comparison(type: string): Term {
    const before = this.at;
    const name = /^["A-Za-z_]/.test(this.words[before] ?? '') ? this.typeAhead() : undefined;
    const left = this.unary(type);
    if (!this.takeIf('is')) return left;
    return asTruth(`(= ${left} ${this.unary(name ?? 'bool')})`);
  }
  private typeAhead(): string | undefined {
    const at = this.at;
    const name = this.name();
    this.at = at;
    return this.lines.get(name)?.type;
  }
  private unary(type: string): Term {
    return this.takeIf('not') ? asTruth(`(not ${isTrue(this.unary('bool'))})`) : this.primary(type);
  }
  private primary(type: string): Term {
    if (this.takeIf('(')) {
      const inner = this.whole(type);
      this.take(')');
      return inner;
    }
    if (this.takeIf('#')) return String(this.enums.get(type)!.indexOf(this.part()));
    if (this.takeIf('true')) return '1';
    if (this.takeIf('false')) return '0';
    const word = this.words[this.at]!;
    if (/^(PREVIOUS|SR|RS|TON|TOF|TP|R_TRIG|F_TRIG)$/.test(word)) {
      this.at += 1;
      this.take('(');
      const made = this.block(word);
      this.take(')');
      return made;
    }
    return `v${this.slots.get(this.name())}`;
  }
  private block(word: string): Term {
    if (word === 'PREVIOUS') return `b${this.slots.get(this.name())}`;
    const first = this.whole('bool');
    this.take(',');
    if (word === 'SR' || word === 'RS') {
      const reset = this.whole('bool');
      this.take(',');
      this.at += 1;
      return latch(word === 'SR', this.state++, first, reset);
    }
    if (word.endsWith('TRIG')) {
      this.at += 1;
      return edge(word === 'R_TRIG', this.state++, first);
    }
    const ms = Number(this.words[this.at]);
    this.at += 2;
    this.take(',');
    this.at += 1;
    const at = this.state;
    this.state += 3;
    return timer(at, ms * 4 + ['TON', 'TOF', 'TP'].indexOf(word), first);
  }
}
function listOf(words: readonly string[]): string[] {
  return words
    .filter((word) => word !== ',')
    .map((word) => (word.startsWith('"') ? (JSON.parse(word) as string) : word));
}

test('z3 finds no inputs for which the text of any generated rule and its code differ, in any example or the demo', () => {
  let rules = 0;
  const answers = [...EXAMPLES.map(exampleLayout), ondrelValley()].flatMap((document) => {
    const { program } = checkDesign(document);
    const compiled = compileProgram(program);
    const code = termsOfCode(compiled);
    const text = new TextReader(writeProgram({ ...program, called: {} }), compiled.slots);
    const script = ['(declare-fun timer (Int Int Int) Int)'];
    for (let slot = 0; slot < compiled.slotCount; slot++)
      script.push(`(declare-const v${slot} Int)(declare-const b${slot} Int)`);
    for (const at of compiled.state.keys()) script.push(`(declare-const m${at} Int)`);
    for (const { name } of compiled.order) {
      script.push(`(push)(assert (not (= ${text.term(name)} ${code.get(compiled.slots.get(name)!)})))(check-sat)(pop)`);
      rules += 1;
    }
    /** One that must differ, so that the check can fail. */
    const [first] = compiled.order;
    script.push(`(push)(assert (not (= ${code.get(compiled.slots.get(first!.name)!)} 7)))(check-sat)(pop)`);
    const said = execFileSync('z3', ['-in'], { input: script.join('\n'), encoding: 'utf8' })
      .trim()
      .split('\n');
    expect(said.pop(), document.name).toBe('sat');
    return said;
  });
  expect(answers).toHaveLength(rules);
  expect(new Set(answers)).toEqual(new Set(['unsat']));
  expect(rules).toBeGreaterThan(1000);
});
