import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { CROSSING_KIND_IDS, CROSSINGS, legsOf, SENSOR_KIND_IDS, TURNOUT_KIND_IDS, TURNOUTS } from '@/core/kinds';
import { cm } from '@/core/measure';
import { Rehearsal } from '@/core/simulation';
import {
  applyEdit,
  type Feature,
  type LayoutDocument,
  LIST_NAMES,
  newDocument,
  readDocument,
  referenceFaults,
  type Thing,
  thingsOf,
} from '@/core/survey';
import { compileSystem } from '@/core/system';
import { compileTrack, onwardFrom } from '@/core/track';
import { freshIn, readPhrase, readSurvey, SAID, type Walk, withAdditions, writeSurvey } from '@/core/walk';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { randomLine } from './random-line';

/** The same settings and nothing on them. */
const bare = (d: LayoutDocument): LayoutDocument => ({
  ...newDocument(d.name, d.scale, d.shownUnit),
  directions: d.directions,
});
const walkOf = (document: LayoutDocument): Walk => ({ document, line: document.referenceLine });
const say = (document: LayoutDocument, text: string, last?: Walk['last']) =>
  readPhrase(text, { ...walkOf(document), last }, freshIn(document));

/** One thing after the other, each where the one before has left off. */
function walkAlong(document: LayoutDocument, ...phrases: string[]): LayoutDocument {
  let walk: Walk = walkOf(document);
  for (const phrase of phrases) {
    const { additions, problem, asks, line, last } = readPhrase(phrase, walk, freshIn(walk.document));
    if (!additions) throw new Error(`${phrase}: ${problem ?? asks}`);
    walk = { document: withAdditions(walk.document, additions), line, last: last ?? walk.last };
  }
  return walk.document;
}

/** What a document says, whatever its ids are and in whatever order its things stand. */
function meaning(document: LayoutDocument): string[] {
  const lines = new Map(document.lines.map(({ id, name, length }) => [id, `${name} of ${length.tenthUm}`]));
  const turnouts = new Map(document.turnouts.map(({ id, name }) => [id, name]));
  const plain = (value: unknown, key = ''): unknown => {
    if (key === 'id') return undefined;
    if (key === 'line') return lines.get(value as string);
    if (key === 'throwsWith') return turnouts.get(value as string);
    if (Array.isArray(value)) return value.map((one) => plain(one));
    if (typeof value !== 'object' || value === null) return value;
    return Object.fromEntries(
      Object.entries(value)
        .sort(([a], [b]) => (a < b ? -1 : 1))
        .map(([field, part]) => [field, plain(part, field)]),
    );
  };
  return LIST_NAMES.filter((list) => list !== 'trains' && list !== 'vehicles')
    .flatMap((list) => thingsOf(document, list).map((thing) => `${list} ${JSON.stringify(plain(thing))}`))
    .sort();
}

function oneLine(length = 480): LayoutDocument {
  const d = newDocument('One line');
  d.directions = { up: 'east', down: 'west' };
  return walkAlong(d, `line Main ${length}`);
}
const only = (d: LayoutDocument, list: (typeof LIST_NAMES)[number] = 'features') => thingsOf(d, list).at(-1)!;

const D = oneLine();

describe('what is said while walking along the rails', () => {
  test.each<[string, Record<string, unknown>]>([
    ['gap 96', { kind: 'gap', at: cm(96), rail: 'right', certainty: 'tentative' }],
    ['gap 38" fixed', { kind: 'gap', at: { tenthUm: 9_652_000, typed: '38"' }, certainty: 'fixed' }],
    ['signal east 98', { kind: 'signal', governs: 'up', at: cm(98), name: 'S1' }],
    ['signal 98 West FE', { kind: 'signal', governs: 'down', at: cm(98), name: 'FE' }],
    ['platform 120 to 184', { kind: 'platform', at: cm(120), to: cm(184) }],
    ['platform 120 to 184 Marrowick platform', { kind: 'platform', name: 'Marrowick platform' }],
    ['curve right r 60 from 40 to 110', { kind: 'curve', hand: 'right', radius: cm(60), at: cm(40), to: cm(110) }],
    ['grade 2.5% 200 to 350', { kind: 'gradient', percent: 2.5, at: cm(200), to: cm(350) }],
    ['grade -3% 200 to 350', { kind: 'gradient', percent: -3 }],
    ['level crossing 3 ft 2 in', { kind: 'levelCrossing', at: { tenthUm: 9_652_000, typed: '3 ft 2 in' } }],
    ['level crossing 3 ft 2 in Mill Lane', { kind: 'levelCrossing', name: 'Mill Lane' }],
    ['landmark 120 In the woods', { kind: 'landmark', name: 'In the woods', at: cm(120) }],
    ['landmark 120 M', { kind: 'landmark', name: 'M', at: cm(120) }],
    ['landmark 1.2 m', { kind: 'landmark', at: { tenthUm: 12_000_000, typed: '1.2 m' } }],
    ['landmark 38 In', { kind: 'landmark', at: { tenthUm: 38 * 254_000, typed: '38 In' } }],
    ['platform 3 Ft 2 In to 5 Ft', { kind: 'platform', at: { tenthUm: 38 * 254_000, typed: '3 Ft 2 In' } }],
    ['landmark 120 The old mill', { kind: 'landmark', name: 'The old mill', at: cm(120) }],
    ['limit 300 "to the yard"', { kind: 'limit', name: 'to the yard' }],
    ['hidden 0 to 90', { kind: 'hidden', at: cm(0), to: cm(90) }],
    ['lift-out 210', { kind: 'liftOut', at: cm(210) }],
    ['taped 120 to 480 is 359', { kind: 'taped', at: cm(120), to: cm(480), taped: cm(359) }],
    ['buffer', { kind: 'buffer', at: { tenthUm: 48_000_000 } }],
    ['edge', { kind: 'edge', at: { tenthUm: 48_000_000 } }],
    ['MARK at 12 1/2 in', { kind: 'mark', at: { tenthUm: 3_175_000, typed: '12 1/2 in' } }],
  ])('%s', (text, thing) => {
    expect(only(walkAlong(D, text))).toMatchObject(thing);
  });
  test('a direction is said by its name, or shorter', () => {
    const d = walkAlong(
      newDocument('x'),
      'line Main 480',
      'signal east 98',
      'signal westbound 120',
      'stop mark west 60',
    );
    expect(d.features).toMatchObject([{ governs: 'up' }, { governs: 'down' }, { facing: 'down' }]);
  });
  test('a turnout leads to a new track, which can be measured later, or to one that there is', () => {
    const d = walkAlong(D, 'turnout left facing 84');
    expect(only(d, 'turnouts')).toMatchObject({ name: 'T1', hand: 'left', facing: 'up', at: cm(84) });
    expect(only(d, 'lines')).toMatchObject({ name: 'From T1', length: { tenthUm: 6_000_000 } });
    expect(referenceFaults(d)).toEqual([]);
    const loop = walkAlong(
      D,
      'line Loop 230',
      'line Main',
      'turnout 84 to loop',
      'turnout trailing left 320 to Loop end',
    );
    expect(loop.turnouts.map(({ legs, facing }) => [legs[0]!.end, facing])).toEqual([
      ['start', 'up'],
      ['end', 'down'],
    ]);
    expect(referenceFaults(loop)).toEqual([]);
  });
  test('a crossing number says how long it takes until the legs are clear', () => {
    const d = walkAlong(D, 'turnout 84 no 6', 'turnout left 160 no 4 clear 15');
    expect(d.turnouts.map(({ number, clearance }) => [number, clearance.typed])).toEqual([
      [6, '30.4 cm'],
      [4, '15 cm'],
    ]);
  });
  test('a three-way turnout without tracks gets both', () => {
    const d = walkAlong(D, 'turnout three-way 84');
    expect(d.lines).toHaveLength(3);
    expect(referenceFaults(d)).toEqual([]);
  });
  test('lines meet at their ends: each other, or themselves', () => {
    const two = walkAlong(D, 'line Branch 200', 'joins main at 0');
    expect(two.joins).toMatchObject([{ a: { end: 'end' }, b: { line: D.lines[0]!.id, end: 'start' } }]);
    expect(walkAlong(newDocument('x'), 'line Oval 480 circuit').joins).toHaveLength(1);
    expect(say(D, 'joins Main at 100').problem).toContain('at their ends');
    expect(say(D, 'joins Nowhere start').problem).toContain('no line “Nowhere”');
  });
  test('it goes on from the last thing, and a number alone says it again', () => {
    const d = walkAlong(D, 'gap 96', '+12', '140', '+ 1 ft', 'platform 200 to +30', '+10 to +30');
    expect(d.features.map((f) => [f.kind, f.at.tenthUm / 100_000, 'to' in f ? f.to.tenthUm / 100_000 : 0])).toEqual([
      ['gap', 96, 0],
      ['gap', 108, 0],
      ['gap', 140, 0],
      ['gap', 170.48, 0],
      ['platform', 200, 230],
      ['platform', 240, 270],
    ]);
    const signals = walkAlong(D, 'signal west 98 FE', '120');
    expect(signals.features).toMatchObject([{ name: 'FE' }, { name: 'S1', governs: 'down' }]);
  });
  test('a wrong word offers the nearest, and what is missing is asked for', () => {
    expect(say(D, 'gpa 96')).toMatchObject({ meant: 'gap 96' });
    expect(say(D, 'turnuot left 84').meant).toBe('turnout left 84');
    expect(say(D, 'turnout lfet 84').meant).toBe('turnout left 84');
    expect(say(D, 'platfrom 10 to 20').meant).toBe('platform 10 to 20');
    expect(say(D, 'banana 12').meant).toBeUndefined();
    expect(say(D, 'banana 12').problem).toContain('banana');
    expect(say(D, 'gap').asks).toContain('how far');
    expect(say(D, 'platform 120').problem).toContain('to where');
    expect(say(D, 'block 120').asks).toContain('name');
    expect(say(D, '+12').problem).toContain('first what stands there');
    expect(say(D, 'gap +12').problem).toContain('nothing yet');
    expect(say(D, 'gap 1,200').problem).toContain('two ways');
    expect(say(D, 'gap 12 bananas').problem).toContain('bananas');
    expect(say(newDocument('x'), 'gap 12').problem).toContain('which line');
  });
  test('words that may come next are offered, and what was said is shown where it stands', () => {
    expect(say(D, 'pla').offers).toEqual(['platform']);
    expect(say(D, 'l').offers).toEqual(['line', 'level crossing', 'landmark', 'limit', 'lift-out', 'ladder', 'length']);
    expect(say(D, 'turnout left 84').offers).toEqual(expect.arrayContaining(['facing', 'trailing', 'to', 'clear']));
    expect(say(D, 'turnout left 84').offers).not.toContain('right');
    expect(say(D, 'platform 120 to 184').ghost).toEqual({ line: 'L1', at: 12_000_000, to: 18_400_000 });
    expect(say(D, 'turnout left 84 to nowher').ghost).toEqual({ line: 'L1', at: 8_400_000 });
  });
  test('what was said is one edit, that the layout checks as it does every other', () => {
    const things = (text: string) => say(D, text).additions!;
    const good = applyEdit(D, { do: 'add things', things: things('gap 96'), says: 'gap 96' });
    expect(good.ok && good.change.document.features).toHaveLength(1);
    const bad = applyEdit(D, { do: 'add things', things: things('gap 496'), says: 'gap 496' });
    expect(!bad.ok && bad.problem).toContain('past the end');
  });
});

/** Which lines a train can be led to from the start of a line, by whatever way the points lie. */
function ledTo(document: LayoutDocument, from: string): string[] {
  const graph = compileTrack(document);
  const nameOf = (edge: number) => document.lines.find(({ id }) => id === graph.edges[edge]!.line)!.name;
  const first = graph.byLine.get(document.lines.find(({ name }) => name === from)!.id)![0]!;
  const queue: { edge: number; end: 0 | 1 }[] = [{ edge: first.index, end: 1 }];
  const seen = new Set([`${first.index} 1`]);
  for (const { edge, end } of queue)
    for (const next of onwardFrom(graph, edge, end)) {
      const out = { edge: next.edge, end: (next.enters === 0 ? 1 : 0) as 0 | 1 };
      if (!seen.has(`${out.edge} ${out.end}`)) queue.push(out);
      seen.add(`${out.edge} ${out.end}`);
    }
  return [...new Set(queue.map(({ edge }) => nameOf(edge)))].sort();
}

describe('forms of track in one phrase', () => {
  test.each<[string, string[]]>([
    ['passing loop 84 to 320 left Loop long 240', ['Loop', 'Main']],
    ['siding 84 left Quarry long 90', ['Main', 'Quarry']],
    ['siding 384 left trailing Quarry long 90', ['Main']],
    ['ladder 84 roads 5 every 25 left Road long 120', ['Main', 'Road 1', 'Road 2', 'Road 3', 'Road 4', 'Road 5']],
    ['crossover 100 to Down 130 long 30', ['Down', 'Main', 'Track 3']],
    ['double crossover 100 to 160 with Down 100 long 60', ['Down', 'Main', 'Track 3']],
    ['reverse loop 400 Round long 230', ['Main', 'Round']],
    ['triangle 100 to 300 Stem legs 120 long 150', ['Main', 'Stem', 'Track 3']],
    ['turnout wye 84 to Down', ['Down', 'Main']],
    ['turnout curved 84 to Down', ['Down', 'Main']],
  ])('%s', (phrase, reached) => {
    const base = withAdditions(D, readSurvey('line Down 480', D).additions);
    const d = walkAlong(base, phrase);
    expect(referenceFaults(d)).toEqual([]);
    expect(ledTo(d, 'Main')).toEqual(reached);
    /** Written out it is what it consists of, and read back the same. */
    const { additions, bad } = readSurvey(writeSurvey(d), bare(d));
    expect(bad).toEqual([]);
    expect(meaning(withAdditions(bare(d), additions))).toEqual(meaning(d));
    /** Every motor can be thrown, together with those that throw with it, and comes to lie so. */
    const run = new Rehearsal(compileSystem(d), 1);
    for (let tick = 0; tick < 600; tick++) run.step();
    for (const motor of run.motors) {
      run.command({ kind: 'throw', turnout: motor.id, to: 'diverging' });
      for (let tick = 0; tick < 200; tick++) run.step();
    }
    expect(run.motors.length).toBeGreaterThan(0);
    const lies = run.plant.motors.map(({ position }) => position);
    /** Nothing watches them, and they follow their button. */
    expect(new Set(lies)).toEqual(new Set(['diverging']));
    const seen = walkAlong(d, ...d.lines.flatMap(({ name }) => [`line "${name}"`, 'detector 0']));
    const moved = new Rehearsal(compileSystem(seen), 1);
    for (let tick = 0; tick < 600; tick++) moved.step();
    for (const motor of moved.motors) moved.command({ kind: 'throw', turnout: motor.id, to: 'diverging' });
    for (let tick = 0; tick < 200; tick++) moved.step();
    expect(moved.plant.motors.map(({ position }) => position)).toEqual(lies.map(() => 'diverging'));
  });
  test('turnouts of a crossover throw together', () => {
    const d = walkAlong(
      withAdditions(D, readSurvey('line Down 480', D).additions),
      'double crossover 100 to 160 with Down 100 long 60',
    );
    const [first, ...rest] = d.turnouts;
    expect(rest.map(({ throwsWith }) => throwsWith)).toEqual([first!.id, first!.id, first!.id]);
    expect(d.crossings).toMatchObject([{ kind: 'diamond', a: { at: cm(30) }, b: { at: cm(30) } }]);
  });
});

describe('a survey as text', () => {
  test.each([smallValley(), learningOval(), ...Array.from({ length: 20 }, (_, i) => randomLine(i + 1))])(
    '$name comes back the same',
    (document) => {
      const text = writeSurvey(document);
      const { additions, bad } = readSurvey(text, bare(document));
      expect(bad).toEqual([]);
      const again = withAdditions(bare(document), additions);
      expect(writeSurvey(again)).toBe(text);
      expect(meaning(again)).toEqual(meaning(document));
    },
  );
  test('any survey comes back the same, whatever its things are called and however its lengths were typed', () => {
    let kinds = new Set<string>();
    fc.assert(
      fc.property(surveys(), (document) => {
        expect(readDocument(document)).toMatchObject({ ok: true });
        const { additions, bad } = readSurvey(writeSurvey(document), bare(document));
        expect(bad).toEqual([]);
        expect(meaning(withAdditions(bare(document), additions))).toEqual(meaning(document));
        kinds = new Set([
          ...kinds,
          ...document.features.map(({ kind }) => kind),
          ...document.sensors.map(({ kind }) => kind),
        ]);
      }),
      { numRuns: 400, seed: 17 },
    );
    expect(kinds.size).toBeGreaterThan(15);
  });
  test('every phrase has a sentence about it, and begins with words of its own', () => {
    expect(new Set(SAID.map(({ head }) => head)).size).toBe(SAID.length);
    const told = readFileSync(new URL('../../docs/survey-text.md', import.meta.url), 'utf8');
    for (const { head } of SAID) expect(told).toContain(`| \`${head}\``);
    for (const { means } of SAID) expect(means).toMatch(/^[A-Z].*\.$/);
  });
  test('of a pasted text each bad row is listed with what is wrong; the good ones are there to keep', () => {
    const document = oneLine(60_000);
    const rows = Array.from({ length: 5000 }, (_, i) =>
      i % 10 === 3 ? BAD[((i / 10) % BAD.length) | 0]! : `gap ${10 + i * 5}`,
    );
    const { additions, bad, rows: said } = readSurvey(rows.join('\r\n'), document);
    expect(said).toBe(5000);
    expect(bad.map(({ row }) => row)).toEqual(Array.from({ length: 500 }, (_, i) => i * 10 + 4));
    for (const { problem } of bad) expect(problem.length).toBeGreaterThan(10);
    expect(additions).toHaveLength(4500);
    expect(referenceFaults(withAdditions(document, additions))).toEqual([]);
  });
  test('two thousand rows are read', () => {
    const text = Array.from({ length: 2000 }, (_, i) => `gap ${10 + i * 5}`).join('\n');
    expect(readSurvey(text, oneLine(60_000)).bad).toEqual([]);
  });
  test('rows on a line that is not taken are not taken either', () => {
    const { additions, bad } = readSurvey(
      'line Main\ngap 12\nline Loop 200\ngap 12\nturnout 84 to Nowhere',
      newDocument('x'),
    );
    expect(bad.map(({ row }) => row)).toEqual([1, 2, 5]);
    expect(additions).toHaveLength(2);
  });
});

/** Each is wrong in another way. */
const BAD = [
  'gap',
  'gap 1,200',
  'gap 99999999',
  'spoon 12',
  'platform 20 to 10',
  'gap 15',
  'signal sideways 12 to',
  'turnout 84 to Moon start',
];

const NAMES = ['Main', 'Loop', 'to', '12', 'a "b" c', 'back\\slash', '#2', 'Pell Dock', 'fixed', '+5', 'line'];

/** Surveys with something of every kind, of which everything is left out that cannot stand with the rest. */
function surveys(): fc.Arbitrary<LayoutDocument> {
  const length = fc.oneof(
    fc.integer({ min: 0, max: 400 }).map((n) => cm(n)),
    fc.integer({ min: 0, max: 12 }).map((n) => ({ tenthUm: n * 3_048_000, typed: `${n} ft` })),
    fc.integer({ min: 0, max: 40_000_000 }).map((n) => ({ tenthUm: n, typed: `${n / 10_000} mm` })),
  );
  const name = fc.constantFrom(...NAMES);
  const line = fc.constantFrom('L1', 'L2', 'L3');
  const end = fc.record({ line, end: fc.constantFrom('start', 'end') });
  const certainty = fc.constantFrom('tentative', 'fixed');
  const hand = fc.constantFrom('left', 'right');
  const facing = fc.constantFrom('up', 'down');
  const lie = fc.constantFrom('straight', 'diverging');
  const patterns = fc.constantFrom(undefined, ['stop section'], ['odd "way"', 'x']);
  const spot = { line, at: length, certainty, fixedOn: fc.constantFrom(undefined, '2026-11-27') };
  const stretch = { ...spot, to: length };
  const feature = fc.oneof(
    fc.record({ ...spot, kind: fc.constant('gap'), rail: fc.constantFrom('left', 'right', 'both') }),
    fc.record({ ...spot, kind: fc.constantFrom('mark', 'buffer', 'edge', 'liftOut') }),
    fc.record({
      ...spot,
      kind: fc.constant('signal'),
      name,
      governs: facing,
      system: fc.constant('three-aspect'),
      patterns,
    }),
    fc.record({ ...spot, kind: fc.constantFrom('limit', 'landmark'), name }),
    fc.record({
      ...spot,
      kind: fc.constant('feeder'),
      name,
      booster: fc.constantFrom(undefined, 'bo1'),
      reverses: fc.constantFrom(true, undefined),
    }),
    fc.record({ ...spot, kind: fc.constant('stopMark'), facing }),
    fc.record({ ...stretch, kind: fc.constantFrom('levelCrossing', 'platform'), name }),
    fc.record({ ...stretch, kind: fc.constant('hidden') }),
    fc.record({ ...stretch, kind: fc.constant('taped'), taped: length }),
    fc.record({
      ...spot,
      kind: fc.constant('tapedAcross'),
      far: fc.record({ line: spot.line, at: spot.at }),
      taped: length,
    }),
    fc.record({ ...stretch, kind: fc.constant('curve'), radius: length, hand }),
    fc.record({
      ...stretch,
      kind: fc.constant('gradient'),
      percent: fc.integer({ min: -60, max: 60 }).map((n) => n / 4),
    }),
  );
  const points = fc
    .record({
      name,
      line,
      at: length,
      kind: fc.constantFrom(...TURNOUT_KIND_IDS),
      facing,
      hand,
      legs: fc.array(end, { minLength: 2, maxLength: 2 }),
      straight: fc.option(end, { nil: undefined }),
      clearance: length,
      motor: fc.constantFrom('hand', 'snap', 'slow'),
      throwMs: fc.option(fc.integer({ min: 0, max: 60_000 }), { nil: undefined }),
      spareContacts: fc.integer({ min: 0, max: 8 }),
      lies: fc.array(lie, { minLength: 2, maxLength: 2 }),
      throwsWith: fc.constantFrom(undefined, 't1', 't2'),
      patterns,
      certainty,
    })
    .map((one) => ({
      ...one,
      legs: one.legs.slice(0, legsOf(one.kind).length),
      lies: one.lies.slice(0, TURNOUTS[one.kind].motors.length),
    }));
  const crossing = fc
    .record({
      name,
      kind: fc.constantFrom(...CROSSING_KIND_IDS),
      a: fc.record({ line, at: length }),
      b: fc.record({ line, at: length }),
      angleDegrees: fc.integer({ min: 1, max: 90 }),
      turned: fc.constantFrom(undefined, 'a', 'b', 'both'),
      clearance: length,
      lies: fc.boolean(),
      throwMs: fc.constantFrom(undefined, 700),
      patterns,
      certainty,
    })
    .map((one) => ({ ...one, lies: one.lies ? CROSSINGS[one.kind].motors.map(() => 'diverging') : undefined }));
  const sensor = fc.record({
    name,
    kind: fc.constantFrom(...SENSOR_KIND_IDS),
    anchor: fc.record({ line, at: length }),
    holdMs: fc.constantFrom(0, 1000, 2500),
    side: fc.constantFrom(undefined, 'left' as const, 'right' as const),
    input: fc.constantFrom(undefined, { module: 'A 3', number: undefined }, { module: '2', number: 5 }),
    patterns,
    certainty,
  });
  const numbered = <T>(prefix: string, things: T[]) =>
    things.map((thing, i) => ({ ...thing, id: `${prefix}${i + 1}` }));
  const many = <T>(one: fc.Arbitrary<T>, most: number) => fc.array(one, { maxLength: most });
  return fc
    .record({
      unit: fc.constantFrom('cm' as const, 'inch' as const),
      names: fc.array(name, { minLength: 3, maxLength: 3 }),
      lengths: fc.array(fc.integer({ min: 100, max: 400 }), { minLength: 3, maxLength: 3 }),
      row: fc.constantFrom(undefined, { row: -2 }),
      joins: many(fc.record({ a: end, b: end }), 3),
      turnouts: many(points, 3),
      crossings: many(crossing, 2),
      features: many(feature, 14),
      called: name,
      blocks: many(fc.record({ name, anchor: fc.record({ line, at: length }) }), 3),
      sensors: many(sensor, 4),
      areas: many(fc.record({ name, line, from: length, to: length, purpose: fc.constantFrom('', 'a "yard"') }), 2),
    })
    .map(({ unit, names, lengths, row, features, called, ...lists }) => {
      const d = {
        ...newDocument('Any', 'H0', unit),
        ...Object.fromEntries(
          Object.entries(lists).map(([list, things]) => [list, numbered(list[0]!, things as object[])]),
        ),
        lines: names.map((called, i) => ({
          id: `L${i + 1}`,
          name: called,
          length: cm(lengths[i]!),
          drawing: i === 1 ? row : undefined,
        })),
        features: numbered('x', features) as unknown as Feature[],
        boosters: [{ id: 'bo1', name: called }],
        referenceLine: 'L1',
      } as LayoutDocument;
      return withoutFaults(d);
    });
}

/** Without boosters from which no feeder is led: no phrase says these. */
const withoutIdle = (document: LayoutDocument): LayoutDocument => ({
  ...document,
  boosters: document.boosters.filter(({ id }) =>
    document.features.some((one) => one.kind === 'feeder' && one.booster === id),
  ),
});

/** Leaves out what is wrong until nothing is. */
function withoutFaults(document: LayoutDocument): LayoutDocument {
  for (;;) {
    const fault = referenceFaults(document).map(({ place }) => /^(\w+)\[(\d+)\]/.exec(place)!)[0];
    if (!fault) return withoutIdle(document);
    const list = fault[1] as (typeof LIST_NAMES)[number];
    document = { ...document, [list]: thingsOf(document, list).filter((_: Thing, i) => i !== Number(fault[2])) };
  }
}

describe('a text that says what there is already', () => {
  const rows = (text: string, d: LayoutDocument) => {
    const { additions, bad, there } = readSurvey(text, d);
    return { adds: additions.map(({ list }) => list), bad: bad.map(({ row, problem }) => `${row} ${problem}`), there };
  };
  const main = walkAlong(newDocument('Own'), 'line Main 480', 'gap 96');
  test('adds nothing, however often it is taken up', () => {
    expect(rows('line Main 480\ngap 96', main)).toEqual({ adds: [], bad: [], there: 2 });
    expect(rows('line Main 480', main)).toEqual({ adds: [], bad: [], there: 1 });
    expect(rows('line Main 480\ngap 96\ngap 120', main)).toEqual({ adds: ['features'], bad: [], there: 2 });
    for (const d of [smallValley(), learningOval(), randomLine(3), randomLine(8)])
      expect(rows(writeSurvey(d), d)).toMatchObject({ adds: [], bad: [] });
  });
  test.each([
    ['line Main 300', 'it is 480 cm long'],
    ['line Main 480 circuit', 'it is no circuit'],
    ['line Main 300 circuit', 'it is 480 cm long, and is no circuit'],
    ['line Main 480 one way eastbound', 'it is run both ways'],
  ])('%s: a line of that name that is another is refused, with all that stands on it', (text, other) => {
    const d = { ...main, directions: { up: 'eastbound', down: 'westbound' } };
    expect(rows(`${text}\ngap 30\nline Loop 200\ngap 40`, d)).toEqual({
      adds: ['lines', 'features'],
      bad: [
        `1 There is a line “Main” already, and ${other}. Say “line Main” to walk along it, or give this one another name.`,
        '2 It stands on the line of row 1, which is not taken.',
      ],
      there: 0,
    });
  });
  test('on the line under the sheet the same is told', () => {
    expect(say(main, 'line Main 300')).toMatchObject({ meant: 'line "Main"' });
    expect(say(main, 'line Main 480')).toMatchObject({ additions: [], line: main.lines[0]!.id });
  });
});
