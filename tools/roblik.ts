import { against } from './bench/against';
import { bench } from './bench/bench';
import { resetDemo } from './demo';
import { fuzzCommand } from './fuzz/fuzz';
import { start, stop } from './start';
import { test } from './test';

/** Reads “--name value” from the command line; undefined when it is not there. */
function option(name: string): string | undefined {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? undefined : process.argv[at + 1];
}

/** A whole number from the command line, or what holds without it. */
function whole(name: string, otherwise: number): number {
  const given = Number(option(name) ?? otherwise);
  if (Number.isInteger(given) && given > 0) return given;
  console.error(`“${option(name)}” is no number for --${name}. Use a whole number above 0.`);
  process.exit(2);
}

const port = Number(option('port') ?? 3000);
if (!Number.isInteger(port) || port < 1 || port > 65_535) {
  console.error(`“${option('port')}” is no port. Use a number from 1 to 65535.`);
  process.exit(2);
}

const commands: Record<string, () => Promise<number>> = {
  start: () => start({ port, host: option('host') ?? '127.0.0.1', development: false }),
  dev: () => start({ port, host: option('host') ?? '127.0.0.1', development: true }),
  stop,
  'reset-demo': resetDemo,
  bench: () => (option('against') ? against(option('against')!) : bench(process.argv.includes('--json'))),
  test: () => test(process.argv.includes('--whole')),
  fuzz: () => fuzzCommand(whole('layouts', 100), whole('seed', 1)),
};

const command = commands[process.argv[2] ?? ''];
if (!command) throw new Error(`There is no command ${process.argv[2]}.`);
process.exitCode = await command();
