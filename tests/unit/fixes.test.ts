import { describe, expect, test } from 'vitest';
import { causesIn, checkDesign } from '@/core/design';
import type { FindingKind } from '@/core/findings';
import { cm } from '@/core/measure';
import { ProofRun } from '@/core/proof';
import { applyEdit, type LayoutDocument, newDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { learningOval, ring, withTrains } from '@/demo/learning-oval';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { ofSweep } from './sweep';

/** A layout after an edit that must be possible. */
function edited(document: LayoutDocument, edit: Parameters<typeof applyEdit>[1]): LayoutDocument {
  const result = applyEdit(document, edit);
  if (!result.ok) throw new Error(`${JSON.stringify(edit)}: ${result.problem}`);
  return result.change.document;
}
const idsOf = (d: LayoutDocument) => checkDesign(d).findings.map(({ id }) => id);

describe('what a finding offers mends it', () => {
  test('on random layouts each remedy is a possible edit, and with it, or with all of them, the finding is gone', () => {
    const mended = new Set<FindingKind>();
    for (let seed = 90_000; seed < 90_150; seed++) {
      const document = randomLayout(seed);
      for (const { id, kind, fixes } of checkDesign(document).findings) {
        if (fixes.length === 0) continue;
        const alone = fixes.every(({ edit }) => !idsOf(edited(document, edit)).includes(id));
        const all = () => fixes.reduce((d, { edit }) => edited(d, edit), document);
        if (!alone) expect(idsOf(all()), `layout ${seed}, ${id}`).not.toContain(id);
        mended.add(kind);
      }
    }
    expect(mended.size).toBeGreaterThan(8);
  });
  test('a track that ends without a buffer gets one at each end', () => {
    const d = edited(newDocument('Ends'), { do: 'add line', name: 'Main', length: cm(300), circuit: false });
    const [finding] = checkDesign(d).findings.filter(({ kind }) => kind === 'track end without a buffer');
    expect(finding!.says).toBe('Main ends at 0 cm and at 300 cm with no buffer: nothing holds a train there.');
    const one = edited(d, finding!.fixes[1]!.edit);
    expect(checkDesign(one).findings.find(({ id }) => id === finding!.id)!.says).toContain(
      'ends at 0 cm with no buffer',
    );
    expect(applyEdit(one, finding!.fixes[1]!.edit)).toEqual({
      ok: false,
      problem: 'There is already a buffer at 300 cm.',
    });
  });
});

describe('what a proof offers is possible, and mends what it can', () => {
  const prove = (document: LayoutDocument) => {
    const run = new ProofRun(compileSystem(document), 60_000);
    while (!run.step(5000));
    return run.result(causesIn(document));
  };
  test('on random layouts every remedy of every failure is a possible edit', () => {
    const offered = new Map<string, number>();
    for (let seed = 91_000; seed < 91_000 + ofSweep(70); seed++) {
      const document = randomLayout(seed);
      for (const { property, cause } of prove(document).verdicts)
        for (const { edit } of cause?.fixes ?? []) {
          edited(document, edit);
          offered.set(property, (offered.get(property) ?? 0) + 1);
        }
    }
    expect(offered.get('two trains in a block')).toBeGreaterThan(ofSweep(5) - 1);
    expect(offered.size).toBeGreaterThan(ofSweep(2));
  });
  test('a full circuit: with one train taken off, nothing fails', () => {
    const full = withTrains(ring('Full', 3, 120), 3, 120);
    const { cause } = prove(full).verdicts.find(({ property }) => property === 'deadlock')!;
    expect(cause!.fixes.map(({ says }) => says)).toHaveLength(3);
    expect(prove(edited(full, cause!.fixes[0]!.edit)).verdicts.every(({ result }) => result === 'holds')).toBe(true);
  });
  test('coaches that no detector sees: with resistor axles, nothing fails', () => {
    const d = learningOval();
    d.vehicles = d.vehicles.map((v) =>
      v.kind === 'coach' ? { ...v, axles: v.axles.map((axle) => ({ ...axle, feeds: 'nothing' as const })) } : v,
    );
    const failing = (of: LayoutDocument) => prove(of).verdicts.filter(({ result }) => result === 'fails');
    expect(failing(d).length).toBeGreaterThan(0);
    /** Each fits the coaches of one train. */
    const fitted = d.trains.reduce((of) => {
      const fixes = failing(of).flatMap(({ cause }) => cause!.fixes);
      return edited(of, fixes.find(({ edit }) => edit.do === 'fit resistor axles')!.edit);
    }, d);
    expect(failing(fitted)).toEqual([]);
  });
});
