import { describe, expect, test } from 'vitest';
import { causesIn, checkDesign, triedOnFailure } from '@/core/design';
import { ProofRun, type Steered, steerCounterexample } from '@/core/proof';
import { type HazardId, hazardOfEvent, hazardsNow, Rehearsal } from '@/core/simulation';
import { isKind, type LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { learningOval } from '@/demo/learning-oval';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { done } from './editing';
import { ofSweep } from './sweep';

/** The failures of a layout with the runs that lead to them and the fixes that their causes name. */
function failuresOf(document: LayoutDocument, mostStates: number) {
  const run = new ProofRun(compileSystem(document), mostStates);
  while (!run.step(5000));
  const { verdicts } = run.result(causesIn(document));
  return verdicts.flatMap(({ property, counterexample, cause }) => {
    if (!counterexample || property === 'deadlock' || !cause) return [];
    const steered = steerCounterexample(run.explorer.model, property, counterexample);
    return [{ property, steered, fixes: cause.fixes }];
  });
}

/** Whether a run comes to a hazard. */
function comesTo(document: LayoutDocument, hazard: HazardId, { seed, ticks, commands }: Steered): boolean {
  const run = new Rehearsal(compileSystem(document), seed);
  let is = false;
  for (let tick = 0; tick < ticks; tick++) {
    for (const { tick: at, command } of commands) if (at === run.tick) run.command(command);
    run.step((event) => {
      is ||= hazardOfEvent(event) === hazard;
    });
    is ||= hazardsNow(run).some(({ id }) => id === hazard);
  }
  return is;
}
const unsafeIn = (document: LayoutDocument) =>
  checkDesign(document)
    .findings.filter(({ severity }) => severity === 'unsafe')
    .map(({ id }) => id);

describe('fixes of failures that are tried before they are offered', () => {
  const whole = learningOval();
  const without = { ...whole, features: whole.features.filter((one) => !(isKind('signal')(one) && one.name === 'S2')) };

  test('a missing signal is placed, and the run that met the failure no longer does', () => {
    const failures = failuresOf(without, 1_000_000);
    expect(failures.length).toBeGreaterThan(0);
    const told = failures.flatMap(({ property, steered, fixes }) =>
      triedOnFailure(without, fixes, property, steered).offered.map((fix) => ({ property, steered, fix })),
    );
    expect(told.some(({ fix }) => fix.says === 'Place a signal at 180 cm on Oval' && fix.mendsRun)).toBe(true);
  });

  test('one that leaves the run as it is, and one that is refused, are not offered', () => {
    const [{ property, steered }] = failuresOf(without, 1_000_000).filter(
      ({ steered: { confirmed } }) => confirmed,
    ) as [ReturnType<typeof failuresOf>[number]];
    expect(comesTo(without, property as HazardId, steered)).toBe(true);
    const { offered, withheld } = triedOnFailure(
      without,
      [
        { says: 'Give it another name', edit: { do: 'rename layout', name: 'Another' } },
        { says: 'Delete what is not there', edit: { do: 'delete', id: 'nothing' } },
      ],
      property,
      steered,
    );
    expect([offered, withheld]).toEqual([[], []]);
  });

  test('whatever is offered of random failing layouts ends the run that failed, and brings nothing unsafe', () => {
    let [offered, mended] = [0, 0];
    for (let seed = 0; seed < ofSweep(80); seed++) {
      const document = randomLayout(seed);
      for (const { property, steered, fixes } of failuresOf(document, 3000))
        for (const fix of triedOnFailure(document, fixes, property, steered).offered) {
          const after = done(document, fix.edit).document;
          expect(unsafeIn(after).filter((id) => !unsafeIn(document).includes(id))).toEqual([]);
          if (fix.mendsRun)
            expect(comesTo(after, property as HazardId, steered), `${document.name}: ${fix.says}`).toBe(false);
          offered += 1;
          if (fix.mendsRun) mended += 1;
        }
    }
    expect(mended).toBeGreaterThan(0);
    expect(offered).toBeGreaterThanOrEqual(mended);
  });
});
