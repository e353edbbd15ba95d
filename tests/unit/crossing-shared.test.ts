import { describe, expect, test } from 'vitest';
import { checkDesign, placeProposed, proposeSignals } from '@/core/design';
import { divideEdit, suggestGaps, usualWishes } from '@/core/divide';
import { ProofModel, ProofRun, STANDARD_SWITCHES } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { HAZARD_IDS, replay } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { train, vehicle } from '@/demo/build';
import { type Plan, planned } from '@/demo/plans';
import { spinHazards } from '../../tools/spin';
import { done } from './editing';

/** Two lines that cross, and a train on each that comes to the crossing. */
function crossed(kind: string): LayoutDocument {
  const d = planned({
    name: 'Crossed',
    text: `line a 300\nline b 300\nline a\ncrossing 150 with b 140 ${kind} clear 10 X`,
  } as Plan);
  const [a, b] = d.lines;
  const rates = { up: 90, down: 150, delayMs: 200, is: 'measured' } as const;
  const at = (line: { id: string }) => ({ line: line.id, at: 60, facing: 'up' as const });
  return {
    ...d,
    vehicles: ['v', 'w'].map((id) => vehicle(id, `Railcar ${id}`, 24, [2, 22], () => true, 100)),
    trains: [train('t1', 'One', ['v'], 40, at(a!), rates), train('t2', 'Two', ['w'], 40, at(b!), rates)],
  };
}
const divided = (d: LayoutDocument) => done(d, divideEdit(d, suggestGaps(d, usualWishes(d)), true)).document;
const signalled = (d: LayoutDocument) => done(d, placeProposed(proposeSignals(d).signals)).document;
const grave = (d: LayoutDocument) =>
  checkDesign(d)
    .findings.filter(({ kind, severity }) => severity !== 'note' && kind !== 'track end without a buffer')
    .map(({ says }) => says);

function verdicts(d: LayoutDocument) {
  const run = new ProofRun(compileSystem(d));
  while (!run.step(5000));
  return run.result().verdicts;
}

describe('two lines that cross, and nothing there that moves', () => {
  const d = signalled(divided(crossed('angle 30')));
  test('without gaps nothing can protect them, which is told; gaps alone do not either', () => {
    expect(grave(crossed('angle 30'))).toContainEqual(
      expect.stringMatching(/^X lies in .* which no gap or block mark/),
    );
    expect(grave(divided(crossed('angle 30')))).toEqual([
      expect.stringMatching(/^A train can run onto X without passing a signal, from /),
      expect.stringMatching(/^A train can run onto X without passing a signal, from /),
    ]);
  });
  test('what Detect and Signal propose takes a gap and a signal either side on both lines, and leaves nothing to tell', () => {
    expect(d.features.map(({ kind }) => kind).sort()).toEqual([...Array(4).fill('gap'), ...Array(4).fill('signal')]);
    /** 10 cm are clear of it, and 2 cm of a railcar are not seen. */
    expect(d.features.filter(({ kind }) => kind === 'gap').map(({ at }) => at.tenthUm / 1e5)).toEqual([
      138, 162, 128, 152,
    ]);
    expect(grave(d)).toEqual([]);
    expect(proposeSignals(d).signals).toEqual([]);
    expect(suggestGaps(d, usualWishes(d)).cuts).toEqual([]);
  });
  test('is proved: the way over it is granted to one side at a time; Spin agrees', () => {
    expect(verdicts(d).filter(({ result }) => result !== 'holds')).toEqual([]);
    const on = STANDARD_SWITCHES;
    const holding = HAZARD_IDS.filter((hazard) => hazard !== 'rules never settle');
    const [all] = spinHazards(writePromela(new ProofModel(compileSystem(d), on)), [holding]);
    expect(all).toMatchObject({ errors: 0, complete: true });
  });
  test('no train touches another in any of forty runs', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const told: string[] = [];
      replay(compileSystem(d), seed, 6000, [], ({ event }) => told.push(event.kind));
      expect(told.filter((code) => (HAZARD_IDS as string[]).includes(code))).toEqual([]);
    }
  });
  test('with one signal of them gone the trains touch', () => {
    for (const gone of d.features.filter(({ kind }) => kind === 'signal')) {
      const failing = verdicts({ ...d, features: d.features.filter((one) => one !== gone) });
      const isUp = gone.kind === 'signal' && gone.governs === 'up';
      /** Both stand before it and face up: the others are met only by who has turned back. */
      if (isUp) expect(failing.find(({ property }) => property === 'trains touch')?.result).toBe('fails');
      expect(grave({ ...d, features: d.features.filter((one) => one !== gone) })).not.toEqual([]);
    }
  });
  test('gaps nearer than the unseen end of a train reaches are told, and the proof finds why', () => {
    const near = { ...crossed('angle 30') };
    const cut = done(near, divideEdit(near, suggestGaps(near, { ...usualWishes(near), tail: 0 }), true)).document;
    const short = signalled(cut);
    const tails = grave(short).filter((says) => says.includes('clearance point'));
    expect(tails).toHaveLength(4);
    expect(tails[0]).toMatch(/lies at the clearance point of X, and the (last|first) 2 cm of (One|Two) is not seen/);
    expect(verdicts(short).find(({ property }) => property === 'trains touch')?.result).toBe('fails');
  });
});
