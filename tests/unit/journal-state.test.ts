import { describe, expect, test } from 'vitest';
import { DOCUMENT_VERSION, type LayoutDocument } from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { broughtUp } from '@/ui/state/journal-state';
import { asVersion1, asVersion2 } from './older-documents';

const step = { patches: [], inverse: [], says: 'Add detector D1' };
const kept = (document: unknown, base: unknown, unsaved: boolean) => ({
  document: document as LayoutDocument,
  base: base as LayoutDocument,
  revision: 4,
  unsaved,
  past: [step],
  future: [],
});

describe('what a browser kept before the document had its present version', () => {
  test.each([
    ['1', asVersion1],
    ['2', asVersion2],
  ] as const)('version %s: an unsaved edit is kept, the way back through older edits is not', (_, older) => {
    const edited = { ...learningOval(), name: 'Edited' };
    const now = broughtUp(kept(older(edited), older(learningOval()), true))!;
    expect([now.document.version, now.base.version]).toEqual([DOCUMENT_VERSION, DOCUMENT_VERSION]);
    expect([now.document.name, now.base.name, now.unsaved, now.revision]).toEqual([
      'Edited',
      learningOval().name,
      true,
      4,
    ]);
    expect(now.document.sensors).toHaveLength(learningOval().sensors.length);
    expect([now.past, now.future]).toEqual([[], []]);
  });
  test('with nothing unsaved it is as the server has it', () => {
    const now = broughtUp(kept(asVersion2(learningOval()), asVersion2(learningOval()), false))!;
    expect(now.base).toBe(now.document);
  });
  test('of the present version it stays as it is', () => {
    const present = kept(learningOval(), learningOval(), true);
    expect(broughtUp(present)).toBe(present);
  });
  test('what cannot be read is left out', () =>
    expect(broughtUp(kept({ version: 2, detectors: 'none' }, asVersion2(learningOval()), true))).toBeUndefined());
});
