import { describe, expect, test } from 'vitest';
import { cm } from '@/core/measure';
import { applyEdit, deletionOf, type Edit, type LayoutDocument, LIST_NAMES, readDocument } from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { guarded } from '@/server/answer';
import { findScore } from '@/ui/shell/find-score';
import { randomPlan } from './random-plan';

const done = (document: LayoutDocument, edit: Edit): LayoutDocument => {
  const result = applyEdit(document, edit);
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
};
const refusal = (document: LayoutDocument, edit: Edit): string => {
  const result = applyEdit(document, edit);
  return result.ok ? 'done' : result.problem;
};
const sound = (document: LayoutDocument) => {
  const reading = readDocument(document);
  expect(reading.ok ? [] : reading.faults).toEqual([]);
};

describe('deleting takes along what cannot be without it, and nothing else', () => {
  test('a train’s vehicles go with it, unless another train has them', () => {
    const oval = learningOval();
    const [first, was] = oval.trains;
    const shared = first!.vehicles[0]!;
    const second = { ...was!, vehicles: [shared, ...was!.vehicles.slice(1)] };
    const d = {
      ...oval,
      trains: [first!, second],
      vehicles: oval.vehicles.filter(({ id }) => id !== was!.vehicles[0]),
    };
    const without = done(d, { do: 'delete', id: second.id });
    expect(without.vehicles.map(({ id }) => id).sort()).toEqual([...new Set(first!.vehicles)].sort());
    expect(without.vehicles.some(({ id }) => id === shared)).toBe(true);
    expect(done(without, { do: 'delete', id: first!.id }).vehicles).toEqual([]);
  });
  test('a line goes with everything on it', () => {
    const two = done(smallValley(), { do: 'add line', name: 'Shelf', length: cm(200), circuit: true });
    const line = two.lines.find(({ name }) => name === 'Shelf')!.id;
    let d = done(two, { do: 'add cut', kind: 'gap', line, at: cm(50) });
    d = done(d, { do: 'add sensor', line, at: cm(20) });
    d = done(d, { do: 'name block', anchor: { line, at: cm(20) }, name: 'Shelf 1' });
    d = done(d, { do: 'change train', id: d.trains[0]!.id, change: { start: { line, at: cm(60), facing: 'up' } } });
    const gone = done(d, { do: 'delete', id: line });
    sound(gone);
    expect(gone.lines).toEqual(smallValley().lines);
    expect(gone.features).toEqual(smallValley().features);
    expect(gone.joins).toEqual(smallValley().joins);
    expect(gone.trains[0]!.start).toBeUndefined();
  });
  test('its points go with it, on it and into it, and what they led to stays', () => {
    const before = smallValley();
    for (const { id, name } of before.lines) {
      const after = done(before, { do: 'delete', id });
      sound(after);
      expect(after.lines, name).toEqual(before.lines.filter((line) => line.id !== id));
      expect(after.turnouts, name).toEqual(before.turnouts.filter((t) => t.line !== id && t.legs[0]!.line !== id));
      expect(after.features, name).toEqual(before.features.filter(({ line }) => line !== id));
      const goes = deletionOf(before, id).goes.join();
      for (const t of before.turnouts)
        expect(goes.includes(`Turnout ${t.name},`) || goes.endsWith(t.name), `${name} ${t.name}`).toBe(
          !after.turnouts.includes(t),
        );
    }
  });
  test('a line of any plan can go, and what is left can be read', () => {
    for (let seed = 1; seed <= 150; seed++) {
      const plan = randomPlan(seed);
      for (const { id } of plan.lines) sound(done(plan, { do: 'delete', id }));
    }
  });
  test('the last line leaves an empty layout that can be read', () => {
    const d = { ...learningOval(), trains: [], vehicles: [] };
    const empty = done(d, { do: 'delete', id: d.lines[0]!.id });
    sound(empty);
    expect([empty.lines, empty.features, empty.blocks, empty.sensors, empty.joins]).toEqual([[], [], [], [], []]);
  });
});

describe('a name that is too long is refused, never cut', () => {
  const long = 'The long way round by the old quarry and the mill pond, and back again by the upper bridge';
  test.each<[string, (d: LayoutDocument) => Edit, number]>([
    ['a layout', () => ({ do: 'rename layout', name: long }), 80],
    ['a direction', () => ({ do: 'name directions', up: long, down: 'Back' }), 20],
    ['a block', (d) => ({ do: 'name block', anchor: { line: d.lines[0]!.id, at: cm(20) }, name: long }), 20],
    ['a line', () => ({ do: 'add line', name: long, length: cm(100), circuit: false }), 60],
    ['a signal', (d) => ({ do: 'rename', id: d.features.find((f) => f.kind === 'signal')!.id, name: long }), 20],
  ])('%s', (_, edit, most) => {
    const d = learningOval();
    expect(refusal(d, edit(d))).toBe(
      `“The long way…” has ${long.length} characters; at most ${most} are possible here.`,
    );
  });
});

describe('finding', () => {
  const order = (names: string[], typed: string) =>
    names
      .map((name) => ({ name, score: findScore(name, typed) }))
      .filter(({ score }) => score > 0)
      .sort((a, b) => b.score - a.score)
      .map(({ name }) => name);
  test('whole words before beginnings, beginnings before insides, scattered letters never', () => {
    const names = ['Train Night mail', 'Block Marrow', 'Signal Tamarr', 'Block marr'];
    expect(order(names, 'marr')).toEqual(['Block marr', 'Block Marrow', 'Signal Tamarr']);
    expect(order(names, 'night')).toEqual(['Train Night mail']);
    expect(order(names, 'mail train')).toEqual(['Train Night mail']);
    expect(order(names, 'ntm')).toEqual([]);
    expect(order(['Block M1', 'Block M10', 'Signal M1'], 'm1')[2]).toBe('Block M10');
  });
});

describe('what fails on the server is called what it is', () => {
  const answerTo = async (error: unknown) => {
    const answer = await guarded(() => Promise.reject(error));
    return [answer.status, ((await answer.json()) as { problem: string }).problem] as const;
  };
  test('the database, and a mistake of ours', async () => {
    const quiet = console.error;
    console.error = () => undefined;
    try {
      const away = Object.assign(new Error('connect ECONNREFUSED'), { code: 'ECONNREFUSED' });
      const refused = Object.assign(new Error('Duplicate entry'), { code: 'ER_DUP_ENTRY', sqlState: '23000' });
      expect(await answerTo(away)).toEqual([503, 'The database does not answer.']);
      expect((await answerTo(refused))[0]).toBe(503);
      const [status, problem] = await answerTo(new TypeError('x is undefined'));
      expect(status).toBe(500);
      expect(problem).toContain('Roblik has made a mistake');
    } finally {
      console.error = quiet;
    }
  });
});

describe('what would go with a line', () => {
  test.each([smallValley(), learningOval()])('is what goes, or it says what keeps it: $name', (document) => {
    let deleted = 0;
    for (const { id, name } of document.lines) {
      const { goes, kept } = deletionOf(document, id);
      if (kept !== undefined) {
        expect(refusal(document, { do: 'delete', id })).toBe(kept);
        continue;
      }
      const after = done(document, { do: 'delete', id });
      const count = (d: LayoutDocument) =>
        LIST_NAMES.filter((list) => list !== 'joins').reduce((sum, list) => sum + d[list].length, 0);
      expect(goes[0]).toBe(`Line ${name}`);
      expect(goes).toHaveLength(count(document) - count(after));
      deleted += 1;
    }
    if (document.turnouts.length === 0) expect(deleted).toBe(document.lines.length);
  });
});
