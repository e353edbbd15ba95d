import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from 'esbuild';
import { ROOT } from '../places';
import type { Measured } from './figure';

/** The core’s figures in one file, as the pages have them: with the core of a checkout, this one or another. Gone with `drop`. */
export async function bundleCore(root = ROOT): Promise<{ file: string; drop(): void }> {
  const folder = mkdtempSync(join(tmpdir(), 'roblik-bench-'));
  const file = join(folder, 'core.mjs');
  const other = { name: 'core-of', setup: fromRoot(root) };
  await build({
    entryPoints: [`${ROOT}/tools/bench/run-core.ts`],
    outfile: file,
    bundle: true,
    minify: true,
    format: 'esm',
    platform: 'node',
    target: 'node20',
    logLevel: 'silent',
    plugins: [other],
  });
  return { file, drop: () => rmSync(folder, { recursive: true, force: true }) };
}

/** What the bench imports of this checkout’s src is taken from another root. */
const fromRoot =
  (root: string) =>
  (bundler: Parameters<NonNullable<Parameters<typeof build>[0]['plugins']>[number]['setup']>[0]): void => {
    if (root === ROOT) return;
    bundler.onResolve({ filter: /\/src\// }, ({ path, resolveDir, kind }) =>
      resolveDir.startsWith(`${ROOT}/tools`)
        ? bundler.resolve(`${root}/${path.slice(path.indexOf('src/'))}`, { resolveDir: root, kind })
        : undefined,
    );
  };

/** Runs a bundle in a process of its own, and tells each figure as it comes. */
export const runCore = (file: string, names: readonly string[], tell: (measured: Measured) => void): Promise<void> =>
  new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [file, ...names], { stdio: ['ignore', 'pipe', 'inherit'] });
    let rest = '';
    child.stdout.setEncoding('utf8').on('data', (text: string) => {
      const lines = (rest + text).split('\n');
      rest = lines.pop()!;
      for (const line of lines) tell(JSON.parse(line) as Measured);
    });
    child.on('error', reject);
    child.on('exit', (code) => (code === 0 ? resolve() : reject(new Error(`The bench ended with ${code}.`))));
  });
