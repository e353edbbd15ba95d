import { describe, expect, test } from 'vitest';
import { costOf, numberSignals, numberTracks, schemeFigures } from '@/core/design';
import { cm } from '@/core/measure';
import { applyEdit, type Edit, type LayoutDocument, readDocument, signalsOf, USUAL_PRICES } from '@/core/survey';
import { straighten } from '@/core/track';
import { learningOval } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { smallValley } from '@/demo/small-valley';

const edited = (d: LayoutDocument, edit: Edit): LayoutDocument => {
  const done = applyEdit(d, edit);
  if (!done.ok) throw new Error(done.problem);
  expect(readDocument(JSON.parse(JSON.stringify(done.change.document))).ok).toBe(true);
  return done.change.document;
};
const problem = (d: LayoutDocument, edit: Edit) => {
  const done = applyEdit(d, edit);
  return done.ok ? undefined : done.problem;
};
const area = (name: string, from: number, to: number, line = 'oval') =>
  ({ name, line, from: cm(from), to: cm(to), purpose: '' }) as Omit<LayoutDocument['areas'][number], 'id'>;

describe('areas and movements', () => {
  test('are added, decided, and gone without trace when they are deleted', () => {
    const one = edited(learningOval(), { do: 'add area', area: area('Yard', 10, 100) });
    const { id } = one.areas[0]!;
    const decided = edited(one, {
      do: 'change area',
      id,
      change: { admits: 'operator', whenEmpty: 'stop', leavesOut: 'nothing' },
    });
    expect(decided.areas[0]).toMatchObject({ name: 'Yard', admits: 'operator', whenEmpty: 'stop' });
    expect(edited(decided, { do: 'delete', id }).areas).toEqual([]);
    expect(problem(one, { do: 'change area', id, change: { name: '  ' } })).toBe('An area needs a name.');
    expect(problem(one, { do: 'change area', id, change: { to: cm(5) } })).toMatch(/ends before it begins/);
    expect(problem(learningOval(), { do: 'add area', area: area('Far', 10, 9000) })).toMatch(/480/);
  });
  test('a movement goes with its train', () => {
    const d = learningOval();
    const moving = edited(d, {
      do: 'add movement',
      movement: { train: 'tr1', from: 'here', to: 'there', facing: 'up', perHour: 3, turnsBack: 'no', notes: '' },
    });
    expect(edited(moving, { do: 'delete', id: 'tr1' }).movements).toEqual([]);
    expect(problem(moving, { do: 'change movement', id: moving.movements[0]!.id, change: { to: ' ' } })).toBe(
      'Say from where and to where.',
    );
  });
});

describe('what a scheme takes', () => {
  /** By hand: sensors at 0, 120, 240, 360 with their module at the third: 480 cm; heads at 60 … 420 are 480 cm from it, with four wires each; two trains of two coaches, each with two resistor axles. */
  test('the oval: heads, detectors, wire and cost', () => {
    const figures = schemeFigures(learningOval());
    expect(figures).toMatchObject({
      heads: 4,
      detectors: 4,
      spots: 0,
      modules: 1,
      motors: 0,
      contacts: 0,
      axles: 8,
      wireM: 24,
      unwatched: 0,
      aspects: 3,
    });
    expect(costOf(figures, USUAL_PRICES)).toEqual({
      cost: 4 * 12 + 4 * 8 + 40 + 24 * 0.4 + 8 * 0.5,
      months: (4 * 12 + 4 * 8 + 40 + 24 * 0.4 + 8 * 0.5) / 60,
    });
    expect(costOf(figures, { ...USUAL_PRICES, month: 0 }).months).toBe(Number.POSITIVE_INFINITY);
  });
  test('what stays open: track that nothing watches, areas without signals, areas that nobody has decided', () => {
    const d = learningOval();
    const bare = {
      ...d,
      sensors: d.sensors.slice(1),
      areas: [
        { ...area('Yard', 0, 60), id: 'a1', admits: 'nothing' as const, leavesOut: 'too small' },
        { ...area('Curve', 60, 90), id: 'a2', admits: 'operator' as const },
        { ...area('Rest', 90, 120), id: 'a3' },
      ],
    };
    expect(schemeFigures(bare)).toMatchObject({
      unwatched: cm(120).tenthUm,
      leftOut: [{ name: 'Yard', why: 'too small' }],
      undecided: ['Rest'],
      ways: 2,
      calls: 1,
    });
  });
  /** Every turnout of the valley lies on some way from a signal, so that each is asked; by hand seventeen motors, the slip having two. */
  test('the valley: every motor is asked for a contact', () => {
    const d = ondrelValley();
    const figures = schemeFigures(d);
    expect(figures.heads).toBe(signalsOf(d).length);
    expect([figures.motors, figures.contacts]).toEqual([17, 17]);
    expect(schemeFigures({ ...d, features: d.features.filter(({ kind }) => kind !== 'signal') })).toMatchObject({
      heads: 0,
      contacts: 0,
    });
  });
});

describe('numbers of signals', () => {
  const numbers = (d: LayoutDocument, more = {}) =>
    numberSignals(d, straighten(d), { firstTrack: 1, from: 'back', firstPlace: 1, ...more });
  test('by place and track, counted from the back or from the front, from nought or one', () => {
    const d = smallValley();
    const of = (name: string, more = {}) => numbers(d, more).find(({ before }) => before === name)?.after;
    /** Undercroft 1 is drawn behind the main line, Undercroft 3 before it; Marrowick is the second area, and ME before it is read first. */
    expect([of('UC1E'), of('UC2E'), of('UC3E'), of('M1E')]).toEqual(['1.1→', '1.2→', '1.3→', '2.2b→']);
    expect(of('UC1W')).toBe('1.1←');
    expect(of('UC1E', { firstTrack: 0, firstPlace: 4 })).toBe('4.0→');
    expect(of('UC1E', { from: 'front' })).not.toBe(of('UC1E'));
    const front = numbers(d, { from: 'front' });
    expect(new Set(front.map(({ after: name }) => name)).size).toBe(front.length);
  });
  test('are given in one step that is refused where a name is taken, and say nothing without areas', () => {
    const d = smallValley();
    const names = Object.fromEntries(numbers(d).map(({ id, after: name }) => [id, name]));
    const done = edited(d, { do: 'number signals', names });
    expect(numbers(done).every(({ before, after: name }) => before === name)).toBe(true);
    const taken = { ...d, sensors: d.sensors.map((one, i) => (i === 0 ? { ...one, name: '1.1→' } : one)) };
    expect(problem(taken, { do: 'number signals', names })).toBe('The name 1.1→ is taken. Begin with another number.');
    expect(numbers({ ...d, areas: [] })).toEqual([]);
  });
  test('tracks, from the back or from the front, from nought or one, in one step that is taken back', () => {
    const d = smallValley();
    const tracks = (document: LayoutDocument, more = {}) =>
      numberTracks(document, straighten(document), { firstTrack: 1, from: 'back', ...more });
    const of = (name: string, more = {}) => tracks(d, more).find(({ before }) => before === name)?.after;
    /** The signals of a track have its number: UC1E stands on the track of block UC1. */
    const line = signalsOf(d).find(({ name }) => name === 'UC1E')!.line;
    expect(of(d.lines.find(({ id }) => id === line)!.name)).toMatch(/^Track 1/);
    expect(of(d.lines.find(({ id }) => id === line)!.name, { firstTrack: 0 })).toMatch(/^Track 0/);
    const back = tracks(d).map(({ after: name }) => name);
    expect(new Set(back).size).toBe(d.lines.length);
    const names = Object.fromEntries(tracks(d).map(({ id, after: name }) => [id, name]));
    const done = edited(d, { do: 'number tracks', names });
    expect(tracks(done).every(({ before, after: name }) => before === name)).toBe(true);
    expect(done.lines.map(({ name }) => name)).not.toEqual(d.lines.map(({ name }) => name));
    const [first, ...rest] = Object.keys(names);
    const only = Object.fromEntries(rest.map((id) => [id, names[id]!]));
    const clash = { ...d, lines: d.lines.map((one) => (one.id === first ? { ...one, name: names[rest[0]!]! } : one)) };
    expect(problem(clash, { do: 'number tracks', names: only })).toMatch(/is taken. Begin with another number/);
    expect(problem(d, { do: 'number tracks', names: { none: 'Track 1' } })).toBe('Not all of them are there any more.');
  });
});
