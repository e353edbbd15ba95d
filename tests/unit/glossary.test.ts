import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { describe, expect, test } from 'vitest';
import { type Entry, GLOSSARY } from '@/core/kinds';
import { glossaryText } from '../../tools/glossary-text';

const ROOT = fileURLToPath(new URL('../..', import.meta.url));
const files = ['src', 'tools'].flatMap((folder) =>
  readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
    .filter((file) => /\.tsx?$/.test(file) && !file.endsWith('kinds/glossary.ts'))
    .map((file) => join(folder, file)),
);
const texts = files.map((file): [string, string] => [file, readFileSync(join(ROOT, file), 'utf8')]);
const entries: [string, Entry][] = Object.entries(GLOSSARY);

describe('one word for one thing', () => {
  test('the document is what the table says', () =>
    expect(readFileSync(join(ROOT, 'docs/glossary.md'), 'utf8')).toBe(glossaryText()));

  test('no name that was given up is a name in the code', () => {
    expect(files.length).toBeGreaterThan(300);
    const retired = new Map(
      entries.flatMap(([thing, { retiredNames = [] }]) => retiredNames.map((name) => [name, thing])),
    );
    expect(retired.size).toBeGreaterThan(30);
    const found = texts.flatMap(([file, text]) =>
      [...text.matchAll(/(?<![\w$'"-])[A-Za-z_$][\w$]*/g)].flatMap(([name]) =>
        retired.has(name) ? [`${file}: ${name}, now ${retired.get(name)}`] : [],
      ),
    );
    expect(found).toEqual([]);
  });

  test('no phrase that was given up is said', () => {
    const retired = entries.flatMap(([thing, { retiredPhrases = [] }]) =>
      retiredPhrases.map((phrase) => ({ phrase, thing })),
    );
    const found = texts.flatMap(([file, text]) =>
      retired.flatMap(({ phrase, thing }) => (text.includes(phrase) ? [`${file}: “${phrase}”, now ${thing}`] : [])),
    );
    expect(found).toEqual([]);
  });

  test('each is explained in a plain sentence, and no two things have one word', () => {
    for (const [thing, { means }] of entries) expect(means, thing).toMatch(/^[A-Z].+\.$/s);
    const words = entries.map(([, { word }]) => word);
    expect(new Set(words).size).toBe(words.length);
  });
});
