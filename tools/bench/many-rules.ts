import {
  and,
  type Compiled,
  compileProgram,
  type Declaration,
  type Evaluator,
  type Expr,
  name,
  not,
  or,
  when,
} from '../../src/core/logic';

/** Many rules of the common kinds over forty inputs. */
export function manyRules(count: number): Compiled {
  const declarations: Declaration[] = Array.from({ length: 40 }, (_, i) => ({
    name: `i${i}`,
    type: 'bool',
    role: 'input',
  }));
  for (let i = 0; i < count; i++) {
    const a = name(i < 40 ? `i${i}` : `r${i - 1 - ((i * 7) % 30)}`);
    const b = name(`i${(i * 13) % 40}`);
    const kinds: Expr[] = [
      and(a, not(b)),
      or(a, b),
      { op: 'RS', set: a, reset: b, starts: false },
      { op: 'TOF', in: a, ms: 1000, starts: false },
      when(a, b, not(a)),
    ];
    declarations.push({ name: `r${i}`, type: 'bool', role: 'rule', expr: kinds[i % kinds.length] });
  }
  return compileProgram({ scanMs: 20, enums: {}, declarations });
}

/** How long a scan takes while an input changes before each. */
export function scanMs(evaluator: Evaluator): () => number {
  let scans = 0;
  const run = (count: number) => {
    for (const last = scans + count; scans < last; scans++) {
      evaluator.setInput(scans % 40, scans & 1);
      evaluator.scan(scans * 20);
    }
  };
  run(5000);
  return () => {
    const from = performance.now();
    run(200);
    return (performance.now() - from) / 200;
  };
}
