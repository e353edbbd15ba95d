import { type APIRequestContext, type APIResponse, expect, test } from '@playwright/test';
import { compileSystem } from '@/core/system';
import { replay } from '../../src/core/simulation';
import { writeDocumentText } from '../../src/core/survey';
import { learningOval } from '../../src/demo/learning-oval';

/** What the server answers to what no page of ours sends: each refusal has its status and a sentence that says what to do. */
const put = async (request: APIRequestContext): Promise<string> => {
  const answer = await request.post('/api/layouts/import', { data: writeDocumentText(learningOval()) });
  return ((await answer.json()) as { id: string }).id;
};
const refused = async (asked: Promise<APIResponse>, status: number, says: string | RegExp) => {
  const answer = await asked;
  expect(answer.status()).toBe(status);
  expect(((await answer.json()) as { problem: string }).problem).toMatch(says);
};
const recording = { document: learningOval(), seed: 3, ticks: 500, commands: [] };

test('layouts: names and scales that are none, ids that are nowhere', async ({ request }) => {
  await refused(request.post('/api/layouts', { data: { name: '  ' } }), 400, /Give the layout a name/);
  await refused(request.post('/api/layouts', { data: { name: 'x'.repeat(81) } }), 400, /80 letters/);
  await refused(request.post('/api/layouts', { data: 'not JSON' }), 400, /Give the layout a name/);
  await refused(request.post('/api/layouts', { data: [1, 2] }), 400, /Give the layout a name/);
  for (const path of ['/api/layouts/nowhere', '/api/layouts/nowhere/revisions', '/api/layouts/nowhere/runs'])
    await refused(request.get(path), 404, /no longer there/);
  await refused(request.delete('/api/layouts/nowhere'), 404, /no longer there/);
  const save = { document: learningOval(), revision: 1 };
  await refused(request.put('/api/layouts/nowhere', { data: save }), 404, /no longer there/);
  const id = await put(request);
  for (const revision of [undefined, 'one', 1.5, null])
    await refused(request.put(`/api/layouts/${id}`, { data: { ...save, revision } }), 400, /which version/);
});

test('files: each fault is named with its place, and nothing is taken', async ({ request }) => {
  const faults = async (data: string) => {
    const answer = await request.post('/api/layouts/import', { data });
    expect(answer.status()).toBe(422);
    return ((await answer.json()) as { faults: { place: string; problem: string; remedy: string }[] }).faults;
  };
  const whole = JSON.parse(writeDocumentText(learningOval()));
  expect((await faults('{'))[0]!.problem).toMatch(/JSON/);
  expect((await faults(JSON.stringify({ ...whole, version: 99 })))[0]!.problem).toMatch(/newer/i);
  const lost = await faults(JSON.stringify({ ...whole, lines: [] }));
  expect(lost.length).toBeGreaterThan(whole.joins.length);
  for (const fault of lost) {
    expect(fault.place).not.toBe('');
    expect(fault.remedy).not.toBe('');
  }
});

test('versions: kept with a name or not at all, told apart, and only those that are there', async ({ request }) => {
  const id = await put(request);
  const path = `/api/layouts/${id}/revisions`;
  await refused(request.post(path, { data: {} }), 400, /Give the version a name/);
  await refused(request.post(path, { data: { name: 7 } }), 400, /Give the version a name/);
  await refused(request.post(path, { data: { name: 'x', document: {} } }), 422, /cannot be kept/);
  await refused(request.post('/api/layouts/nowhere/revisions', { data: { name: 'x' } }), 404, /no longer there/);
  for (const number of ['0', '99', '-1', 'one', '1e3', '99999999999'])
    await refused(request.get(`${path}/${number}`), 404, /not kept/);
  const other = { ...learningOval(), name: 'Aside' };
  await refused(request.post(path, { data: { name: 'Aside', document: other } }), 400, /beside which version/);
  expect((await request.post(path, { data: { name: 'Aside', document: other, revision: 1 } })).status()).toBe(201);
  await refused(
    request.post(path, { data: { name: 'Late', document: other, revision: 1 } }),
    409,
    /changed in another window/,
  );
  const list = (await (await request.get(path)).json()) as { number: number; name: string }[];
  const aside = list.find((revision) => revision.name === 'Aside')!;
  expect((await (await request.get(`${path}/${aside.number}`)).json()).document.name).toBe('Aside');
  expect((await (await request.get(`/api/layouts/${id}`)).json()).name).toBe('Learning oval');
});

test('runs: kept whole or not at all, had again, deleted once', async ({ request }) => {
  const id = await put(request);
  const path = `/api/layouts/${id}/runs`;
  const { traceHash: hash } = replay(compileSystem(learningOval()), 3, 500, []);
  await refused(request.post(path, { data: { ...recording, hash } }), 400, /Give the run a name/);
  await refused(request.post(path, { data: { ...recording, name: 'x' } }), 400, /trace/);
  await refused(request.post(path, { data: { ...recording, name: 'x', hash: 'ABC' } }), 400, /trace/);
  await refused(request.post(path, { data: { ...recording, name: 'x', hash, ticks: 1e9 } }), 413, /one hour/);
  await refused(request.post(path, { data: { ...recording, name: 'x', hash, commands: [{}] } }), 400, /damaged/);
  await refused(request.post(path, { data: { ...recording, name: 'x', hash, document: 4 } }), 422, /cannot be run/);
  const kept = await request.post(path, { data: { ...recording, name: ' x ', hash } });
  expect(kept.status()).toBe(201);
  const run = ((await kept.json()) as { id: string }).id;
  expect(await (await request.get(`${path}/${run}`)).json()).toMatchObject({ name: 'x', seed: 3, ticks: 500, hash });
  const elsewhere = await put(request);
  await refused(request.get(`/api/layouts/${elsewhere}/runs/${run}`), 404, /no longer there/);
  await refused(request.delete(`/api/layouts/${elsewhere}/runs/${run}`), 404, /no longer there/);
  expect((await request.delete(`${path}/${run}`)).status()).toBe(200);
  await refused(request.delete(`${path}/${run}`), 404, /no longer there/);
});

test('the server runs the same course as this machine, byte for byte', async ({ request }) => {
  const id = await put(request);
  const train = learningOval().trains[0]!.id;
  const commands = [{ tick: 100, command: { kind: 'run' as const, train, on: false } }];
  for (const told of [[], commands]) {
    const answer = await request.post(`/api/layouts/${id}/replay`, { data: { ...recording, commands: told } });
    expect(await answer.json()).toEqual({
      hash: replay(compileSystem(learningOval()), 3, 500, told).traceHash,
      ticks: 500,
    });
  }
});

test('an hour is run beside the server, which answers meanwhile; too many at once are told to come again', async ({
  request,
}) => {
  const id = await put(request);
  const hour = () => request.post(`/api/layouts/${id}/replay`, { data: { ...recording, ticks: 180_000 } });
  const runs = Array.from({ length: 8 }, hour);
  const answered: string[] = [];
  const all = Promise.all(runs).finally(() => answered.push('the runs'));
  expect((await request.get('/api/health')).status()).toBe(200);
  answered.push('the server');
  const answers = await all;
  expect(answered).toEqual(['the server', 'the runs']);
  const done = answers.filter((answer) => answer.status() === 200);
  expect(done.length).toBeGreaterThanOrEqual(5);
  expect(answers.every((answer) => [200, 429].includes(answer.status()))).toBe(true);
  expect(new Set(await Promise.all(done.map(async (answer) => (await answer.json()).hash))).size).toBe(1);
});
