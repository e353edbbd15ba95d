import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { hazardFlag } from '@/core/proof/export';
import type { HazardId } from '@/core/simulation';

/** How many errors and states a search found, whether it looked at all of them, and how long it took, in ms. */
interface Look {
  errors: number;
  states: number;
  complete: boolean;
  ms: number;
}

/** Runs a Promela model through Debian’s Spin, compiled once and searched once for each of the `environments`. */
function searches(
  model: string,
  compilerFlags: string[],
  environments: Record<string, string>[],
  optimised = false,
): Look[] {
  const folder = mkdtempSync(join(tmpdir(), 'roblik-spin-'));
  try {
    writeFileSync(join(folder, 'm.pml'), model);
    const run = (program: string, args: string[], environment: Record<string, string> = {}) =>
      execFileSync(program, args, {
        cwd: folder,
        encoding: 'utf8',
        stdio: ['ignore', 'pipe', 'pipe'],
        maxBuffer: 1e8,
        env: { ...process.env, ...environment },
      });
    run('spin', ['-a', 'm.pml']);
    /** Compiling takes far longer than most searches, optimised or not. */
    run('gcc', [optimised ? '-O2' : '-O0', '-w', ...compilerFlags, '-o', 'pan', 'pan.c']);
    return environments.map((environment) => {
      const from = performance.now();
      const text = run(join(folder, 'pan'), ['-m4000000', '-w24'], environment);
      const number = (pattern: RegExp) => Number(pattern.exec(text)?.[1] ?? Number.NaN);
      return {
        errors: number(/errors: (\d+)/),
        states: number(/([\d.e+]+) states, stored/),
        complete: !/max search depth too small|Search not completed/.test(text),
        ms: performance.now() - from,
      };
    });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Lets Spin write the checker of a model, and the compiler read it; throws what either says against it. */
export function spinReads(model: string): void {
  const folder = mkdtempSync(join(tmpdir(), 'roblik-spin-'));
  try {
    writeFileSync(join(folder, 'm.pml'), model);
    const run = (program: string, args: string[]) =>
      execFileSync(program, args, { cwd: folder, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'], maxBuffer: 1e8 });
    run('spin', ['-a', 'm.pml']);
    run('gcc', ['-fsyntax-only', '-w', '-DSAFETY', '-DNOREDUCE', '-DVECTORSZ=8192', 'pan.c']);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Checks a Promela model as it is. */
export const spin = (model: string, compilerFlags: string[]): Look => searches(model, compilerFlags, [{}])[0]!;

/** Every state of a model, compiled for speed, with no property asked: how long Spin’s verifier takes. */
export const spinAll = (model: string): Look =>
  searches(model, ['-DSAFETY', '-DNOREDUCE', '-DVECTORSZ=8192', '-DNOCLAIM'], [{}], true)[0]!;

/** Looks in the model of a layout for any of each set of hazards. */
export function spinHazards(model: string, sets: readonly (readonly HazardId[])[]): Look[] {
  const asked = 'work == 0 && todo == 0 && (HAZARD)';
  if (!model.includes(asked)) throw new Error('The model asks for no harm.');
  const any = sets.map(
    (hazards, nth) =>
      `(picked(${nth}) && (${['0', ...hazards.map((hazard) => `now.${hazardFlag(hazard)}`)].join(' || ')}))`,
  );
  const picking = `c_decl {
  extern char *getenv(const char *);
  extern int atoi(const char *);
  static int picked(int n) { static int asked = -1; if (asked < 0) asked = atoi(getenv("PICKED")); return asked == n; }
}
`;
  const pick = `c_expr { now.work == 0 && now.todo == 0 && (${any.join(' || ')}) }`;
  return searches(
    picking + model.replace(asked, pick),
    ['-DSAFETY', '-DNOREDUCE', '-DVECTORSZ=8192'],
    sets.map((_, nth) => ({ PICKED: String(nth) })),
  );
}
