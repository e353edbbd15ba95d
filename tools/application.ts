import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './places';

const NEXT = join(ROOT, 'node_modules/next/dist/bin/next');
const STAMP = join(ROOT, '.next/roblik-stamp');

/** A hash over everything the build depends on. */
function sourcesHash(): string {
  const hash = createHash('sha256');
  const files = readdirSync(join(ROOT, 'src'), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map((entry) => join(entry.parentPath, entry.name))
    .sort();
  for (const file of [...files, join(ROOT, 'package-lock.json'), join(ROOT, 'next.config.ts')]) {
    hash.update(file).update(readFileSync(file));
  }
  return hash.digest('hex');
}

/** Builds for production unless the present build is of these very sources. Returns whether it built. */
export function build(): boolean {
  const wanted = sourcesHash();
  if (existsSync(STAMP) && readFileSync(STAMP, 'utf8') === wanted) return false;
  execFileSync(process.execPath, [NEXT, 'build'], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: nextEnvironment('production'),
  });
  writeFileSync(STAMP, wanted);
  return true;
}

function nextEnvironment(mode: 'production' | 'development', extra: Record<string, string> = {}): NodeJS.ProcessEnv {
  const environment: NodeJS.ProcessEnv = { ...process.env, NODE_ENV: mode, NEXT_TELEMETRY_DISABLED: '1', ...extra };
  delete environment.NODE_OPTIONS;
  return environment;
}

export interface Application {
  address: string;
  child: ChildProcess;
  stop(): Promise<void>;
  /** Ends it at once, as a crash would. */
  kill(): Promise<void>;
}

/** Runs the built (or the live) application and waits until it and its database answer. */
export async function run(options: {
  port: number;
  host: string;
  database: string;
  development: boolean;
  /** Its complaints are expected: a test takes its database away. */
  quiet?: boolean;
}): Promise<Application> {
  const { port, host, database, development, quiet } = options;
  const child = spawn(process.execPath, [NEXT, development ? 'dev' : 'start', '-H', host, '-p', String(port)], {
    cwd: ROOT,
    env: nextEnvironment(development ? 'development' : 'production', {
      ROBLIK_DATABASE: database,
      ...(host === '127.0.0.1' ? { ROBLIK_LOOPBACK: '1' } : {}),
    }),
    stdio: ['ignore', development ? 'inherit' : 'ignore', quiet ? 'ignore' : 'inherit'],
    detached: true,
  });
  const reach = host === '0.0.0.0' || host === '::' ? '127.0.0.1' : host;
  const address = `http://${reach}:${port}`;
  for (let tries = 0; ; tries++) {
    if (child.exitCode !== null) throw new Error('The application stopped while starting.');
    const ready = await fetch(`${address}/api/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (ready) break;
    if (tries > 2400) throw new Error('The application did not answer within a minute.');
    await new Promise((resolve) => setTimeout(resolve, 25));
  }
  const stop = async () => {
    if (child.exitCode !== null) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGTERM');
    const late = setTimeout(() => child.kill('SIGKILL'), 5000);
    await ended;
    clearTimeout(late);
  };
  const kill = async () => {
    const ended = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await ended;
  };
  return { address, child, stop, kill };
}
