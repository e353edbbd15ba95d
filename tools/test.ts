import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from './application';
import { killBoth } from './kill';
import { ROOT } from './places';
import { somePort } from './ports';

const bin = (name: string) => join(ROOT, 'node_modules/.bin', name);
const sum = { passed: 0, failed: 0 };

/** One check that either holds or does not; its output is shown. */
async function check(name: string, work: () => void | Promise<void>): Promise<boolean> {
  const from = Date.now();
  console.log(`\n== ${name}`);
  try {
    await work();
    sum.passed += 1;
    console.log(`   holds (${((Date.now() - from) / 1000).toFixed(1)} s)`);
    return true;
  } catch (error) {
    sum.failed += 1;
    console.error(`   FAILS: ${error instanceof Error ? error.message : error}`);
    return false;
  }
}

/** Runs a program to its end, with its output shown; rejects when it fails. */
const command = (program: string, args: string[], environment: Record<string, string> = {}): Promise<void> =>
  new Promise((resolve, reject) => {
    const child = spawn(program, args, {
      cwd: ROOT,
      stdio: ['ignore', 'inherit', 'inherit'],
      env: { ...process.env, ...environment },
    });
    child.on('error', reject);
    child.on('exit', (code) => (code === 0 ? resolve() : reject(new Error(`${args[0]} ended with ${code}.`))));
  });

/** Runs a test runner that writes a report; its single tests are counted, and a runner that ran none has failed. */
async function runner(
  name: string,
  report: string,
  run: () => Promise<void>,
  count: (report: string) => { passed: number; failed: number },
): Promise<void> {
  console.log(`\n== ${name}`);
  let crashed = false;
  try {
    await run();
  } catch {
    crashed = true;
  }
  let counted = { passed: 0, failed: 0 };
  try {
    counted = count(readFileSync(report, 'utf8'));
  } catch {
    crashed = true;
  }
  if (counted.passed + counted.failed === 0 || (crashed && counted.failed === 0)) counted.failed += 1;
  console.log(`   ${counted.passed} hold, ${counted.failed} fail`);
  sum.passed += counted.passed;
  sum.failed += counted.failed;
}

const ALL_KILLS = 200;

interface Started {
  address: string;
  child: ChildProcess;
}

/** Starts Roblik by its own command in a data folder and waits for the address it prints. */
function startRoblik(data: string, port: number): Promise<Started> {
  const child = spawn(join(ROOT, 'roblik'), ['start', '--port', String(port)], {
    cwd: ROOT,
    env: { ...process.env, ROBLIK_DATA: data },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((resolve, reject) => {
    let text = '';
    child.stdout!.on('data', (part: Buffer) => {
      text += part.toString();
      const address = /Roblik is ready: (\S+)/.exec(text)?.[1];
      if (address) resolve({ address, child });
    });
    child.once('exit', (code) => reject(new Error(`./roblik start ended with ${code}: ${text}`)));
  });
}

function ended(child: ChildProcess): Promise<number | null> {
  return child.exitCode !== null
    ? Promise.resolve(child.exitCode)
    : new Promise((resolve) => child.once('exit', resolve));
}

async function interrupt({ child, address }: Started): Promise<void> {
  child.kill('SIGINT');
  const code = await ended(child);
  if (code !== 0) throw new Error(`Ctrl-C ended it with ${code}.`);
  const still = await fetch(address).then(
    () => true,
    () => false,
  );
  if (still) throw new Error('The application still answers after Ctrl-C.');
}

/** Runs every check of the project, of the long sweeps all or a share. Its last line is “N passed, N failed”. */
export async function test(wholeSweeps: boolean): Promise<number> {
  const scratch = mkdtempSync(join(tmpdir(), 'roblik-test-'));
  try {
    await check('Types', async () => {
      await command(bin('next'), ['typegen']);
      await command(bin('tsc'), ['--noEmit']);
    });
    await check('Lint, with the boundary rule', () => command(bin('biome'), ['check', '.']));
    const unit = join(scratch, 'unit.json');
    const sweeps = { ROBLIK_WHOLE_SWEEPS: wholeSweeps ? '1' : '0' };
    const units = () =>
      runner(
        'Unit tests',
        unit,
        () =>
          command(bin('vitest'), ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${unit}`], sweeps),
        (text) => {
          const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(text) as Record<string, number>;
          return { passed: numPassedTests ?? 0, failed: Math.max(numFailedTests ?? 0, numFailedTestSuites ? 1 : 0) };
        },
      );
    const many = wholeSweeps ? ALL_KILLS : ALL_KILLS / 4;
    const kills = () =>
      check(`${many} kills of the server and ${many} of the database lose no saved edit`, async () => {
        const saved = await killBoth(join(scratch, 'kill'), many);
        console.log(`   ${saved} edits were answered as saved`);
        if (saved < many / 2) throw new Error('Too few edits were saved between the kills to tell anything.');
      });
    const built = await check('Production build', () => void build());
    /** Killing is mostly waiting for what was killed to be back. */
    await Promise.all([units(), built ? kills() : undefined]);
    if (built) await inBrowser(scratch, sweeps);
  } finally {
    rmSync(scratch, { recursive: true, force: true });
  }
  console.log(`\n${sum.passed} passed, ${sum.failed} failed`);
  return sum.failed === 0 ? 0 : 1;
}

async function inBrowser(scratch: string, sweeps: Record<string, string>): Promise<void> {
  const data = join(scratch, 'data');
  const port = await somePort();
  let started: Started | undefined;
  let made = '';
  await check('Start on an empty data folder, then Ctrl-C', async () => {
    started = await startRoblik(data, port);
    const answer = await fetch(`${started.address}/api/layouts`, {
      method: 'POST',
      body: JSON.stringify({ name: 'Kept over a restart' }),
    });
    made = ((await answer.json()) as { id: string }).id;
    await interrupt(started);
  });
  const again = await check('Start again in seconds, with the data kept', async () => {
    const from = Date.now();
    started = await startRoblik(data, port);
    if (Date.now() - from > 60_000) throw new Error(`It took ${(Date.now() - from) / 1000} s.`);
    const answer = await fetch(`${started.address}/api/layouts/${made}`);
    if (((await answer.json()) as { name?: string }).name !== 'Kept over a restart')
      throw new Error('The layout made before is gone.');
  });
  if (!again || !started) return;
  /** One after the other whether or not the first ones hold: they only want the list of layouts as it begins. */
  for (const project of ['first', 'others']) {
    const report = join(scratch, `${project}.json`);
    await runner(
      `Browser tests, ${project}`,
      report,
      () =>
        command(bin('playwright'), ['test', `--project=${project}`, '--no-deps'], {
          ...sweeps,
          ROBLIK_ADDRESS: started!.address,
          PLAYWRIGHT_JSON_OUTPUT_NAME: report,
          ROBLIK_TEST_OUTPUT: join(scratch, `${project}-browser`),
        }),
      (text) => {
        const { stats } = JSON.parse(text) as { stats: { expected: number; unexpected: number; flaky: number } };
        return { passed: stats.expected, failed: stats.unexpected + stats.flaky };
      },
    );
  }
  await check('Ctrl-C stops application and database', () => interrupt(started!));
}
