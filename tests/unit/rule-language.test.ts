import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  compileProgram,
  type Expr,
  Interpreter,
  RuleProgramError,
  RuleTextError,
  readExpr,
  readProgram,
  whyValue,
  writeExpr,
  writeProgram,
} from '@/core/logic';
import { compileSystem } from '@/core/system';
import { smallValley } from '@/demo/small-valley';
import { spokenName } from './rule-named';

const names = fc.constantFrom('a', 'b', 'occupied.M1', 'signal.4·2', 'held.MB.from M1', 'if', 'odd "name"');
const expressions: fc.Arbitrary<Expr> = fc.letrec<{ expr: Expr }>((tie) => ({
  expr: fc.oneof(
    { depthSize: 'small', withCrossShrink: true },
    names.map((name): Expr => ({ op: 'name', name })),
    names.map((name): Expr => ({ op: 'previous', name })),
    fc.constantFrom<Expr>({ op: 'true' }, { op: 'false' }, { op: 'value', value: 'stop' }),
    tie('expr').map((of): Expr => ({ op: 'not', of })),
    fc
      .tuple(fc.constantFrom('and' as const, 'or' as const), fc.array(tie('expr'), { minLength: 2, maxLength: 4 }))
      .map(([op, of]): Expr => ({ op, of })),
    fc.tuple(tie('expr'), tie('expr')).map(([left, right]): Expr => ({ op: 'is', left, right })),
    fc
      .tuple(tie('expr'), tie('expr'), tie('expr'))
      .map(([when, then, otherwise]): Expr => ({ op: 'if', when, then, otherwise })),
    fc
      .tuple(fc.constantFrom('SR' as const, 'RS' as const), tie('expr'), tie('expr'), fc.boolean())
      .map(([op, set, reset, starts]): Expr => ({ op, set, reset, starts })),
    fc
      .tuple(fc.constantFrom('TON' as const, 'TOF' as const, 'TP' as const), tie('expr'), fc.nat(99_999), fc.boolean())
      .map(([op, input, ms, starts]): Expr => ({ op, in: input, ms, starts })),
    fc
      .tuple(fc.constantFrom('R_TRIG' as const, 'F_TRIG' as const), tie('expr'), fc.boolean())
      .map(([op, input, starts]): Expr => ({ op, in: input, starts })),
  ),
})).expr;

describe('text form', () => {
  test('an expression parses back to the same tree', () => {
    fc.assert(
      fc.property(expressions, (expr) => {
        expect(readExpr(writeExpr(expr))).toEqual(expr);
      }),
      { numRuns: 2000, seed: 11 },
    );
  });
  test('the demo’s whole program parses back to the same tree', () => {
    const { called, ...program } = compileSystem(smallValley()).program;
    const bare = {
      ...program,
      declarations: program.declarations.map(({ name, type, role, expr }) =>
        expr ? { name, type, role, expr } : { name, type, role },
      ),
    };
    expect(readProgram(writeProgram(program))).toEqual(bare);
    const inWords = readProgram(writeProgram({ ...program, called }));
    expect(inWords.declarations.map(({ name }) => name)).toEqual(
      bare.declarations.map(({ name }) => spokenName({ ...program, called }, name)),
    );
  });
  test.each([
    ['a and', 'condition is expected'],
    ['(a', '“)” is expected'],
    ['a b', 'left over'],
    ['TON(a, 5, off)', '“ms” is expected'],
    ['a ? b', 'cannot read'],
    ['if a then b', '“else” is expected'],
  ])('“%s” is refused with its place', (text, part) => {
    expect(() => readExpr(text)).toThrow(RuleTextError);
    expect(() => readExpr(text)).toThrow(part);
    expect(() => readExpr(text)).toThrow(/Line 1, column \d+/);
  });
});

const program = (text: string) => readProgram(`scan 20 ms\nvalues aspect = stop, clear\n${text}`);

describe('compiling', () => {
  test('a circle of names is an error that names it', () => {
    expect(() => compileProgram(program('rule a : bool = not b\nrule b : bool = a'))).toThrow(/circle: a -> b -> a/);
  });
  test('PREVIOUS breaks a circle, and reads the last scan', () => {
    const compiled = compileProgram(program('rule a : bool = not PREVIOUS(a)'));
    const run = new Interpreter(compiled);
    const seen = [0, 1, 2, 3].map((i) => {
      run.scan(i * 20);
      return run.valueOf('a');
    });
    expect(seen).toEqual([1, 0, 1, 0]);
  });
  test('every use of a name reads this scan’s value, whatever the order of writing', () => {
    const compiled = compileProgram(program('output z : bool = y\nrule y : bool = x\ninput x : bool'));
    const run = new Interpreter(compiled);
    run.setInput(compiled.slots.get('x')!, 1);
    run.scan(0);
    expect(run.valueOf('z')).toBe(1);
  });
  test.each([
    ['rule a : bool = b', '“b”, which does not exist'],
    ['rule a : colour = true', 'unknown type'],
    ['rule a : bool = true\nrule a : bool = false', 'declared twice'],
    ['rule a : aspect = #blue', 'no aspect'],
    ['input x : aspect\nrule a : bool = not x', 'uses an aspect where a yes or no is needed'],
  ])('%s is refused', (text, part) => {
    expect(() => compileProgram(program(text))).toThrow(RuleProgramError);
    expect(() => compileProgram(program(text))).toThrow(part);
  });
});

test('skipping settled scans changes nothing, value for value', () => {
  const { program: demo } = compileSystem(smallValley());
  const compiled = compileProgram(demo);
  const [full, skipping] = [new Interpreter(compiled, false), new Interpreter(compiled, true)];
  const flips = fc.sample(fc.tuple(fc.nat(compiled.inputs - 1), fc.nat(1), fc.nat(80)), { seed: 3, numRuns: 400 });
  let tick = 0;
  for (const [slot, value, scans] of flips) {
    for (const run of [full, skipping]) run.setInput(slot, value);
    for (let i = 0; i <= scans; i++) {
      tick += 1;
      full.scan(tick * 20);
      skipping.scan(tick * 20);
      if (!full.values.every((v, s) => v === skipping.values[s])) expect.fail(`they differ at scan ${tick}`);
    }
  }
  expect(skipping.skipped).toBeGreaterThan(tick / 2);
});

test('an explanation marks the terms that decide', () => {
  const text = program('input a : bool\ninput b : bool\noutput s : aspect = if a and b then #clear else #stop');
  const values: Record<string, number> = { a: 1, b: 0, s: 0 };
  const reason = whyValue(text, 's', (n) => values[n]);
  expect(reason.says).toBe('s is stop');
  expect(reason.because.map((r) => [r.says, r.decides])).toEqual([
    ['a is true', false],
    ['b is false', true],
  ]);
});
