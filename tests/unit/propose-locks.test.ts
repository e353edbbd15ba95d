import { describe, expect, test } from 'vitest';
import { checkDesign, type LockProposal, type LockProposals, proposeLocks } from '@/core/design';
import { isOpen } from '@/core/findings';
import { applyEdit, type Edit, type LayoutDocument } from '@/core/survey';
import { train, vehicle } from '@/demo/build';
import { ondrelValley } from '@/demo/ondrel-valley';
import { planned } from '@/demo/plans';
import { MARKED_LOOP, TRAP } from './locking-plans';

function proposals(d: LayoutDocument): LockProposals & { steps: number[] } {
  const work = proposeLocks(checkDesign(d));
  const steps: number[] = [];
  for (;;) {
    const step = work.next();
    if (step.done) return { ...step.value, steps };
    steps.push(step.value);
  }
}
const edited = (d: LayoutDocument, edit: Edit): LayoutDocument => {
  const done = applyEdit(d, edit);
  if (!done.ok) throw new Error(done.problem);
  return done.change.document;
};
const mends = (d: LayoutDocument, { edit, why, brings }: LockProposal) => {
  const left = checkDesign(edited(d, edit)).findings;
  expect(why.length).toBeGreaterThan(0);
  const known = checkDesign(d).findings.map(({ id }) => id);
  for (const says of why) expect(left.map((one) => one.says)).not.toContain(says);
  expect(left.filter(({ id }) => !known.includes(id)).map((one) => one.says)).toEqual(brings);
};

/** A long train of which only the engine is seen, on a loop with a spot at every far end. */
function longTrain(): LayoutDocument {
  const d = planned({ name: 'Loop', text: MARKED_LOOP });
  const cars = ['v0', 'v1', 'v2'];
  d.vehicles = [
    vehicle('ve', 'Engine', 20, [4, 16], () => true, 300),
    ...cars.map((id) => vehicle(id, id, 20, [4, 16], () => false, 80, 'coach')),
  ];
  const rates = { up: 100, down: 150, delayMs: 300, is: 'assumed' } as const;
  d.trains = [train('tr', 'Night mail', ['ve', ...cars], 40, { line: d.lines[0]!.id, at: 95, facing: 'up' }, rates)];
  return d;
}

describe('what suits each turnout', () => {
  test('points that guard, where nobody asks it of them; nothing for the others', () => {
    const d = planned({ name: 'Trap', text: TRAP });
    const { proposals: found, all, points } = proposals(d);
    expect(found.map((one) => one.says)).toEqual(['Let T2 guard the routes beside them']);
    expect(all).toBeUndefined();
    mends(d, found[0]!);
    const open = Object.fromEntries(points.map((one) => [one.name, one.open.length]));
    expect(open).toEqual({ T1: 1, T2: 1, T3: 0 });
  });
  test('locks until arrival where cars that nothing sees can stand over points, with what that mends', () => {
    const d = longTrain();
    const { proposals: found, all, steps } = proposals(d);
    expect(found.map((one) => one.says)).toEqual([
      'Keep T1 locked until trains have arrived',
      'Keep T2 locked until trains have arrived',
    ]);
    for (const one of found) mends(d, one);
    mends(d, all!);
    /** That the middle of the train can stand over both goes only once both are held. */
    expect(all!.why.length).toBe(found.reduce((sum, { why }) => sum + why.length, 1));
    expect(steps).toEqual([...steps].sort((a, b) => a - b));
    expect(steps.at(-1)!).toBeLessThanOrEqual(1);
    /** Once it is done nothing more is proposed. */
    expect(proposals(edited(d, all!.edit)).proposals).toEqual([]);
  });
  test('nothing that mends nothing: a layout without a finding of locks gets none, and each says what holds it', () => {
    const d = ondrelValley();
    const { proposals: found, points } = proposals(d);
    expect(found).toEqual([]);
    /** The turnouts, and a slip. */
    expect(points.length).toBe(d.turnouts.length + 1);
    expect(points.every(({ while: held }) => held.length > 0)).toBe(true);
    expect(checkDesign(d).findings.filter((one) => isOpen(one) && one.kind === 'overhang over points')).toEqual([]);
  });
  test('what somebody has accepted is not mended once more', () => {
    const d = planned({ name: 'Trap', text: TRAP });
    const { id, severity, says } = checkDesign(d).findings.find(
      ({ kind }) => kind === 'side of a route that nothing guards',
    )!;
    expect(proposals(edited(d, { do: 'accept', finding: id, severity, says, why: 'Level' })).proposals).toEqual([]);
  });
});
