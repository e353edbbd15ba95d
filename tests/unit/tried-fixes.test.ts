import { describe, expect, test } from 'vitest';
import { checkDesign, sayTogether, triedFixes } from '@/core/design';
import type { Finding } from '@/core/findings';
import { applyChange, applyEdit, type Edit, type LayoutDocument } from '@/core/survey';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { ondrelValley } from '@/demo/ondrel-valley';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { randomPoints } from '../../tools/fuzz/random-points';
import { done } from './editing';
import { ofSweep } from './sweep';

const GRAVEST = ['note', 'check', 'unsafe'];
const isAsGrave = (one: Finding<Edit>, as: Finding<Edit>) =>
  GRAVEST.indexOf(one.severity) >= GRAVEST.indexOf(as.severity);
const findingsOf = (document: LayoutDocument) => checkDesign(document).findings;
const LAYOUTS = [
  ondrelValley(),
  ...EXAMPLES.map(exampleLayout),
  ...Array.from({ length: ofSweep(120) }, (_, seed) => randomPoints(seed)),
  ...Array.from({ length: ofSweep(180) }, (_, seed) => randomLayout(seed)),
];

describe('fixes that are tried before they are offered', () => {
  test('each that is offered mends what it is for, brings nothing as grave, and tells whatever else it brings', () => {
    let [offered, joined, withheld] = [0, 0, 0];
    for (const document of LAYOUTS) {
      const before = findingsOf(document);
      for (const finding of before) {
        const tried = triedFixes(document, before, finding);
        withheld += tried.withheld.length;
        for (const fix of tried.offered) {
          const after = findingsOf(done(document, fix.edit).document);
          const fresh = after.filter(({ id }) => !before.some((one) => one.id === id));
          expect(after.map(({ id }) => id)).not.toContain(finding.id);
          expect(fresh.filter((one) => isAsGrave(one, finding))).toEqual([]);
          expect(fix.brings).toEqual(fresh.map(({ says }) => says));
          offered += 1;
          if (fix.edit.do === 'one after another') joined += 1;
        }
      }
    }
    /** The law says something of all three. */
    expect(Math.min(offered, joined, withheld)).toBeGreaterThan(2);
  });

  test('taken one after the other they come to an end, and no unsafe finding comes that was not there', () => {
    for (const begun of LAYOUTS) {
      let document = begun;
      let findings = findingsOf(document);
      const unsafe = new Set(findings.filter(({ severity }) => severity === 'unsafe').map(({ id }) => id));
      let [allowed, steps] = [findings.length, 0];
      for (;;) {
        const fix = findings.flatMap((finding) => triedFixes(document, findings, finding).offered.slice(0, 1))[0];
        if (!fix) break;
        document = done(document, fix.edit).document;
        findings = findingsOf(document);
        allowed += fix.brings.length;
        steps += 1;
        expect(findings.filter(({ id, severity }) => severity === 'unsafe' && !unsafe.has(id))).toEqual([]);
        expect(steps, begun.name).toBeLessThanOrEqual(allowed);
      }
    }
  });

  test('one that mends and brings something as grave is told, with what it brings', () => {
    const told = LAYOUTS.flatMap((document) => {
      const findings = findingsOf(document);
      return findings.flatMap((finding) =>
        triedFixes(document, findings, finding).withheld.map((fix) => ({ finding, fix, document })),
      );
    });
    for (const { finding, fix, document } of told) {
      const after = findingsOf(done(document, fix.edit).document);
      expect(after.some(({ id }) => id === finding.id)).toBe(false);
      for (const says of fix.brings)
        expect(after.filter((one) => isAsGrave(one, finding)).map((one) => one.says)).toContain(says);
    }
    expect(told.length).toBeGreaterThan(0);
  });
});

describe('several edits as one step', () => {
  const document = ondrelValley();
  const line = document.lines[0]!.id;
  const at = (mm: number) => ({ tenthUm: mm * 10_000, typed: `${mm} mm` });
  const cut = (mm: number): Extract<Edit, { do: 'add cut' }> => ({ do: 'add cut', kind: 'gap', line, at: at(mm) });

  test('each sees what those before it did, and all of it is taken back, and done again, as one', () => {
    const says = 'Cut two gaps';
    const change = done(document, { do: 'one after another', edits: [cut(111), cut(113)], says });
    expect(change.says).toBe(says);
    const fresh = change.document.features.slice(document.features.length);
    expect(fresh.map(({ at: { tenthUm } }) => tenthUm)).toEqual([1_110_000, 1_130_000]);
    expect(new Set(change.document.features.map(({ id }) => id)).size).toBe(change.document.features.length);
    expect(applyChange(change.document, change.inverse)).toEqual(document);
    expect(applyChange(document, change.patches)).toEqual(change.document);
  });
  test('where one is refused nothing is done, and its reason is told', () => {
    const result = applyEdit(document, {
      do: 'one after another',
      edits: [cut(111), cut(111)],
      says: 'Cut one gap twice',
    });
    expect(result).toMatchObject({ ok: false, problem: expect.stringMatching(/already a gap/) });
  });
});

describe('several fixes in one sentence', () => {
  test.each([
    [['Place a buffer at 0 cm', 'Place a buffer at 260 cm'], 'Place a buffer at 0 cm and 260 cm'],
    [
      ['Place a signal at 9 cm on a', 'Place a signal at 8 cm on b', 'Place a signal at 7 cm on c'],
      'Place a signal at 9 cm on a, 8 cm on b and 7 cm on c',
    ],
    [['Cut a gap at 4 cm', 'Place a signal there'], 'Cut a gap at 4 cm, and place a signal there'],
  ])('%j', (says, together) => {
    expect(sayTogether(says)).toBe(together);
  });
});
