import { afterEach, describe, expect, test, vi } from 'vitest';
import { isBlockId } from '@/core/detection';
import { cm } from '@/core/measure';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { askServer, sendServer } from '@/ui/parts/ask-server';
import { STAGES } from '@/ui/stages';
import { createWorkbench } from '@/ui/state/store';
import { takeUp } from '@/ui/state/take-up';

const open = () => {
  const store = createWorkbench({ id: 'x', document: learningOval(), revision: 1, stage: STAGES[0] });
  store.getState().set({ saving: 'saved' });
  return store;
};

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
    store.getState().set({ sure: ['g1'] });
    const before = store.getState().document;
    for (let i = 0; i < 100; i++) store.getState().edit({ do: 'move', id: 'g1', at: cm(10 + (i % 40)) });
    for (let i = 0; i < 100; i++) store.getState().undo();
    expect(store.getState().document).toEqual(before);
    expect(store.getState().future).toHaveLength(100);
  });
  test('what is fixed moves only after somebody said so, and is asked for once while it is selected', () => {
    const store = open();
    const at = () => store.getState().document.features.find(({ id }) => id === 'g1')!.at.typed;
    const move = (to: number) => store.getState().edit({ do: 'move', id: 'g1', at: cm(to) });
    store.getState().select('g1');
    expect(move(70)).toBe(false);
    expect(store.getState()).toMatchObject({ problem: undefined, asking: { things: [{ id: 'g1' }] } });
    store.getState().answer(false);
    expect([at(), store.getState().asking, store.getState().left]).toEqual(['60 cm', undefined, 1]);
    move(70);
    store.getState().answer(true);
    expect([at(), store.getState().past.length]).toEqual(['70 cm', 1]);
    expect(move(71)).toBe(true);
    store.getState().select('g2');
    expect(move(72)).toBe(false);
    store.getState().answer(true);
    store.getState().answer(true);
    expect(at()).toBe('72 cm');
    store.getState().undo();
    expect(at()).toBe('71 cm');
  });
  test('several are chosen together, and one after the other no longer', () => {
    const store = open();
    const { select, choose } = store.getState();
    const chosen = () => [store.getState().selected, ...store.getState().also];
    choose('g1');
    choose('g2');
    choose('g3');
    expect(chosen()).toEqual(['g1', 'g2', 'g3']);
    choose('g1');
    expect(chosen()).toEqual(['g2', 'g3']);
    select('g4');
    expect(chosen()).toEqual(['g4']);
    choose('g4');
    expect(chosen()).toEqual([undefined]);
  });
  test('nothing can be edited before it is known what this browser kept', () => {
    const store = createWorkbench({ id: 'x', document: learningOval(), revision: 1, stage: STAGES[0] });
    expect(store.getState().edit({ do: 'rename layout', name: 'Too early' })).toBe(false);
    expect(store.getState().document.name).toBe(learningOval().name);
  });
  test('going back to another version is one step that can be undone', () => {
    const store = open();
    const before = store.getState().document;
    store.getState().replace(smallValley(), 'Go back');
    expect(store.getState().document.name).toBe('Ondrel Valley');
    store.getState().undo();
    expect(store.getState().document).toEqual(before);
    store.getState().redo();
    expect(store.getState().document).toEqual(smallValley());
  });
  test('blocks are selected by name, other things by id', () => {
    const store = open();
    store.getState().select('block b-B1');
    expect(isBlockId(store.getState().selected)).toBe(true);
    store.getState().select('g1');
    expect(isBlockId(store.getState().selected)).toBe(false);
    expect(isBlockId(undefined)).toBe(false);
  });
});

describe('taking up work again', () => {
  const document = learningOval();
  const renamed = { ...document, name: 'Edited here' };
  const step = { patches: [], inverse: [], says: 'Name it' };
  const kept = { document: renamed, base: document, revision: 4, unsaved: true, past: [step], future: [] };
  const stored = (revision: number, token: string) => ({ document: { ...document, name: 'There' }, revision, token });

  test('edits made from the version the server has are gone on with and saved', () =>
    expect(takeUp(kept, stored(4, 'other'), 'me')).toMatchObject({
      document: renamed,
      past: [step],
      revision: 4,
      saving: 'waiting',
    }));
  test('a later version that this window saved itself is no conflict', () =>
    expect(takeUp(kept, stored(5, 'me'), 'me')).toMatchObject({ document: renamed, revision: 5, saving: 'waiting' }));
  test('a later version of another window is one', () =>
    expect(takeUp(kept, stored(5, 'other'), 'me')).toMatchObject({
      document: renamed,
      revision: 4,
      saving: 'conflict',
      theirs: { revision: 5 },
    }));
  test('without unsaved edits the server counts, and an older way back is dropped', () => {
    const taken = takeUp({ ...kept, unsaved: false }, stored(5, 'other'), 'me');
    expect(taken).toMatchObject({ document: { name: 'There' }, revision: 5, saving: 'saved' });
    expect([taken.past, taken.future]).toEqual([[], []]);
    expect(takeUp({ ...kept, unsaved: false }, stored(4, 'other'), 'me').past).toEqual([step]);
  });
  test('with the database away the kept version opens; with nothing kept it is said to be missing', () => {
    expect(takeUp(kept, undefined, 'me')).toMatchObject({ document: renamed, base: document, saving: 'failed' });
    expect(takeUp({ ...kept, unsaved: false }, undefined, 'me').base).toBe(renamed);
    expect(takeUp(undefined, undefined, 'me')).toEqual({ saving: 'failed', missing: true });
    expect(takeUp(undefined, stored(2, 'x'), 'me')).toMatchObject({ saving: 'saved', revision: 2 });
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
