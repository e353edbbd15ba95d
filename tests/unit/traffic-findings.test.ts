import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import type { FindingKind } from '@/core/findings';
import { FINDING_KINDS, hazardOfFinding } from '@/core/findings';
import { cm } from '@/core/measure';
import { proofKey } from '@/core/proof';
import { HAZARD_IDS } from '@/core/simulation';
import { applyEdit, type LayoutDocument, newDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { block, gap, signal, train, turnout, vehicle } from '@/demo/build';
import { learningOval, ring, withTrains } from '@/demo/learning-oval';
import { passingLoop } from '@/demo/passing-loop';
import { smallValley } from '@/demo/small-valley';
import { verdictLine } from '@/ui/state/verdict-line';

const found = (d: LayoutDocument, kind: FindingKind) => checkDesign(d).findings.filter((f) => f.kind === kind);

describe('what can be seen without looking at every state', () => {
  test('of a sound layout nothing of it is said', () => {
    const kinds: FindingKind[] = [
      'signal inside clearance',
      'trains in each other’s way at the start',
      'no block to spare on a circuit',
      'braking longer than its warning',
      'overhang over points',
      'train that cannot be placed',
    ];
    for (const d of [learningOval(), smallValley(), passingLoop(['up', 'down'])])
      for (const kind of kinds) expect(found(d, kind), `${kind} in ${d.name}`).toEqual([]);
  });
  test('a signal whose waiting train fouls the other leg, and its remedy', () => {
    const d = newDocument('Inside');
    d.referenceLine = 'main';
    d.lines = [
      { id: 'main', name: 'Main', length: cm(400), drawing: undefined },
      { id: 'leg', name: 'Leg', length: cm(150), drawing: undefined },
    ];
    d.turnouts = [{ ...turnout('T', 'main', 200, 'up', 'left', 'leg'), clearance: cm(30) }];
    d.features = [gap('g1', 'main', 180), gap('g2', 'main', 230), gap('g3', 'leg', 18), signal('X', 'leg', 18, 'down')];
    block(d, 'T', 'main', 190);
    block(d, 'M', 'main', 300);
    block(d, 'L', 'leg', 80);
    const [finding] = found(d, 'signal inside clearance');
    /** It stops at 22 cm, 8 cm inside the clearance point at 30 cm. */
    expect(finding!.says).toContain(
      'X stands inside the clearance point of T: a train that waits there reaches 8 cm into it',
    );
    const [remedy] = finding!.fixes;
    expect(remedy!.edit).toMatchObject({ do: 'move', id: 's-X', at: { tenthUm: cm(30).tenthUm } });
    const mended = applyEdit(d, remedy!.edit);
    expect(mended.ok && found(mended.change.document, 'signal inside clearance')).toEqual([]);
  });
  test('trains in one block, and face to face, at the start', () => {
    const d = learningOval();
    d.trains[1]!.start = { line: 'oval', at: cm(100), facing: 'up' };
    d.vehicles = d.vehicles.map((v) => ({ ...v, length: cm(5), axles: [{ at: cm(2), feeds: 'motor' as const }] }));
    expect(found(d, 'trains in each other’s way at the start')[0]!.says).toBe(
      'Red train and Blue train start in one block, B1.',
    );
    d.trains[1]!.start = { line: 'oval', at: cm(280), facing: 'down' };
    expect(found(d, 'trains in each other’s way at the start')[0]!.says).toContain('face each other at the start');
  });
  test('as many trains as blocks on a circuit', () => {
    const [finding] = found(withTrains(ring('Full', 3, 120), 3, 120), 'no block to spare on a circuit');
    expect(finding!.says).toBe('3 trains on a circuit of 3 blocks: nobody can ever move.');
    expect(found(withTrains(ring('Spare', 4, 120), 3, 120), 'no block to spare on a circuit')).toEqual([]);
  });
  test('a train that needs farther to stop than it is warned: by how much, from the formula', () => {
    const d = withTrains(ring('Twelve', 12, 25), 1, 25);
    d.vehicles = [vehicle('v', 'Railcar', 14, [2, 12], () => true, 100)];
    d.trains = [
      train(
        't',
        'Fast',
        ['v'],
        110,
        { line: 'oval', at: 30, facing: 'up' },
        { up: 60, down: 80, delayMs: 0, is: 'assumed' },
      ),
    ];
    const [finding] = found(d, 'braking longer than its warning');
    /** 110 km/h in 1:87 is 351.21 mm/s, 12 % faster 393.36; 0.04 s of it, v² ÷ 2a, and the 4 cm before the signal; derived. */
    const v = ((110 * 1e6) / 3600 / 87) * 1.12;
    const needs = v * 0.04 + (v * v) / (2 * 80) + 40;
    expect(needs).toBeCloseTo(1022.8, 0);
    expect(finding!.figures[0]!.value).toBe('50 cm');
    expect(Number.parseFloat(finding!.figures[1]!.value)).toBeCloseTo(needs / 10, 1);
  });
  test('the end of a train over points whose block ends close by', () => {
    const d = passingLoop(['up']);
    d.vehicles[0]!.axles = d.vehicles[0]!.axles.map((axle, i) => ({ ...axle, feeds: i < 2 ? 'motor' : 'nothing' }));
    d.features = d.features.map((f) => (f.id === 'ga0' ? { ...f, at: cm(195) } : f));
    expect(found(d, 'overhang over points')[0]!.says).toContain(
      'A0 can move while the end of First railcar still lies over it: its block ends 5 cm',
    );
  });
  test('a train that does not fit on its track', () => {
    const d = smallValley();
    d.trains[0]!.start = { line: 'pd', at: cm(150), facing: 'down' };
    expect(found(d, 'train that cannot be placed')).toHaveLength(1);
  });
});

describe('findings and proof know of each other', () => {
  test('every harm that a finding names is one that the proof looks for', () => {
    const named = (Object.keys(FINDING_KINDS) as FindingKind[])
      .map(hazardOfFinding)
      .filter((hazard) => hazard !== undefined);
    expect(named.length).toBeGreaterThan(5);
    for (const hazard of named) expect(HAZARD_IDS).toContain(hazard);
  });
  test('the verdict line never says more than is so', () => {
    const d = learningOval();
    const report = { verdicts: [{ result: 'holds' }], trains: ['a', 'b'], notPlaced: [], finished: true };
    const keyOf = (layout: LayoutDocument) => proofKey(compileSystem(layout));
    /** As the page tells it once the worker has said what the present layout's key is, or before. */
    const line = (part: object, of = d, known = true) => {
      const proved = { of, at: '14:02', tried: [], report: { ...report, key: keyOf(of), ...part } };
      const design = { document: d, ...(known && { key: keyOf(d) }) };
      return verdictLine({ proved, design, document: d } as unknown as Parameters<typeof verdictLine>[0]).says;
    };
    expect(verdictLine({ document: d }).says).toBe('Not proved yet');
    expect(line({})).toBe('Proved for 2 trains');
    expect(line({ verdicts: [{ result: 'fails' }, { result: 'holds unless' }] })).toBe('1 mishap can happen');
    expect(line({ finished: false, verdicts: [{ result: 'unfinished' }] })).toBe('Proof not finished');
    expect(line({ notPlaced: ['It does not fit.'] })).toBe('1 not on the track');
    expect(line({ trains: [] })).toBe('No train to prove it for');
    expect(line({}, { ...d, notes: 'Another word' })).toBe('Proved for 2 trains');
    expect(line({}, { ...d, trains: [] })).toBe('Not proved since 14:02');
    expect(line({}, { ...d, trains: [] }, false)).toBe('Does the proof still hold? …');
  });
});

test('the two ends of a circuit are one place for a gap', () => {
  const d = ring('Ring', 4, 120);
  const put = (at: number, to = d) => applyEdit(to, { do: 'add cut', kind: 'gap', line: 'oval', at: cm(at) });
  const first = put(0);
  if (!first.ok) throw new Error(first.problem);
  const second = put(480, first.change.document);
  expect(second.ok ? '' : second.problem).toBe(
    'There is already a gap at 0 cm, which is the same place: the two ends meet there.',
  );
  expect(put(470, first.change.document).ok).toBe(true);
});
