import { execFileSync } from 'node:child_process';
import { expect, test } from 'vitest';
import { type Compiled, compileProgram, Op, writeProgram } from '@/core/logic';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { ondrelValley } from '@/demo/ondrel-valley';
import { type Making, TextReader } from './rule-text-reader';
import { ruledLoops } from './ruled-loops';

/**
 * The text of every generated rule against its byte code, by Debian’s z3. The text is read by a reader of its own
 * (`rule-text-reader.ts`); the byte code is run on terms in place of numbers. Every value is a whole number, true is 1.
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

const MAKING: Making<Term> = {
  constant: String,
  value: (slot) => `v${slot}`,
  before: (slot) => `b${slot}`,
  not: (of) => asTruth(`(not ${isTrue(of)})`),
  and: (of) => asTruth(`(and ${of.map(isTrue).join(' ')})`),
  or: (of) => asTruth(`(or ${of.map(isTrue).join(' ')})`),
  same: (one, two) => asTruth(`(= ${one} ${two})`),
  choose: (when, then, otherwise) => `(ite ${isTrue(when)} ${then} ${otherwise})`,
  latch: (kind, at, set, reset) => latch(kind === 'SR', at, set, reset),
  timer: (kind, at, ms, input) => timer(at, ms * 4 + ['TON', 'TOF', 'TP'].indexOf(kind), input),
  edge: (kind, at, input) => edge(kind === 'R_TRIG', at, input),
};

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

test('z3 finds no inputs for which the text of any generated rule and its code differ, in any example or the demo', () => {
  let rules = 0;
  const answers = [...EXAMPLES.map(exampleLayout), ondrelValley(), ruledLoops()].flatMap((document) => {
    const { program } = compileSystem(document);
    const compiled = compileProgram(program);
    const code = termsOfCode(compiled);
    const text = new TextReader(writeProgram({ ...program, called: {} }), compiled.slots, MAKING);
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
