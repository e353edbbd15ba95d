import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { ProofRun, proofKey, STANDARD_SWITCHES, type Switch } from '@/core/proof';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { findingsNow, isDisproved } from '@/ui/state/findings-now';
import type { Proved } from '@/ui/state/verdict-line';
import { randomLayout } from '../../tools/fuzz/random-layout';

function seenWith(document: LayoutDocument, tried: Switch[] = [...STANDARD_SWITCHES]) {
  const system = compileSystem(document);
  const run = new ProofRun(system, 200_000, new Set(tried));
  while (!run.step(5000));
  const report = { ...run.result(), steered: {} } as unknown as Proved['report'];
  const { findings } = checkDesign(document);
  return {
    document,
    proved: { of: document, at: '12:00', tried, report },
    design: { document, key: proofKey(system), findings },
  };
}

describe('findings beside the proof of the same layout', () => {
  /** Its gap stands at the clearance point, and a train that turns there never stands so. */
  const d = randomLayout(18);
  const KIND = 'unseen tail at clearance';
  const grave = (seen: Parameters<typeof findingsNow>[0]) =>
    findingsNow(seen)
      .filter(({ kind }) => kind === KIND)
      .map(({ severity }) => severity);
  test('one whose mishap the proof has looked for in every state, and not come to, is a note', () => {
    const seen = seenWith(d);
    expect(seen.proved.report.verdicts.find(({ property }) => property === 'trains touch')!.result).toBe('holds');
    expect(seen.design.findings.find(({ kind }) => kind === KIND)!.severity).toBe('unsafe');
    expect(grave(seen)).toEqual(['note']);
    expect(findingsNow(seen)).toBe(findingsNow(seen));
  });
  test('not without a proof, by one of another layout, with less tried, or with a train that was not in it', () => {
    const seen = seenWith(d);
    expect(grave({ ...seen, proved: undefined })).toEqual(['unsafe']);
    const other = { ...seen.proved, of: { ...d, name: 'Other' }, report: { ...seen.proved.report, key: 'other' } };
    expect(grave({ ...seen, proved: other })).toEqual(['unsafe']);
    expect(grave(seenWith(d, [...STANDARD_SWITCHES].slice(1)))).toEqual(['unsafe']);
    const fewer = { ...seen.proved, report: { ...seen.proved.report, trains: [] } };
    expect(grave({ ...seen, proved: fewer })).toEqual(['unsafe']);
    const absent = { ...seen.proved, report: { ...seen.proved.report, notPlaced: ['Train 0'] } };
    expect(grave({ ...seen, proved: absent })).toEqual(['unsafe']);
  });
  test('of a finding that says nothing of a mishap a proof says nothing', () => {
    const seen = seenWith(d);
    for (const finding of seen.design.findings)
      if (finding.kind === 'track end without a buffer') expect(isDisproved(seen, finding)).toBe(false);
  });
});
