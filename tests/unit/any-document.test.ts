import { describe, expect, test } from 'vitest';
import { checkDesign, viewDesign } from '@/core/design';
import { type Fault, migrateDocument, readDocument, readDocumentText, writeDocumentText } from '@/core/survey';
import { straighten } from '@/core/track';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { asVersion1 } from './older-documents';
import { Draw, randomLine } from './random-line';
import { ofSweep } from './sweep';

const faultsOf = (text: string): Fault[] => {
  const reading = readDocumentText(text);
  return reading.ok ? [] : reading.faults;
};
/** What takes longer than this, on however busy a machine, hangs. */
const A_HANG_MS = 60_000;
const DOCUMENTS = ofSweep(10_000);
type Node = Record<string, unknown> | unknown[];

/** Every list and record in a document, with what holds it. */
function nodes(value: unknown, into: Node[] = []): Node[] {
  if (typeof value !== 'object' || value === null) return into;
  into.push(value as Node);
  for (const part of Object.values(value)) nodes(part, into);
  return into;
}

const NONSENSE = [
  null,
  -1,
  0,
  1e12,
  0.5,
  Number.MAX_SAFE_INTEGER,
  '',
  'x',
  'main',
  'x'.repeat(5000),
  [],
  {},
  true,
  '__proto__',
];

/** Damages a document in one to four places: values swapped, dropped, doubled, or put where they do not belong. */
function damage(document: unknown, draw: Draw): unknown {
  const copy = JSON.parse(JSON.stringify(document));
  for (let times = 1 + draw.below(4); times > 0; times--) {
    const all = nodes(copy);
    const node = draw.pick(all) as Record<string, unknown> & unknown[];
    const keys = Object.keys(node);
    const key = keys.length > 0 ? draw.pick(keys) : 'x';
    switch (draw.below(7)) {
      case 0:
        if (Array.isArray(node)) node.splice(Number(key) || 0, 1);
        else delete node[key];
        break;
      case 1:
        node[key as never] = draw.pick(NONSENSE) as never;
        break;
      case 2:
        node[key as never] = JSON.parse(JSON.stringify(draw.pick(all))) as never;
        break;
      case 3:
        if (Array.isArray(node)) node.push(JSON.parse(JSON.stringify(node[Number(key) || 0] ?? null)));
        else node[`${key}2`] = node[key];
        break;
      case 4:
        if (typeof node[key as never] === 'number')
          node[key as never] = Math.round((node[key as never] as number) * draw.between(-1, 3)) as never;
        break;
      case 5: {
        const other = draw.pick(keys.length > 0 ? keys : ['x']);
        const fields = node as Record<string, unknown>;
        const held = fields[key];
        fields[key] = fields[other];
        fields[other] = held;
        break;
      }
      default:
        if (typeof node[key as never] === 'string')
          node[key as never] = draw.pick(['up', 'down', 'start', 'end', 'gap', 'loop0', 'straight']) as never;
    }
  }
  return copy;
}

describe('anything given as a layout', () => {
  test(`${DOCUMENTS} damaged documents are each read or refused in words, and what is read can be worked on`, {
    timeout: 1_200_000,
  }, () => {
    const sources = [learningOval(), smallValley(), ...Array.from({ length: 8 }, (_, i) => randomLine(i + 1))];
    let read = 0;
    for (let seed = 0; seed < DOCUMENTS; seed++) {
      const draw = new Draw(seed);
      const text = JSON.stringify(damage(draw.pick(sources), draw));
      const reading = readDocumentText(text);
      if (reading.ok) {
        read += 1;
        if (seed % 4 === 0) {
          viewDesign(reading.document, checkDesign(reading.document));
          straighten(reading.document);
          expect(readDocumentText(writeDocumentText(reading.document)).ok).toBe(true);
        }
      } else {
        expect(reading.faults.length).toBeGreaterThan(0);
        for (const { place, problem, remedy } of reading.faults) {
          expect(place.length * problem.length * remedy.length).toBeGreaterThan(0);
          expect(problem).not.toMatch(/undefined|\[object|NaN/);
        }
      }
    }
    expect(read).toBeGreaterThan(DOCUMENTS * 0.05);
    expect(read).toBeLessThan(DOCUMENTS * 0.9);
  });

  const base = () => JSON.parse(writeDocumentText(learningOval()));
  const changed = (change: (document: ReturnType<typeof base>) => void): string => {
    const document = base();
    change(document);
    return JSON.stringify(document);
  };
  test.each<[string, string, RegExp]>([
    ['not JSON', 'a letter to the club', /is not JSON/],
    ['20 MB of nonsense', 'x'.repeat(20_000_000), /larger than 16 MB/],
    ['15 MB of brackets', '['.repeat(15_000_000), /is not JSON|JSON, but not a layout/],
    [
      'a newer version',
      changed((d) => {
        d.version = 77;
      }),
      /newer Roblik \(document version 77/,
    ],
    [
      'no version',
      changed((d) => {
        delete d.version;
      }),
      /is missing/,
    ],
    [
      'a version of nothing',
      changed((d) => {
        d.version = 0;
      }),
      /at least 1/,
    ],
    [
      'an id that points nowhere',
      changed((d) => {
        d.features[0].line = 'gone';
      }),
      /no line “gone”/,
    ],
    [
      'a feature past the end',
      changed((d) => {
        d.features[0].at.tenthUm = 9e9;
      }),
      /past the end of line “Oval”/,
    ],
    [
      'two gaps at one place',
      changed((d) => {
        d.features.push({ ...d.features[0], id: 'twin' });
      }),
      /already a gap or block mark/,
    ],
    [
      'an id used twice',
      changed((d) => {
        d.trains[1].id = d.trains[0].id;
      }),
      /is used twice/,
    ],
  ])('%s has its own plain message, with place and remedy', { timeout: A_HANG_MS }, (_, text, says) => {
    const faults = faultsOf(text);
    expect(faults.some((f) => says.test(f.problem))).toBe(true);
    expect(faults.every((f) => f.place && f.remedy)).toBe(true);
  });
  test('a turnout without a leg has its own message', () => {
    const document = smallValley();
    const turnouts = document.turnouts.map((t, i) =>
      i === 0 ? { ...t, legs: [{ line: 'nowhere', end: 'start' as const }] } : t,
    );
    expect(
      faultsOf(JSON.stringify({ ...document, turnouts }))
        .map((f) => f.problem)
        .join(),
    ).toContain('no line “nowhere”');
  });
});

describe('older versions', () => {
  const first = () => asVersion1(learningOval());
  test('version 1 is read: its directions get the usual names, and its detectors are ideas as yet', () => {
    const reading = readDocument(first());
    const oval = learningOval();
    expect(reading.ok && reading.document).toEqual({
      ...oval,
      sensors: oval.sensors.map((sensor) => ({ ...sensor, certainty: 'tentative' })),
      directions: { up: 'eastbound', down: 'westbound' },
    });
  });
  test('the document given is left as it was', () => {
    const old = first();
    readDocument(old);
    expect(old).toEqual(first());
    expect(old.version).toBe(1);
  });
  test('a version that never was is not migrated', () => {
    const odd = { ...first(), version: 0.5 };
    expect(migrateDocument(odd)).toBe(odd);
    expect(readDocument(odd).ok).toBe(false);
  });
});
