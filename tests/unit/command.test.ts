import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { learningOval } from '@/demo/learning-oval';
import {
  createLayout,
  keepAside,
  keepDraft,
  listLayouts,
  listRevisions,
  loadLayout,
  loadRevision,
  saveLayout,
  setDeleted,
} from '@/server/layouts';
import { DATABASE_VARIABLE, pool } from '@/server/pool';
import { readRecording } from '@/server/read-recording';
import { deleteRun, keepRun, listRuns, loadRun } from '@/server/runs';
import { Database } from '../../tools/database';
import { freePort } from '../../tools/ports';

const MIGRATIONS = ['001-layouts.sql', '002-drafts.sql', '003-runs.sql', '004-notes.sql', '005-runs-in-order.sql'];
const WINDOW = 'window-a';
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
    expect(applied).toEqual(MIGRATIONS);
    const again = new Database(join(folder, 'db2'));
    expect(await again.start()).toEqual(MIGRATIONS);
    await again.stop();
    expect(await again.start()).toEqual([]);
    await again.stop();
  }, 60_000);

  test('a save goes over the revision it was made from and no other; nothing else', async () => {
    const id = await createLayout(learningOval(), 'Made');
    expect(await saveLayout(id, 1, { ...learningOval(), name: 'Second' }, WINDOW)).toEqual({
      ok: true,
      revision: 2,
    });
    const stale = await saveLayout(id, 1, { ...learningOval(), name: 'Lost' }, WINDOW);
    expect(stale).toMatchObject({ ok: false, reason: 'conflict', current: { name: 'Second', revision: 2 } });
    expect(await loadLayout(id)).toMatchObject({ name: 'Second', revision: 2, document: { name: 'Second' } });
    expect(await listRevisions(id)).toMatchObject([{ number: 1, note: 'Made', name: '' }]);
  });

  test('what the window called its save comes back with a conflict, so that it knows its own', async () => {
    const id = await createLayout(learningOval(), 'Made');
    await saveLayout(id, 1, learningOval(), 'window-b');
    expect(await saveLayout(id, 1, learningOval(), 'window-b')).toMatchObject({
      reason: 'conflict',
      current: { token: 'window-b', revision: 2 },
    });
  });

  test('editing on after a pause keeps the version before it, with all that was done to it', async () => {
    const id = await createLayout(learningOval(), 'Made');
    await saveLayout(id, 1, { ...learningOval(), name: 'A' }, WINDOW);
    await saveLayout(id, 2, { ...learningOval(), name: 'B' }, WINDOW);
    await pool().execute('UPDATE layouts SET updated_at = updated_at - INTERVAL 61 SECOND WHERE id = ?', [id]);
    await saveLayout(id, 3, { ...learningOval(), name: 'C' }, WINDOW);
    expect(await listRevisions(id)).toMatchObject([
      { number: 3, note: 'Name of the layout: Learning oval became B' },
      { number: 1 },
    ]);
    expect((await loadRevision(id, 3))!.name).toBe('B');
    expect((await loadLayout(id))!.name).toBe('C');
    expect(await keepDraft(id, 'Before the show')).toBe(4);
    expect(await keepDraft(id, 'Renamed')).toBe(4);
    expect((await listRevisions(id))[0]).toMatchObject({
      number: 4,
      note: 'Name of the layout: B became C',
      name: 'Renamed',
    });
    expect(await loadRevision(id, 2)).toBeUndefined();
  });

  test('what was done and undone is not told of a version', async () => {
    const id = await createLayout(learningOval(), 'Made');
    await saveLayout(id, 1, { ...learningOval(), trains: [], notes: 'Trains sold' }, WINDOW);
    await saveLayout(id, 2, { ...learningOval(), notes: 'Trains kept' }, WINDOW);
    await keepDraft(id, 'Second thoughts');
    expect((await listRevisions(id))[0]!.note).toMatch(/^Notes/);
    expect((await listRevisions(id))[0]!.note).not.toContain('rain ');
    await saveLayout(id, 3, { ...learningOval(), notes: 'Trains kept' }, WINDOW);
    await keepDraft(id, 'Once more');
    expect((await listRevisions(id))[0]).toMatchObject({ number: 4, note: 'As before' });
  });

  test('the side of a conflict that was not chosen is kept, and saving goes on after it', async () => {
    const id = await createLayout(learningOval(), 'Made');
    const before = (await loadLayout(id))!.revision;
    const aside = await keepAside(id, before, { ...learningOval(), name: 'Not chosen' }, 'Mine');
    const base = aside.ok ? aside.revision : undefined;
    expect(base).toBe(before + 2);
    /** Beside a version that is not the present one any more nothing is kept: who chose did not know of it. */
    expect(await keepAside(id, before, learningOval(), 'Late')).toMatchObject({ ok: false, reason: 'conflict' });
    expect(base).toBe(3);
    expect((await loadRevision(id, 2))!.name).toBe('Not chosen');
    expect((await loadLayout(id))!.name).toBe(learningOval().name);
    expect(await saveLayout(id, base!, learningOval(), WINDOW)).toEqual({ ok: true, revision: 4 });
    expect(await keepAside('nothinghere1', 1, learningOval(), 'x')).toEqual({ ok: false, reason: 'gone' });
    expect(await keepDraft('nothinghere1', 'x')).toBeUndefined();
  });

  test('of many saves from one revision at once exactly one goes through', async () => {
    const id = await createLayout(learningOval(), 'Made');
    const results = await Promise.all(
      Array.from({ length: 12 }, (_, i) => saveLayout(id, 1, { ...learningOval(), name: `Writer ${i}` }, WINDOW)),
    );
    expect(results.filter((r) => r.ok)).toHaveLength(1);
    expect((await loadLayout(id))!.revision).toBe(2);
  });

  test('a run is kept with its layout as it was, listed newest first, and deleted once', async () => {
    const id = await createLayout(learningOval(), 'Made');
    const commands = [{ tick: 5, command: { kind: 'run' as const, train: 'tr1', on: false } }];
    const kept = { name: 'Evening', seed: 7, ticks: 900, commands, document: learningOval(), hash: '0123456789abcdef' };
    const first = await keepRun(id, kept);
    /** So many that some are kept within one millisecond. */
    const later = Array.from({ length: 30 }, (_, n) => `Later ${n}`);
    for (const name of later) await keepRun(id, { ...kept, name });
    expect((await listRuns(id)).map((run) => run.name)).toEqual([...later.reverse(), 'Evening']);
    expect(await loadRun(id, first)).toEqual(kept);
    expect(await loadRun('nothinghere1', first)).toBeUndefined();
    expect([await deleteRun(id, first), await deleteRun(id, first)]).toEqual([true, false]);
    await expect(keepRun('nothinghere1', kept)).rejects.toThrow();
  });

  test('a recording is refused in words when it cannot be one', async () => {
    const whole = { document: learningOval(), seed: 1, ticks: 100, commands: [] };
    expect(readRecording(whole)).toEqual(whole);
    const says = async (fields: Record<string, unknown> | undefined) => {
      const answer = readRecording(fields);
      return answer instanceof Response ? ((await answer.json()) as { problem: string }).problem : 'taken';
    };
    expect(await says(undefined)).toContain('cannot be run');
    expect(await says({ ...whole, seed: -1 })).toContain('run number');
    expect(await says({ ...whole, ticks: 1.5 })).toContain('ticks');
    expect(await says({ ...whole, ticks: 1e9 })).toContain('one hour');
    for (const command of [
      { kind: 'fly' },
      { kind: 'draw up', train: 'a', mm: -1 },
      { kind: 'send', train: 'a' },
      null,
    ])
      expect(await says({ ...whole, commands: [{ tick: 1, command }] })).toContain('damaged');
    expect(await says({ ...whole, commands: [{ tick: 1, command: { kind: 'send', train: 'a', block: 'B1' } }] })).toBe(
      'taken',
    );
  });

  test('a deleted layout is gone from the list and comes back by undo; twice is refused', async () => {
    const id = await createLayout({ ...learningOval(), name: 'Going' }, 'Made');
    const listed = async () => (await listLayouts()).some((l) => l.id === id);
    expect(await listed()).toBe(true);
    expect(await setDeleted(id, true)).toBe(true);
    expect(await setDeleted(id, true)).toBe(false);
    expect(await listed()).toBe(false);
    expect(await loadLayout(id)).toBeUndefined();
    expect(await saveLayout(id, 1, learningOval(), WINDOW)).toEqual({ ok: false, reason: 'gone' });
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
