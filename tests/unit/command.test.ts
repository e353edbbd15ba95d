import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { createConnection } from 'mysql2/promise';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { learningOval } from '@/demo/learning-oval';
import { createLayout, listLayouts, loadLayout, saveLayout, setDeleted } from '@/server/layouts';
import { DATABASE_VARIABLE, pool } from '@/server/pool';
import { Database } from '../../tools/database';
import { freePort } from '../../tools/ports';

const ROBLIK = fileURLToPath(new URL('../../roblik', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'roblik-command-'));
const call = (...args: string[]) =>
  spawnSync(ROBLIK, args, { encoding: 'utf8', env: { ...process.env, ROBLIK_DATA: join(folder, 'cli') } });

afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('the command', () => {
  test('--help lists every command; none at all does the same', () => {
    const help = execFileSync(ROBLIK, ['--help'], { encoding: 'utf8' });
    for (const word of ['start', 'stop', 'dev', 'test', 'bench', 'reset-demo', '--port', '--host'])
      expect(help).toContain(word);
    expect(execFileSync(ROBLIK, { encoding: 'utf8' })).toBe(help);
  });
  test('an unknown command and a bad port are refused in words', () => {
    expect(call('fly')).toMatchObject({ status: 2, stderr: expect.stringContaining('There is no command “fly”') });
    expect(call('start', '--port', 'abc')).toMatchObject({
      status: 2,
      stderr: expect.stringContaining('“abc” is no port'),
    });
    expect(call('start', '--port', '70000').status).toBe(2);
  });
  test('stop says when nothing runs', () =>
    expect(call('stop')).toMatchObject({ status: 0, stdout: expect.stringContaining('not running') }));
  test('reset-demo puts the two layouts back, also when nothing runs', () => {
    expect(call('reset-demo')).toMatchObject({ status: 0, stdout: expect.stringContaining('back as they came') });
  });
  test('a taken port is passed over', async () => {
    const port = await freePort(14_700);
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
    expect(await freePort(port)).toBeGreaterThan(port);
    server.close();
  });
});

describe('layouts in MariaDB', () => {
  const database = new Database(join(folder, 'db'));
  let applied: string[] = [];
  beforeAll(async () => {
    applied = await database.start();
    process.env[DATABASE_VARIABLE] = database.url;
  }, 60_000);
  afterAll(async () => {
    await pool().end();
    await database.stop();
  }, 60_000);

  test('the tables are made once', async () => {
    expect(applied).toEqual(['001-layouts.sql']);
    const again = new Database(join(folder, 'db2'));
    expect(await again.start()).toEqual(['001-layouts.sql']);
    await again.stop();
    expect(await again.start()).toEqual([]);
    await again.stop();
  }, 60_000);

  test('a save goes over the revision it was made from and no other; each is kept', async () => {
    const id = await createLayout(learningOval(), 'Made');
    expect(await saveLayout(id, 1, { ...learningOval(), name: 'Second' }, 'renamed')).toEqual({
      ok: true,
      revision: 2,
    });
    const stale = await saveLayout(id, 1, { ...learningOval(), name: 'Lost' }, 'late');
    expect(stale).toMatchObject({ ok: false, reason: 'conflict', current: { name: 'Second', revision: 2 } });
    expect(await loadLayout(id)).toMatchObject({ name: 'Second', revision: 2, document: { name: 'Second' } });
    const connection = await createConnection(database.url);
    const [rows] = await connection.execute(
      'SELECT number, parent, note, LENGTH(content_hash) AS hash FROM revisions WHERE layout = ? ORDER BY number',
      [id],
    );
    expect(rows).toEqual([
      { number: 1, parent: null, note: 'Made', hash: 64 },
      { number: 2, parent: 1, note: 'renamed', hash: 64 },
    ]);
    await connection.end();
  });

  test('of many saves from one revision at once exactly one goes through', async () => {
    const id = await createLayout(learningOval(), 'Made');
    const results = await Promise.all(
      Array.from({ length: 12 }, (_, i) => saveLayout(id, 1, { ...learningOval(), name: `Writer ${i}` }, '')),
    );
    expect(results.filter((r) => r.ok)).toHaveLength(1);
    expect((await loadLayout(id))!.revision).toBe(2);
  });

  test('a deleted layout is gone from the list and comes back by undo; twice is refused', async () => {
    const id = await createLayout({ ...learningOval(), name: 'Going' }, 'Made');
    const listed = async () => (await listLayouts()).some((l) => l.id === id);
    expect(await listed()).toBe(true);
    expect(await setDeleted(id, true)).toBe(true);
    expect(await setDeleted(id, true)).toBe(false);
    expect(await listed()).toBe(false);
    expect(await loadLayout(id)).toBeUndefined();
    expect(await saveLayout(id, 1, learningOval(), '')).toEqual({ ok: false, reason: 'gone' });
    expect(await setDeleted(id, false)).toBe(true);
    expect(await listed()).toBe(true);
    expect(await setDeleted('nothinghere1', false)).toBe(false);
  });

  test('text that looks like SQL is only text', async () => {
    const name = `'; DROP TABLE layouts; -- "\\`;
    const id = await createLayout({ ...learningOval(), name }, name);
    expect((await loadLayout(id))!.name).toBe(name);
    expect((await listLayouts()).length).toBeGreaterThan(0);
  });
});
