import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROOT } from '../places';
import { bundleCore, runCore } from './bundle';
import { CORE_FIGURES } from './core-figures';
import type { Measured } from './figure';

const TURNS = 3;

/** Every figure of the core here and at a commit, in turns: the best of each, and their ratios turn by turn. */
export async function against(commit: string): Promise<number> {
  const folder = mkdtempSync(join(tmpdir(), 'roblik-against-'));
  const root = join(folder, 'checkout');
  const git = (...args: string[]) => execFileSync('git', args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
  try {
    git('worktree', 'add', '--detach', root, commit);
  } catch {
    rmSync(folder, { recursive: true, force: true });
    console.error(`“${commit}” is no commit of this checkout.`);
    return 2;
  }
  try {
    symlinkSync(`${ROOT}/node_modules`, `${root}/node_modules`);
    const here = await bundleCore();
    const there = await bundleCore(root).catch(() => undefined);
    if (!there) {
      console.error('The bench of today cannot be built with the core of that commit: what it calls has changed.');
      here.drop();
      return 2;
    }
    for (const figure of CORE_FIGURES) {
      const turns: [number, number][] = [];
      for (let turn = 0; turn < TURNS; turn++) {
        const values: number[] = [];
        for (const { file } of [here, there])
          await runCore(file, [figure.name], ({ value }: Measured) => values.push(value)).catch(() => {});
        if (values.length === 2) turns.push(values as [number, number]);
      }
      console.log(sayTurns(figure.name, figure.unit, figure.least === undefined, turns));
    }
    here.drop();
    there.drop();
    return 0;
  } finally {
    git('worktree', 'remove', '--force', root);
    rmSync(folder, { recursive: true, force: true });
  }
}

function sayTurns(name: string, unit: string, lessIsBetter: boolean, turns: readonly [number, number][]): string {
  if (turns.length === 0) return `${name.padEnd(56)} cannot be measured at both`;
  const best = (values: number[]) => (lessIsBetter ? Math.min(...values) : Math.max(...values));
  const shown = (value: number) => Number(value.toPrecision(4));
  const ratios = turns.map(([now, then]) => now / then).sort((a, b) => a - b);
  const [now, then] = [best(turns.map(([one]) => one)), best(turns.map(([, other]) => other))];
  return `${name.padEnd(56)} ${shown(now)} ${unit}, was ${shown(then)}: x${(now / then).toFixed(2)} (${ratios[0]!.toFixed(2)} to ${ratios.at(-1)!.toFixed(2)})`;
}
