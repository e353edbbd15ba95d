import { describe, expect, test } from 'vitest';
import { checkDesign, viewPoints } from '@/core/design';
import { ProofModel, ProofRun, type Switch } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { Rehearsal } from '@/core/simulation';
import { applyEdit, type Edit, type LayoutDocument, migrateDocument, signalsOf, type ThrowRule } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { spinHazards } from '../../tools/spin';
import { railcarsOnLoop } from './locking-plans';

const done = (d: LayoutDocument, edit: Edit): LayoutDocument => {
  const result = applyEdit(d, edit);
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
};
const refused = (d: LayoutDocument, edit: Edit) => {
  const result = applyEdit(d, edit);
  return result.ok ? undefined : result.problem;
};
const ids = (d: LayoutDocument): Record<string, string> =>
  Object.fromEntries(compileSystem(d).partition.blocks.map(({ id, name }) => [name, id]));
function add(
  d: LayoutDocument,
  rule: Partial<ThrowRule> & { into: string; fromBlock?: string; freeBlocks?: string[] },
) {
  const { into, fromBlock, freeBlocks = [], ...rest } = rule;
  const id = ids(d);
  const motor = d.turnouts.find(({ name }) => name === 'T1')!.id;
  return {
    do: 'add throw rule' as const,
    rule: {
      motor,
      position: 'diverging' as const,
      comesInto: id[into]!,
      from: fromBlock === undefined ? undefined : id[fromBlock]!,
      free: freeBlocks.map((one) => id[one]!),
      unlocked: undefined,
      ...rest,
    },
  };
}
/** A railcar that runs from W over T1 by the straight road, and what becomes of T1 as it comes into P. */
function runs(d: LayoutDocument, ticks: number) {
  const run = new Rehearsal(compileSystem(d), 1);
  const seen: string[] = [];
  for (let i = 0; i < ticks; i++) {
    run.step();
    const lies = run.plant.motors[0]!.position;
    if (seen.at(-1) !== lies) seen.push(lies);
  }
  return { run, seen };
}

describe('when a train comes into a block, from another, while some are free, points are thrown', () => {
  const d = railcarsOnLoop(1);
  test('once the locks let them: under the train they wait, and are thrown when it has gone', () => {
    const ruled = done(d, add(d, { into: 'P', fromBlock: 'W' }));
    const { run, seen } = runs(ruled, 250);
    /** The train is over T1: the rule is remembered and T1 refuses. */
    expect([seen, run.controller.isLocked(0)]).toEqual([['straight'], true]);
    expect(runs(ruled, 1500).seen).toEqual(['straight', 'between', 'diverging']);
    expect(runs(d, 1500).seen).toEqual(['straight']);
  });
  test('not from elsewhere, and not while a block is taken that is to be free', () => {
    expect(runs(done(d, add(d, { into: 'P', fromBlock: 'M' })), 1500).seen).toEqual(['straight']);
    const two = railcarsOnLoop(2);
    expect(runs(done(two, add(two, { into: 'P', fromBlock: 'W', freeBlocks: ['L'] })), 1500).seen).toEqual(
      runs(done(two, add(two, { into: 'P', fromBlock: 'W' })), 1500).seen,
    );
    expect(runs(done(two, add(two, { into: 'P', fromBlock: 'W', freeBlocks: ['E'] })), 1500).seen).toEqual([
      'straight',
    ]);
  });
  test('not while throw rules of that turnout are switched off', () => {
    const ruled = done(d, add(d, { into: 'P' }));
    const run = new Rehearsal(compileSystem(ruled), 1);
    run.command({ kind: 'switch automatic', thing: ruled.turnouts[0]!.id, what: 'rules', on: false });
    for (let i = 0; i < 1500; i++) run.step();
    expect(run.plant.motors[0]!.position).toBe('straight');
  });
  test('it is told in words, on the turnout and in what throws it', () => {
    const ruled = done(d, add(d, { into: 'P', fromBlock: 'W', freeBlocks: ['L', 'M'] }));
    const view = viewPoints(checkDesign(ruled), ruled.turnouts[0]!.id)!;
    expect(view.throwRules.map(({ says }) => says)).toEqual([
      'When a train comes into P from W and L and M are free, set T1 diverging.',
    ]);
    expect(view.motors[0]!.thrown).toEqual({
      straight: [],
      diverging: ['T1 is to lie diverging, since a train came into P from W while L and M were free'],
    });
  });
});

describe('proved', () => {
  const on = new Set<Switch>(['automatic']);
  const fails = (d: LayoutDocument) => {
    const run = new ProofRun(compileSystem(d), 400_000, on);
    while (!run.step(5000));
    const { finished, verdicts } = run.result();
    return [finished, verdicts.filter(({ result }) => result === 'fails').map(({ property }) => property)];
  };
  const d = railcarsOnLoop(1);
  test('behind its locks it does no harm; whatever locks it, points are thrown before the train that comes', () => {
    expect(fails(done(d, add(d, { into: 'P' })))).toEqual([true, []]);
    const [finished, failing] = fails(done(d, add(d, { into: 'P', unlocked: true })));
    expect(finished).toBe(true);
    expect(failing).toEqual(['points set wrong']);
  });
  test('Spin agrees', { timeout: 300_000 }, () => {
    for (const [unlocked, errors] of [
      [undefined, 0],
      [true, 1],
    ] as const) {
      const model = new ProofModel(compileSystem(done(d, add(d, { into: 'P', unlocked }))), on);
      const [look] = spinHazards(writePromela(model), [['points set wrong']]);
      expect(look!.errors).toBe(errors);
    }
  });
});

describe('what cannot be', () => {
  const d = railcarsOnLoop(1);
  const told = (some: LayoutDocument) =>
    checkDesign(some)
      .findings.filter(({ id }) => /^(throw|unlocked) /.test(id))
      .map(({ severity, says }) => `${severity}: ${says}`);
  test('is refused by name', () => {
    expect(refused(d, add(d, { into: 'P', fromBlock: 'P' }))).toMatch(/comes into a block from another one/);
    expect(refused(d, add(d, { into: 'P', freeBlocks: ['P'] }))).toMatch(/is not free/);
    const ruled = done(d, add(d, { into: 'P' }));
    expect(refused(ruled, add(ruled, { into: 'P' }))).toMatch(/such a rule already/);
  });
  test('is told: what is gone, a hand, a pattern that asks all the time, no lock', () => {
    const ruled = done(d, add(d, { into: 'P' }));
    expect(told(ruled)).toEqual([]);
    const byHand = structuredClone(ruled);
    byHand.turnouts[0]!.motor = 'hand';
    expect(told(byHand)[0]).toMatch(/^check: .*a hand throws T1/);
    const gone = structuredClone(ruled);
    gone.throwRules[0]!.comesInto = 'b99';
    expect(told(gone)[0]).toMatch(/a block that is gone.*does nothing: a block that it names is gone/);
    const turns = structuredClone(ruled);
    turns.turnouts[0]!.patterns = ['takes turns'];
    expect(told(turns)[0]).toMatch(/works by “takes turns”/);
    expect(told(done(d, add(d, { into: 'P', unlocked: true })))[0]).toMatch(/^unsafe: .*even under a train/);
  });
  test('goes with its turnout, and older documents have none', () => {
    const ruled = done(d, add(d, { into: 'P' }));
    for (const signal of signalsOf(ruled)) expect(signal.patterns).toBeUndefined();
    const bare = { ...ruled, features: ruled.features.filter(({ line }) => line === ruled.lines[0]!.id) };
    const without = done(
      {
        ...bare,
        sensors: bare.sensors.filter(({ anchor }) => anchor.line === ruled.lines[0]!.id),
        blocks: bare.blocks.filter(({ anchor }) => anchor.line === ruled.lines[0]!.id),
        trains: [],
      },
      { do: 'delete', id: ruled.turnouts[0]!.id },
    );
    expect(without.throwRules).toEqual([]);
    const { throwRules: _, ...older } = structuredClone(ruled) as LayoutDocument & Record<string, unknown>;
    expect(migrateDocument({ ...older, version: 8 }).throwRules).toEqual([]);
  });
});
