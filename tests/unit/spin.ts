import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Checks a Promela model with Debian's Spin: how many errors and states it finds, and whether it looked at all of them. */
export function spin(model: string, compilerFlags: string[], define: string[] = []) {
  const folder = mkdtempSync(join(tmpdir(), 'roblik-spin-'));
  try {
    writeFileSync(join(folder, 'm.pml'), model);
    const run = (program: string, args: string[]) =>
      execFileSync(program, args, { cwd: folder, encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'], maxBuffer: 1e8 });
    run('spin', ['-a', ...define, 'm.pml']);
    run('gcc', ['-O1', '-w', ...compilerFlags, '-o', 'pan', 'pan.c']);
    const text = run(join(folder, 'pan'), ['-m4000000', '-w24']);
    const number = (pattern: RegExp) => Number(pattern.exec(text)?.[1] ?? Number.NaN);
    return {
      errors: number(/errors: (\d+)/),
      states: number(/([\d.e+]+) states, stored/),
      complete: !/max search depth too small|Search not completed/.test(text),
    };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
