import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileProgram, type Declaration, type Expr, Interpreter, type Program } from '@/core/logic';

/**
 * A second evaluator, written from the definitions of IEC 61131-3 and not from the interpreter: it walks the tree, keeps
 * the memory of each node in a map, and evaluates names on demand.
 */
class TreeWalker {
  private memory = new Map<Expr, { on: boolean; since: number; busy: boolean }>();
  private before = new Map<string, boolean>();
  constructor(private readonly program: Program) {}

  scan(now: number, inputs: Record<string, boolean>): Map<string, boolean> {
    const done = new Map<string, boolean>();
    const ask = (name: string): boolean => {
      const known = done.get(name);
      if (known !== undefined) return known;
      const declaration = this.program.declarations.find((d) => d.name === name)!;
      const value = declaration.expr ? this.evaluate(declaration.expr, now, ask) : inputs[name]!;
      done.set(name, value);
      return value;
    };
    for (const declaration of this.program.declarations) ask(declaration.name);
    this.before = done;
    return done;
  }

  private evaluate(e: Expr, now: number, ask: (name: string) => boolean): boolean {
    const sub = (part: Expr) => this.evaluate(part, now, ask);
    switch (e.op) {
      case 'true':
        return true;
      case 'false':
        return false;
      case 'name':
        return ask(e.name);
      case 'previous':
        return this.before.get(e.name) ?? false;
      case 'not':
        return !sub(e.of);
      case 'and':
        return e.of.map(sub).every(Boolean);
      case 'or':
        return e.of.map(sub).some(Boolean);
      case 'is':
        return [sub(e.left), sub(e.right)].every((v, _, all) => v === all[0]);
      case 'if': {
        const [condition, then, otherwise] = [sub(e.when), sub(e.then), sub(e.otherwise)];
        return condition ? then : otherwise;
      }
      case 'value':
        throw new Error('no enumerations here');
      default:
        return this.remember(e, now, sub);
    }
  }

  private remember(e: Extract<Expr, { starts: boolean }>, now: number, sub: (part: Expr) => boolean): boolean {
    const first = { on: e.starts, since: 0, busy: false };
    const m = this.memory.get(e) ?? first;
    this.memory.set(e, m);
    if ('set' in e) {
      const [set, reset] = [sub(e.set), sub(e.reset)];
      if (set && (e.op === 'SR' || !reset)) m.on = true;
      else if (reset) m.on = false;
      return m.on;
    }
    const input = sub(e.in);
    const was = m.on;
    m.on = input;
    if (e.op === 'R_TRIG') return input && !was;
    if (e.op === 'F_TRIG') return !input && was;
    const rises = input && !was;
    const falls = !input && was;
    if (!('ms' in e)) throw new Error(`unknown block ${e.op}`);
    if (e.op === 'TON') {
      if (rises) m.since = now;
      return input && now - m.since >= e.ms;
    }
    if (e.op === 'TOF') {
      if (falls) {
        m.since = now;
        m.busy = true;
      }
      if (input) return true;
      if (m.busy && now - m.since >= e.ms) m.busy = false;
      return m.busy;
    }
    if (rises && !m.busy) {
      m.since = now;
      m.busy = true;
    }
    if (m.busy && now - m.since >= e.ms) m.busy = false;
    return m.busy;
  }
}

const INPUTS = ['a', 'b', 'c'];

/** Programs of a few rules over three inputs; a rule reads only inputs and rules before it, so there is no circle. */
const programs: fc.Arbitrary<Program> = fc
  .array(fc.nat(), { minLength: 3, maxLength: 3 })
  .chain(() => {
    const rules = 6;
    const expr = (readable: string[], all: string[]) =>
      fc.letrec<{ e: Expr }>((tie) => ({
        e: fc.oneof(
          { depthSize: 'small' },
          fc.constantFrom(...readable).map((name): Expr => ({ op: 'name', name })),
          fc.constantFrom(...all).map((name): Expr => ({ op: 'previous', name })),
          fc.boolean().map((v): Expr => ({ op: v ? 'true' : 'false' })),
          tie('e').map((of): Expr => ({ op: 'not', of })),
          fc
            .tuple(fc.constantFrom('and' as const, 'or' as const), fc.array(tie('e'), { minLength: 2, maxLength: 3 }))
            .map(([op, of]): Expr => ({ op, of })),
          fc
            .tuple(tie('e'), tie('e'), tie('e'))
            .map(([when, then, otherwise]): Expr => ({ op: 'if', when, then, otherwise })),
          fc
            .tuple(fc.constantFrom('SR' as const, 'RS' as const), tie('e'), tie('e'), fc.boolean())
            .map(([op, set, reset, starts]): Expr => ({ op, set, reset, starts })),
          fc
            .tuple(
              fc.constantFrom('TON' as const, 'TOF' as const, 'TP' as const),
              tie('e'),
              fc.integer({ min: 1, max: 130 }),
              fc.boolean(),
            )
            .map(([op, input, ms, starts]): Expr => ({ op, in: input, ms, starts })),
          fc
            .tuple(fc.constantFrom('R_TRIG' as const, 'F_TRIG' as const), tie('e'), fc.boolean())
            .map(([op, input, starts]): Expr => ({ op, in: input, starts })),
        ),
      })).e;
    const all = [...INPUTS, ...Array.from({ length: rules }, (_, i) => `r${i}`)];
    return fc.tuple(...Array.from({ length: rules }, (_, i) => expr(all.slice(0, INPUTS.length + i), all)));
  })
  .map((list) => ({
    scanMs: 20,
    enums: {},
    declarations: [
      ...INPUTS.map((name): Declaration => ({ name, type: 'bool', role: 'input' })),
      ...list.map((expr, i): Declaration => ({ name: `r${i}`, type: 'bool', role: 'rule', expr })),
    ],
  }));

describe('the interpreter against a second evaluator', () => {
  const stimuli = fc.array(fc.tuple(fc.boolean(), fc.boolean(), fc.boolean(), fc.integer({ min: 1, max: 9 })), {
    minLength: 5,
    maxLength: 25,
  });

  test.each([true, false])('agree on 1,500 random programs, scan by scan (skipping settled scans: %s)', (skip) => {
    fc.assert(
      fc.property(programs, stimuli, (program, stimulus) => {
        const compiled = compileProgram(program);
        const run = new Interpreter(compiled, skip);
        const referee = new TreeWalker(program);
        let now = 0;
        for (const [a, b, c, scans] of stimulus) {
          for (const [i, value] of [a, b, c].entries()) run.setInput(compiled.slots.get(INPUTS[i]!)!, value ? 1 : 0);
          for (let i = 0; i < scans; i++, now += 20) {
            run.scan(now);
            const wanted = referee.scan(now, { a, b, c });
            for (const [name, value] of wanted) {
              if ((run.valueOf(name) === 1) !== value)
                expect.fail(`${name} at ${now} ms is ${run.valueOf(name)}, the referee says ${value}`);
            }
          }
        }
      }),
      { numRuns: 1500, seed: 21 },
    );
  });

  test('an input cannot be set on a rule, and an unknown name is named', () => {
    const compiled = compileProgram({
      scanMs: 20,
      enums: {},
      declarations: [{ name: 'r', type: 'bool', role: 'rule', expr: { op: 'true' } }],
    });
    const run = new Interpreter(compiled);
    expect(() => run.setInput(0, 1)).toThrow('no input');
    expect(() => run.valueOf('x')).toThrow('no “x”');
  });
});

describe('a hold is never shorter than promised, and at most one scan longer', () => {
  test.each([20, 30, 50, 999, 1000, 1001])('TOF of %i ms at scans of 20 ms', (ms) => {
    const compiled = compileProgram({
      scanMs: 20,
      enums: {},
      declarations: [
        { name: 'a', type: 'bool', role: 'input' },
        {
          name: 'q',
          type: 'bool',
          role: 'rule',
          expr: { op: 'TOF', in: { op: 'name', name: 'a' }, ms, starts: false },
        },
      ],
    });
    for (const fallsAt of [200, 201, 210, 219]) {
      const run = new Interpreter(compiled);
      let ended = 0;
      for (let now = 0; ended === 0; now += 20) {
        run.setInput(0, now < fallsAt ? 1 : 0);
        run.scan(now);
        if (now > fallsAt && run.valueOf('q') === 0) ended = now;
      }
      expect(ended - fallsAt).toBeGreaterThanOrEqual(ms);
      expect(ended - fallsAt).toBeLessThan(ms + 40);
    }
  });
});
