import { afterEach, describe, expect, test, vi } from 'vitest';
import { cm } from '@/core/measure';
import { learningOval } from '@/demo/learning-oval';
import { askServer, sendServer } from '@/ui/parts/ask-server';
import { blockKey, blockNameOf, createWorkbench } from '@/ui/workbench/store';

const open = () => createWorkbench({ id: 'x', document: learningOval(), revision: 1 });

describe('the workbench', () => {
  test('an edit changes the document, waits to be saved, and can be taken back and done again', () => {
    const store = open();
    const before = store.getState().document;
    expect(store.getState().edit({ do: 'add cut', kind: 'gap', line: 'oval', at: cm(100) })).toBe(true);
    const after = store.getState();
    expect(after.document.features.length).toBe(before.features.length + 1);
    expect(after).toMatchObject({ saving: 'waiting', problem: undefined });
    expect(after.past.map((change) => change.says)).toEqual(['Add gap at 100 cm']);
    after.undo();
    expect(store.getState().document).toEqual(before);
    expect(store.getState().future).toHaveLength(1);
    store.getState().redo();
    expect(store.getState().document).toEqual(after.document);
  });
  test('a refused edit changes nothing and says why; the next good one clears that', () => {
    const store = open();
    const before = store.getState();
    expect(before.edit({ do: 'add cut', kind: 'gap', line: 'oval', at: cm(60) })).toBe(false);
    expect(store.getState().document).toBe(before.document);
    expect(store.getState().problem).toContain('already a gap at 60 cm');
    expect(store.getState().saving).toBe('saved');
    store.getState().edit({ do: 'add cut', kind: 'mark', line: 'oval', at: cm(61) });
    expect(store.getState().problem).toBeUndefined();
  });
  test('a new edit after an undo forgets what was undone', () => {
    const store = open();
    for (const at of [100, 101, 102]) store.getState().edit({ do: 'add cut', kind: 'gap', line: 'oval', at: cm(at) });
    store.getState().undo();
    store.getState().undo();
    store.getState().edit({ do: 'rename layout', name: 'Mine' });
    expect(store.getState().future).toEqual([]);
    expect(store.getState().past.map((change) => change.says)).toEqual(['Add gap at 100 cm', 'Name it Mine']);
  });
  test('undo and redo with nothing left do nothing', () => {
    const store = open();
    const before = store.getState();
    before.undo();
    before.redo();
    expect(store.getState()).toEqual(before);
  });
  test('a hundred edits are undone to the very start', () => {
    const store = open();
    const before = store.getState().document;
    for (let i = 0; i < 100; i++) store.getState().edit({ do: 'move', id: 'g1', at: cm(10 + (i % 40)) });
    for (let i = 0; i < 100; i++) store.getState().undo();
    expect(store.getState().document).toEqual(before);
    expect(store.getState().future).toHaveLength(100);
  });
  test('blocks are selected by name, other things by id', () => {
    const store = open();
    store.getState().select(blockKey('B1'));
    expect(blockNameOf(store.getState().selected)).toBe('B1');
    store.getState().select('g1');
    expect(blockNameOf(store.getState().selected)).toBeUndefined();
    expect(blockNameOf(undefined)).toBeUndefined();
  });
});

describe('asking the server', () => {
  afterEach(() => vi.unstubAllGlobals());
  const answering = (status: number, body: string) =>
    vi.stubGlobal('fetch', async () => new Response(body, { status }));

  test('an answer comes back as its value', async () => {
    answering(200, '{"revision":3}');
    expect(await askServer('/x')).toEqual({ ok: true, value: { revision: 3 } });
  });
  test('a refusal comes back with its sentence and its faults', async () => {
    answering(422, '{"problem":"No.","faults":[{"place":"a","problem":"b","remedy":"c"}]}');
    expect(await sendServer('PUT', '/x', {})).toMatchObject({
      ok: false,
      status: 422,
      problem: 'No.',
      faults: [{ place: 'a' }],
    });
  });
  test('an answer that is no JSON still makes a sentence', async () => {
    answering(502, '<html>');
    expect(await askServer('/x')).toMatchObject({
      ok: false,
      status: 502,
      problem: 'The server answered 502.',
      faults: [],
    });
  });
  test('a server that is away is said to be away', async () => {
    vi.stubGlobal('fetch', async () => {
      throw new TypeError('failed');
    });
    expect(await askServer('/x')).toMatchObject({
      ok: false,
      status: 0,
      problem: expect.stringContaining('does not answer'),
    });
  });
});
