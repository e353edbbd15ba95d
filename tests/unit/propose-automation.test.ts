import { describe, expect, test } from 'vitest';
import { type AutomationProposals, checkDesign, proposeAutomation } from '@/core/design';
import { hazardOfEvent, Rehearsal } from '@/core/simulation';
import { applyEdit, type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';

/** An example without what it works by. */
function bare(id: string): LayoutDocument {
  const d = exampleLayout(EXAMPLES.find((one) => one.id === id)!);
  for (const thing of [...signalsOf(d), ...d.turnouts]) thing.patterns = undefined;
  return d;
}
function proposed(d: LayoutDocument): AutomationProposals {
  const work = proposeAutomation(checkDesign(d));
  let step = work.next();
  while (!step.done) step = work.next();
  return step.value;
}
/** So many metres each train runs in ten minutes, and whether anything happens. */
function ran(d: LayoutDocument): { metres: number[]; mishaps: number } {
  const run = new Rehearsal(compileSystem(d), 9);
  const metres = d.trains.map(() => 0);
  let mishaps = 0;
  for (let i = 0; i < 50 * 600; i++) {
    run.step((event) => {
      if (hazardOfEvent(event)) mishaps += 1;
    });
    run.plant.trains.forEach(({ speed }, t) => {
      metres[t]! += speed / 50_000;
    });
  }
  return { metres, mishaps };
}

describe('what could work by itself is tried before it is proposed', () => {
  const d = bare('turns');
  const { proposals, now } = proposed(d);
  test('where one of two trains stands for ever, siding, block and loop are proposed, and each does what it says', () => {
    expect(now).toMatch(/^1 of 2 trains run on/);
    const points = new Set(proposals.map((one) => one.points.name));
    expect(points).toEqual(new Set(['T1', 'T2']));
    expect(ran(d).metres.filter((metres) => metres > 40)).toHaveLength(1);
    for (const { edit, why } of proposals) {
      const done = applyEdit(d, edit);
      if (!done.ok) throw new Error(done.problem);
      const { metres, mishaps } = ran(done.change.document);
      expect(why).toMatch(/^2 of 2 trains run on/);
      expect(mishaps).toBe(0);
      for (const each of metres) expect(each).toBeGreaterThan(20);
    }
  });
  test('none is proposed that brings more to see to, or where all run as well as they can', () => {
    expect(proposals.flatMap(({ brings }) => brings)).toEqual([]);
    const all = proposed(exampleLayout(EXAMPLES.find(({ id }) => id === 'circuits')!));
    expect([all.now.slice(0, 18), all.proposals]).toEqual(['2 of 2 trains run ', []]);
    expect(proposed(bare('ladder')).proposals).toEqual([]);
  });
});
