import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from 'vitest';

const SRC = fileURLToPath(new URL('../../src', import.meta.url));
/** Rooms of the core, top first: each may import only from rooms before it. */
const ROOMS = [
  'measure',
  'reasoning',
  'findings',
  'kinds',
  'survey',
  'track',
  'detection',
  'signals',
  'logic',
  'patterns',
  'plant',
  'simulation',
  'proof',
  'design',
];
/** What each storey may import from. */
const STOREYS: Record<string, string[]> = {
  core: ['core'],
  demo: ['core', 'demo'],
  workers: ['core', 'workers'],
  server: ['core', 'server'],
  ui: ['core', 'ui', 'workers'],
  app: ['core', 'ui', 'server', 'app'],
};
const FORBIDDEN_IN_CORE = /^(react|next|mysql2|d3|node:|zustand|comlink|radix-ui)/;

const files = readdirSync(SRC, { recursive: true, encoding: 'utf8' }).filter(
  (f) => /\.tsx?$/.test(f) && f.includes('/'),
);
const imports = (file: string) =>
  [...readFileSync(join(SRC, file), 'utf8').matchAll(/(?:from|import)\s+'([^']+)'/g)].map((m) => m[1]!);
const target = (file: string, from: string) =>
  from.startsWith('@/') ? from.slice(2) : from.startsWith('.') ? relative(SRC, join(SRC, file, '..', from)) : undefined;

test('imports point down: app -> ui -> core, app -> server -> core', () => {
  expect(files.length).toBeGreaterThan(60);
  const wrong = files.flatMap((file) =>
    imports(file).flatMap((from) => {
      const to = target(file, from);
      if (to === undefined)
        return file.startsWith('core/') && FORBIDDEN_IN_CORE.test(from) ? [`${file} imports ${from}`] : [];
      return STOREYS[file.split('/')[0]!]!.includes(to.split('/')[0]!) ? [] : [`${file} imports ${to}`];
    }),
  );
  expect(wrong).toEqual([]);
});

test('within the core a room imports only rooms above it, and by their public face', () => {
  const wrong = files
    .filter((file) => file.startsWith('core/'))
    .flatMap((file) =>
      imports(file).flatMap((from) => {
        const to = target(file, from);
        if (to === undefined) return [];
        const [mine, theirs] = [file.split('/')[1]!, to.split('/')[1]!];
        if (mine === theirs) return [];
        const down = ROOMS.indexOf(theirs) < ROOMS.indexOf(mine) && ROOMS.includes(mine);
        const face = to.split('/').length === 2;
        return down && face ? [] : [`${file} imports ${to}`];
      }),
    );
  expect(wrong).toEqual([]);
});
