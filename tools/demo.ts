import { existsSync, readFileSync } from 'node:fs';
import { learningOval } from '../src/demo/learning-oval';
import { ondrelValley } from '../src/demo/ondrel-valley';
import { createLayout, listLayouts, setDeleted } from '../src/server/layouts';
import { pool } from '../src/server/pool';
import { Database } from './database';
import { DATA, RUNNING, type Running } from './places';

/** Puts the two demo layouts in; older ones of the same name go to the deleted ones when `afresh`. */
export async function plantDemo(database: string, afresh: boolean): Promise<void> {
  process.env.ROBLIK_DATABASE = database;
  const demos = [learningOval(), ondrelValley()];
  if (afresh) {
    const names = new Set(demos.map((demo) => demo.name));
    for (const layout of await listLayouts()) if (names.has(layout.name)) await setDeleted(layout.id, true);
  }
  for (const demo of demos) await createLayout(demo, 'Came with Roblik');
  await pool().end();
}

/** The note of a running Roblik of this folder, if it still runs. */
export function readRunning(): Running | undefined {
  if (!existsSync(RUNNING)) return undefined;
  const running = JSON.parse(readFileSync(RUNNING, 'utf8')) as Running;
  try {
    process.kill(running.pid, 0);
    return running;
  } catch {
    return undefined;
  }
}

export async function resetDemo(): Promise<number> {
  const running = readRunning();
  if (running) await plantDemo(running.database, true);
  else {
    const database = new Database(DATA);
    await database.start();
    await plantDemo(database.url, true);
    await database.stop();
  }
  console.log('The demo layouts are back as they came. Your own layouts were not touched.');
  return 0;
}
