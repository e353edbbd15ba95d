import { readFileSync } from 'node:fs';
import { Ajv2020 } from 'ajv/dist/2020.js';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { cm } from '@/core/measure';
import {
  applyChange,
  applyEdit,
  type Edit,
  type LayoutDocument,
  newDocument,
  readDocument,
  readDocumentText,
  writeDocumentText,
} from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { layoutJsonSchema } from '../../tools/json-schema';

const plain = (document: LayoutDocument) => JSON.parse(JSON.stringify(document)) as LayoutDocument;
const demos = [smallValley(), learningOval(), newDocument('Empty')].map(plain);

describe('import and export', () => {
  test.each(demos.map((d) => [d.name, d] as const))('%s comes back as it went out', (_, document) => {
    const reading = readDocumentText(writeDocumentText(document));
    expect(reading).toMatchObject({ ok: true });
    expect(reading.ok && plain(reading.document)).toEqual(document);
  });

  const faulty = (change: (d: LayoutDocument) => void) => {
    const document = plain(smallValley());
    change(document);
    const reading = readDocument(document);
    return reading.ok ? [] : reading.faults.map((f) => `${f.place}: ${f.problem} ${f.remedy}`);
  };
  test.each<[string, (d: LayoutDocument) => void, string, string]>([
    [
      'a gap past the end of its line',
      (d) => {
        d.features[0]!.at = cm(5000);
      },
      'features[0].at',
      'past the end of line “Main”, which is 1180 cm long',
    ],
    [
      'an id that points nowhere',
      (d) => {
        d.features[0]!.line = 'nowhere';
      },
      'features[0].line',
      'no line “nowhere”',
    ],
    [
      'two gaps at one place',
      (d) => {
        d.features[1]!.line = 'main';
        d.features[1]!.at = cm(60);
      },
      'features[1]',
      'already a gap',
    ],
    [
      'a turnout without a straight leg',
      (d) => {
        d.turnouts[0]!.at = cm(1180);
      },
      'turnouts[0].at',
      'no straight leg',
    ],
    [
      'a leg used twice',
      (d) => {
        d.turnouts[0]!.legs = [{ line: 'm2', end: 'start' }];
      },
      'turnouts[4].legs[0]',
      'already used',
    ],
    [
      'an id used twice',
      (d) => {
        d.blocks[1]!.id = d.blocks[0]!.id;
      },
      'blocks[1].id',
      'used twice',
    ],
    [
      'a train without vehicles',
      (d) => {
        d.trains[0]!.vehicles = [];
      },
      'trains[0].vehicles',
      'has no vehicles',
    ],
    [
      'a vehicle that does not exist',
      (d) => {
        d.trains[0]!.vehicles = ['ghost'];
      },
      'trains[0].vehicles[0]',
      'no vehicle “ghost”',
    ],
    [
      'a negative length',
      (d) => {
        d.lines[0]!.length.tenthUm = -1;
      },
      'lines[0].length.tenthUm',
      'at least 0',
    ],
    [
      'an unknown kind of feature',
      (d) => {
        (d.features[0] as { kind: string }).kind = 'portal';
      },
      'features[0].kind',
      'must be one of',
    ],
    [
      'a missing field',
      (d) => {
        delete (d.lines[0] as Partial<LayoutDocument['lines'][0]>).length;
      },
      'lines[0].length',
      'missing',
    ],
    [
      'an unknown field',
      (d) => {
        (d as unknown as Record<string, unknown>).colour = 'red';
      },
      'the file',
      'do not know: colour',
    ],
  ])('%s is named with its place', (_, change, place, problem) => {
    const faults = faulty(change);
    expect(
      faults.some((f) => f.startsWith(`${place}:`) && f.includes(problem)),
      faults.join('\n'),
    ).toBe(true);
  });

  test.each([
    ['not JSON', 'hello', 'not JSON'],
    ['a list', '[]', 'not a layout'],
    ['another format', '{"format":"something"}', 'not a layout'],
    ['a newer version', '{"format":"roblik layout","version":99}', 'newer Roblik'],
    ['17 MB', 'x'.repeat(17 * 1024 * 1024), 'larger than 16 MB'],
    ['cut off', writeDocumentText(smallValley()).slice(0, 5000), 'not JSON'],
  ])('%s is refused in words', (_, text, part) => {
    const reading = readDocumentText(text);
    expect(!reading.ok && reading.faults[0]!.problem).toContain(part);
  });
});

describe('JSON Schema', () => {
  const published = JSON.parse(
    readFileSync(new URL('../../docs/layout.schema.json', import.meta.url), 'utf8'),
  ) as object;
  const validate = new Ajv2020({ strict: false, allErrors: false }).compile(published);

  test('the published schema is the one the program checks with', () =>
    expect(published).toEqual(JSON.parse(JSON.stringify(layoutJsonSchema()))));
  test.each(demos.map((d) => [d.name, d] as const))('a standard validator accepts %s', (_, document) => {
    expect(validate(document), JSON.stringify(validate.errors)).toBe(true);
  });

  /** Every place in a document that holds a value, as a path. */
  const paths = (value: unknown, path: (string | number)[] = []): (string | number)[][] =>
    typeof value === 'object' && value !== null
      ? [path, ...Object.entries(value).flatMap(([k, v]) => paths(v, [...path, Array.isArray(value) ? Number(k) : k]))]
      : [path];

  test('mutated documents never throw, and what passes passes the validator too', () => {
    const source = plain(learningOval());
    const places = paths(source).filter((p) => p.length > 0);
    const values = fc.oneof(
      fc.constant(null),
      fc.boolean(),
      fc.integer(),
      fc.string({ maxLength: 12 }),
      fc.constant([]),
      fc.constant({}),
      fc.double(),
      fc.constant('oval'),
    );
    let accepted = 0;
    fc.assert(
      fc.property(fc.constantFrom(...places), values, fc.boolean(), (path, value, remove) => {
        const document = plain(source);
        let holder = document as unknown as Record<string | number, unknown>;
        for (const key of path.slice(0, -1)) holder = holder[key] as Record<string | number, unknown>;
        const last = path[path.length - 1]!;
        if (remove && !Array.isArray(holder)) delete holder[last];
        else holder[last] = value;
        const reading = readDocument(document);
        if (!reading.ok) {
          expect(reading.faults[0]!.remedy.length).toBeGreaterThan(5);
          return;
        }
        accepted += 1;
        expect(
          validate(JSON.parse(JSON.stringify(reading.document))),
          `${path.join('.')} = ${JSON.stringify(value)}: ${JSON.stringify(validate.errors)}`,
        ).toBe(true);
        checkDesign(reading.document);
      }),
      { numRuns: 3000, seed: 9 },
    );
    expect(accepted).toBeGreaterThan(20);
  }, 120_000);
});

describe('editing', () => {
  const apply = (document: LayoutDocument, edit: Edit) => {
    const result = applyEdit(document, edit);
    if (!result.ok) throw new Error(result.problem);
    return result.change;
  };
  const refusal = (edit: Edit, document = smallValley()) => {
    const result = applyEdit(document, edit);
    return result.ok ? 'accepted' : result.problem;
  };

  test('a moved gap takes the signals at it along, and undo brings all back', () => {
    const before = smallValley();
    const change = apply(before, { do: 'move', id: 'g8', at: cm(475) });
    const moved = change.document.features.filter((f) => f.line === 'main' && f.at.tenthUm === cm(475).tenthUm);
    expect(moved.map((f) => f.id).sort()).toEqual(['g8', 's-ME']);
    expect(applyChange(change.document, change.inverse)).toEqual(before);
    expect(applyChange(before, change.patches)).toEqual(change.document);
  });

  test('any run of edits is undone to the letter', () => {
    const edits: fc.Arbitrary<Edit> = fc.oneof(
      fc
        .tuple(
          fc.constantFrom('gap' as const, 'mark' as const),
          fc.constantFrom('main', 'uc1', 'sk'),
          fc.integer({ min: 1, max: 1300 }),
        )
        .map(([kind, line, at]): Edit => ({ do: 'add cut', kind, line, at: cm(at) })),
      fc
        .tuple(fc.constantFrom('g1', 'g8', 't-T5', 's-ME'), fc.integer({ min: 1, max: 1300 }))
        .map(([id, at]): Edit => ({ do: 'move', id, at: cm(at) })),
      fc.constantFrom('g3', 's-UE', 'd-M1', 'tr-mail', 't-T8').map((id): Edit => ({ do: 'delete', id })),
      fc
        .tuple(fc.constantFrom('main', 'm2'), fc.integer({ min: 1, max: 240 }))
        .map(([line, at]): Edit => ({ do: 'add signal', line, at: cm(at), governs: 'up' })),
    );
    fc.assert(
      fc.property(fc.array(edits, { maxLength: 12 }), (list) => {
        const start = smallValley();
        let document = start;
        const done = [];
        for (const edit of list) {
          const result = applyEdit(document, edit);
          if (!result.ok) {
            expect(result.problem.length).toBeGreaterThan(10);
            continue;
          }
          document = result.change.document;
          done.push(result.change);
          expect(readDocument(plain(document)).ok).toBe(true);
        }
        for (const change of done.reverse()) document = applyChange(document, change.inverse);
        expect(document).toEqual(start);
      }),
      { numRuns: 60, seed: 4 },
    );
  });

  test.each<[string, Edit, string]>([
    ['a gap where one is', { do: 'add cut', kind: 'gap', line: 'main', at: cm(60) }, 'already a gap at 60 cm'],
    [
      'a gap past the end',
      { do: 'add cut', kind: 'gap', line: 'pd', at: cm(300) },
      'past the end of line “Pell Dock”, which is 190 cm long',
    ],
    ['a signal twice', { do: 'add signal', line: 'main', at: cm(470), governs: 'up' }, 'ME already stands there'],
    ['a name that is taken', { do: 'rename', id: 's-ME', name: 'T5' }, 'T5 is taken'],
    [
      'a loop that comes back before it leaves',
      {
        do: 'add turnout',
        turnout: { ...smallValley().turnouts[0]!, at: cm(800) },
        leads: { kind: 'back', name: 'x', length: cm(90), at: cm(700) },
      },
      'come back at more than 800 cm',
    ],
    ['deleting a turnout whose track is in use', { do: 'delete', id: 't-T5' }, 'still has things on it'],
    ['moving what is gone', { do: 'move', id: 'nothing', at: cm(1) }, 'no longer there'],
  ])('%s is refused in words', (_, edit, part) => expect(refusal(edit)).toContain(part));

  test('from a bare ruler to a loop with a signal, by edits alone', () => {
    let document = newDocument('New');
    const edits: Edit[] = [
      { do: 'add line', name: 'Main', length: cm(600), circuit: true },
      {
        do: 'add turnout',
        turnout: {
          line: 'L1',
          kind: 'turnout',
          at: cm(100),
          facing: 'up',
          hand: 'right',
          straight: undefined,
          clearance: cm(20),
          motor: 'hand',
          throwMs: 1000,
          spareContacts: 0,
          lies: ['straight'],
          throwsWith: undefined,
          certainty: 'tentative',
        },
        leads: { kind: 'back', name: 'Loop', length: cm(210), at: cm(300) },
      },
      { do: 'add cut', kind: 'gap', line: 'L1', at: cm(80) },
      { do: 'add signal', line: 'L1', at: cm(80), governs: 'up' },
    ];
    for (const edit of edits) document = apply(document, edit).document;
    expect(document.turnouts.map((t) => [t.at.tenthUm / 1e5, t.facing, t.legs[0]!.end])).toEqual([
      [100, 'up', 'start'],
      [300, 'down', 'end'],
    ]);
    expect(checkDesign(document).scheme.partition.blocks.length).toBe(1);
  });

  /** Each kind of edit with what it changes, checked on the document itself; undo is checked for every one. */
  const EDITS: [string, Edit, (d: LayoutDocument) => unknown, unknown][] = [
    ['rename the layout', { do: 'rename layout', name: '  Valley ' }, (d) => d.name, 'Valley'],
    ['show inches', { do: 'show unit', unit: 'inch' }, (d) => d.shownUnit, 'inch'],
    [
      'add a line',
      { do: 'add line', name: 'Depot', length: cm(80), circuit: false },
      (d) => d.lines.at(-1)!.name,
      'Depot',
    ],
    ['add a circuit', { do: 'add line', name: 'Ring', length: cm(80), circuit: true }, (d) => d.joins.length, 2],
    [
      'add a block mark',
      { do: 'add cut', kind: 'mark', line: 'main', at: cm(390) },
      (d) => d.features.at(-1)!.kind,
      'mark',
    ],
    [
      'add a named signal',
      { do: 'add signal', line: 'main', at: cm(390), governs: 'up', name: '4.2' },
      (d) => (d.features.at(-1) as { name: string }).name,
      '4.2',
    ],
    [
      'add a signal without a name',
      { do: 'add signal', line: 'main', at: cm(390), governs: 'up' },
      (d) => (d.features.at(-1) as { name: string }).name,
      'S1',
    ],
    ['add a detector', { do: 'add sensor', line: 'main', at: cm(390) }, (d) => d.sensors.at(-1)!.name, 'D1'],
    ['move a turnout', { do: 'move', id: 't-T5', at: cm(485) }, (d) => d.turnouts[4]!.at.typed, '485 cm'],
    [
      'move a platform with its far end',
      { do: 'move', id: 'p1', at: cm(570) },
      (d) => d.features.find((f) => f.id === 'p1'),
      expect.objectContaining({ to: expect.objectContaining({ tenthUm: cm(690).tenthUm }) }),
    ],
    [
      'call a gap tentative',
      { do: 'fix', id: 'g1', certainty: 'tentative' },
      (d) => d.features[0]!.certainty,
      'tentative',
    ],
    [
      'call a turnout tentative',
      { do: 'fix', id: 't-T1', certainty: 'tentative' },
      (d) => d.turnouts[0]!.certainty,
      'tentative',
    ],
    [
      'rename a block',
      { do: 'name block', id: 'b-UM', anchor: { line: 'main', at: cm(390) }, name: 'Viaduct' },
      (d) => d.blocks.find((b) => b.id === 'b-UM')!.name,
      'Viaduct',
    ],
    [
      'name a new block',
      { do: 'name block', anchor: { line: 'main', at: cm(391) }, name: 'New' },
      (d) => d.blocks.at(-1)!.name,
      'New',
    ],
    [
      'rename a line',
      { do: 'rename', id: 'pd', name: 'Dock' },
      (d) => d.lines.find((l) => l.id === 'pd')!.name,
      'Dock',
    ],
    [
      'rename a detector',
      { do: 'rename', id: 'd-UM', name: 'UM2' },
      (d) => d.sensors.find((x) => x.id === 'd-UM')!.name,
      'UM2',
    ],
    [
      'delete a train',
      { do: 'delete', id: 'tr-mail' },
      (d) => d.trains.map((t) => t.id),
      ['tr-stopper', 'tr-quarry', 'tr-railcar'],
    ],
    ['delete a detector', { do: 'delete', id: 'd-UM' }, (d) => d.sensors.length, 18],
    [
      'let a turnout lie diverging',
      { do: 'change turnout', id: 't-T5', change: { lies: ['diverging'] } },
      (d) => d.turnouts[4]!.lies[0],
      'diverging',
    ],
    [
      'take a train off the track',
      { do: 'change train', id: 'tr-mail', change: { start: undefined } },
      (d) => d.trains[0]!.start,
      undefined,
    ],
    [
      'correct the length of a line',
      { do: 'change line', id: 'pd', length: cm(200) },
      (d) => d.lines.find((l) => l.id === 'pd')!.length.typed,
      '200 cm',
    ],
    [
      'make a train slower',
      { do: 'change train', id: 'tr-mail', change: { topSpeedKmh: 40 } },
      (d) => d.trains[0]!.topSpeedKmh,
      40,
    ],
    [
      'add a spur',
      {
        do: 'add turnout',
        name: 'T20',
        turnout: { ...smallValley().turnouts[0]!, at: cm(850), hand: 'left' },
        leads: { kind: 'dead end', name: 'Quarry', length: cm(90) },
      },
      (d) => [d.turnouts.at(-1)!.name, d.lines.at(-1)!.name, d.turnouts.at(-1)!.legs[0]!.end],
      ['T20', 'Quarry', 'start'],
    ],
    [
      'add a train of one engine',
      {
        do: 'add train',
        vehicles: [
          { name: 'Shunter', kind: 'engine', length: cm(9), axles: [{ at: cm(2), feeds: 'motor' }], grams: 150 },
        ],
        train: {
          name: 'Shunter',
          topSpeedKmh: 30,
          accelerationMmPerS2: 40,
          brakingMmPerS2: 60,
          startDelayMs: 0,
          measured: [],
          start: { line: 'pd', at: cm(120), facing: 'down' },
        },
      },
      (d) => [d.trains.length, d.vehicles.at(-1)!.name, d.trains.at(-1)!.vehicles.length],
      [5, 'Shunter', 1],
    ],
  ];
  test.each(EDITS)('%s', (_, edit, read, wanted) => {
    const before = smallValley();
    const change = apply(before, edit);
    expect(read(change.document)).toEqual(wanted);
    expect(change.says.length).toBeGreaterThan(5);
    expect(readDocument(plain(change.document)).ok).toBe(true);
    expect(applyChange(change.document, change.inverse)).toEqual(before);
    expect(before).toEqual(smallValley());
  });
  test('a spur that is deleted takes its empty track along', () => {
    const spur = apply(smallValley(), {
      do: 'add turnout',
      name: 'T20',
      turnout: { ...smallValley().turnouts[0]!, at: cm(850) },
      leads: { kind: 'dead end', name: 'Quarry', length: cm(90) },
    });
    const id = spur.document.turnouts.at(-1)!.id;
    const gone = apply(spur.document, { do: 'delete', id });
    expect(gone.document.lines.map((l) => l.name)).not.toContain('Quarry');
    expect(gone.document.turnouts).toHaveLength(10);
  });
  test.each<[string, Edit, string]>([
    ['a layout without a name', { do: 'rename layout', name: '  ' }, 'needs a name'],
    [
      'a block name that is taken',
      { do: 'name block', id: 'b-UM', anchor: { line: 'main', at: cm(390) }, name: 'M1' },
      'already a block M1',
    ],
    ['a block without a name', { do: 'name block', anchor: { line: 'main', at: cm(390) }, name: '' }, 'needs a name'],
    ['renaming what has no name', { do: 'rename', id: 'g1', name: 'x' }, 'no name to change'],
    [
      'a line made shorter than what stands on it',
      { do: 'change line', id: 'pd', length: cm(20) },
      'past the end of line “Pell Dock”',
    ],
    ['changing a turnout that is gone', { do: 'change turnout', id: 'x', change: {} }, 'no longer there'],
    ['changing a train that is gone', { do: 'change train', id: 'x', change: {} }, 'no longer there'],
    ['a moved gap onto another', { do: 'move', id: 'g1', at: cm(236) }, 'already a gap at 236 cm'],
    ['fixing what is gone', { do: 'fix', id: 'x', certainty: 'fixed' }, 'no longer there'],
    ['a line of no length', { do: 'add line', name: 'x', length: cm(0), circuit: false }, 'has no length'],
  ])('%s is refused', (_, edit, part) => expect(refusal(edit)).toContain(part));
});
