import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from 'vitest';
import { FINDING_KINDS, type FindingKind, STAGE_IDS } from '@/core/findings';
import { STAGES, stageOf } from '@/ui/stages';

const SRC = fileURLToPath(new URL('../../src', import.meta.url));
/** Rooms of the core, top first: each may import only from rooms before it. */
const ROOMS = [
  'measure',
  'reasoning',
  'findings',
  'kinds',
  'survey',
  'roster',
  'walk',
  'track',
  'detection',
  'divide',
  'signals',
  'logic',
  'patterns',
  'locking',
  'system',
  'faults',
  'plant',
  'simulation',
  'proof',
  'design',
];
/** Floors of the interface, top first: each may import only from itself and from floors before it. */
const FLOORS = [
  ['parts'],
  ['state'],
  ['sheet'],
  ['reasoning', 'findings', 'history'],
  ['stages'],
  ['shell', 'layouts'],
];
/** What each storey may import from. */
const STOREYS: Record<string, string[]> = {
  core: ['core'],
  demo: ['core', 'demo'],
  workers: ['core', 'workers'],
  server: ['core', 'server', 'workers'],
  ui: ['core', 'ui', 'workers'],
  app: ['core', 'demo', 'ui', 'server', 'app'],
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

test('within the interface a folder imports only folders above it, and no stage is named outside the stages', () => {
  const floorOf = (file: string) => FLOORS.findIndex((folders) => folders.includes(file.split('/')[1]!));
  const ui = files.filter((file) => file.startsWith('ui/'));
  expect(ui.filter((file) => floorOf(file) < 0)).toEqual([]);
  const wrong = ui.flatMap((file) =>
    imports(file).flatMap((from) => {
      const to = target(file, from);
      if (!to?.startsWith('ui/')) return [];
      const [mine, theirs] = [file.split('/')[1]!, to.split('/')[1]!];
      const inside = mine === theirs;
      const face = theirs !== 'stages' || inside || to === 'ui/stages';
      return face && (inside || floorOf(to) < floorOf(file)) ? [] : [`${file} imports ${to}`];
    }),
  );
  expect(wrong).toEqual([]);
  const named = ui
    .filter((file) => !file.startsWith('ui/stages/'))
    .flatMap((file) => {
      const text = readFileSync(join(SRC, file), 'utf8');
      return STAGES.filter(({ id }) => new RegExp(`stage\\b[^\\n]*'${id}'`, 'i').test(text)).map(
        ({ id }) => `${file} names ${id}`,
      );
    });
  expect(named).toEqual([]);
});

test('every kind of finding is put right in one stage', () => {
  for (const kind of Object.keys(FINDING_KINDS) as FindingKind[]) expect(stageOf(kind), kind).toBeDefined();
  expect(STAGES.map(({ id }) => id)).toEqual(expect.arrayContaining([...STAGE_IDS]));
});

test('whoever comes after the compiled System takes that, and no document', () => {
  const after = files.filter((file) => /^core\/(plant|simulation|proof)\//.test(file));
  expect(after.length).toBeGreaterThan(60);
  expect(after.filter((file) => /\bLayoutDocument\b/.test(readFileSync(join(SRC, file), 'utf8')))).toEqual([]);
});

test('the engine of the proof knows no railway, and nothing of the core knows what writes it for other checkers', () => {
  const engine = files.filter((file) => file.startsWith('core/proof/engine/'));
  expect(engine.length).toBeGreaterThan(4);
  const reaches = (file: string) => imports(file).flatMap((from) => target(file, from) ?? []);
  const known = (to: string) => to.startsWith('core/proof/engine/') || to === 'core/logic';
  expect(engine.flatMap(reaches).filter((to) => !known(to))).toEqual([]);
  const others = files.filter((file) => file.startsWith('core/') && !file.startsWith('core/proof/export/'));
  expect(others.filter((file) => reaches(file).some((to) => to.startsWith('core/proof/export')))).toEqual([]);
});
