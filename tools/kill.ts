import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { Random } from '../src/core/simulation/random';
import { learningOval } from '../src/demo/learning-oval';
import { type Application, run } from './application';
import { Database } from './database';
import { somePort } from './ports';

/** Longest time from the restart of editing to the next kill. */
const LONGEST_LIFE_MS = 300;

interface Edited {
  revision: number;
  /** The last edit that was answered as saved, and the last that was sent. */
  saved: number;
  sent: number;
}

/** One save; true when it was answered as saved. */
async function save(address: string, id: string, run: Edited): Promise<boolean> {
  const n = run.sent + 1;
  run.sent = n;
  const response = await fetch(`${address}/api/layouts/${id}`, {
    method: 'PUT',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({
      revision: run.revision,
      document: { ...learningOval(), name: `Edit ${n}` },
      token: 'kill-test',
    }),
  }).catch(() => undefined);
  const answer = (await response?.json().catch(() => undefined)) as { revision?: number } | undefined;
  if (!response?.ok || answer?.revision === undefined) return false;
  run.revision = answer.revision;
  run.saved = n;
  return true;
}

async function load(address: string, id: string): Promise<{ revision: number; stored: number }> {
  for (let tries = 0; ; tries++) {
    const response = await fetch(`${address}/api/layouts/${id}`).catch(() => undefined);
    if (response?.ok) {
      const { revision, name } = (await response.json()) as { revision: number; name: string };
      return { revision, stored: name === learningOval().name ? 0 : Number(name.replace('Edit ', '')) };
    }
    if (tries > 2400) throw new Error('The layout does not come back after the kill.');
    await pause(25);
  }
}

/**
 * Edits a layout without rest and kills the server, or the database, at random moments; after each kill what is stored must
 * be no older than the last edit answered as saved, and no edit that was never sent. Throws at the first loss. Returns how
 * many edits were saved. The database must have been started.
 */
async function killRun(database: Database, what: 'server' | 'database', times: number): Promise<number> {
  const random = new Random(what === 'server' ? 1 : 2);
  const launch = async () =>
    run({ port: await somePort(), host: '127.0.0.1', database: database.url, development: false, quiet: true });
  /** The servers that follow the one that is killed; starting takes longer than living. */
  const spare = what === 'server' ? [launch(), launch()] : [];
  /** One that does not start is told when its turn comes. */
  for (const server of spare) server.catch(() => {});
  let application: Application | undefined;
  try {
    application = await launch();
    const made = await fetch(`${application.address}/api/layouts/import`, {
      method: 'POST',
      body: JSON.stringify(learningOval()),
    });
    const { id } = (await made.json()) as { id: string };
    const edits: Edited = { revision: 1, saved: 0, sent: 0 };
    for (let kill = 0; kill < times; kill++) {
      /** Every other life has a saved edit before its end is drawn, so that on a slow machine, too, there is something to lose. */
      if (kill % 2 === 1) await save(application.address, id, edits);
      const ends = pause(Math.floor(random.uniform() * LONGEST_LIFE_MS)).then(() =>
        what === 'server' ? application!.kill() : database.kill(),
      );
      while (await save(application.address, id, edits));
      await ends;
      if (what === 'server') {
        application = await spare.shift()!;
        const next = launch();
        next.catch(() => {});
        spare.push(next);
      } else await database.start();
      const { revision, stored } = await load(application.address, id);
      if (!(stored >= edits.saved && stored <= edits.sent))
        throw new Error(`Kill ${kill + 1}: edit ${edits.saved} was shown as saved, edit ${stored} is stored.`);
      edits.revision = revision;
      edits.sent = stored;
      edits.saved = stored;
    }
    return edits.saved;
  } finally {
    await application?.stop();
    for (const server of await Promise.allSettled(spare)) if (server.status === 'fulfilled') await server.value.stop();
  }
}

/** Kills the server and, beside it, the database of another run `times` times each. Returns the edits saved in both. */
export async function killBoth(folder: string, times: number): Promise<number> {
  const databases = [new Database(join(folder, 'a')), new Database(join(folder, 'b'))] as const;
  try {
    for (const database of databases) await database.start();
    const [a, b] = await Promise.all([
      killRun(databases[0], 'server', times),
      killRun(databases[1], 'database', times),
    ]);
    return a + b;
  } finally {
    for (const database of databases) await database.stop();
  }
}
