import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { type Application, build, run } from './application';
import { Database } from './database';
import { plantDemo, readRunning } from './demo';
import { DATA, RUNNING, type Running } from './places';
import { freePort } from './ports';

/** Builds, starts database and application, prints the address, and stops both cleanly on Ctrl-C. */
export async function start(options: { port: number; host: string; development: boolean }): Promise<number> {
  const already = readRunning();
  if (already) {
    console.log(`Roblik runs already: ${already.address}\nStop it with ./roblik stop.`);
    return 0;
  }
  mkdirSync(DATA, { recursive: true });
  if (!options.development) {
    console.log('Preparing …');
    build();
  }
  const database = new Database(DATA);
  let application: Application | undefined;
  let ending = false;
  const ended = new Promise<number>((resolve) => {
    const end = async (code: number) => {
      if (ending) return;
      ending = true;
      await application?.stop();
      await database.stop();
      rmSync(RUNNING, { force: true });
      resolve(code);
    };
    process.on('SIGINT', () => void end(0));
    process.on('SIGTERM', () => void end(0));
    process.on('SIGHUP', () => void end(0));
    void (async () => {
      try {
        const applied = await database.start();
        if (applied.includes('001-layouts.sql')) await plantDemo(database.url, false);
        const port = await freePort(options.port, options.host);
        if (port !== options.port) console.log(`Port ${options.port} is taken; using ${port}.`);
        application = await run({ ...options, port, database: database.url });
        const note: Running = { pid: process.pid, database: database.url, address: application.address };
        writeFileSync(RUNNING, JSON.stringify(note), { mode: 0o600 });
        console.log(`Roblik is ready: ${application.address}\nCtrl-C stops it.`);
        application.child.once('exit', () => void end(1));
      } catch (error) {
        if (!ending) console.error(error instanceof Error ? error.message : error);
        await end(1);
      }
    })();
  });
  return ended;
}

/** Stops a running Roblik of this folder and waits until it has ended. */
export async function stop(): Promise<number> {
  const running = readRunning();
  if (!running) {
    console.log('Roblik is not running.');
    return 0;
  }
  process.kill(running.pid, 'SIGTERM');
  for (let tries = 0; tries < 200 && readRunning(); tries++) await new Promise((resolve) => setTimeout(resolve, 100));
  const left = readRunning();
  console.log(left ? 'Roblik did not stop within 20 seconds.' : 'Roblik has stopped.');
  return left ? 1 : 0;
}
