import { describe, expect, test } from 'vitest';
import { checkDesign, viewPoints, viewSignal } from '@/core/design';
import { Rehearsal, sayEvent } from '@/core/simulation';
import { applyEdit, type Edit, type LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { passingLoop } from '@/demo/passing-loop';
import { randomPoints } from '../../tools/fuzz/random-points';

const edited = (d: LayoutDocument, edit: Edit): LayoutDocument => {
  const result = applyEdit(d, edit);
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
};
/** The turnouts of a passing loop without trains, so that nothing locks them. */
function free(together: boolean): Rehearsal {
  const d = { ...passingLoop(['up']), trains: [] };
  if (together) d.turnouts = d.turnouts.map((one, i) => (i === 1 ? { ...one, throwsWith: d.turnouts[0]!.id } : one));
  const run = new Rehearsal(compileSystem(d), 1);
  for (let i = 0; i < 1000; i++) run.step();
  return run;
}
const told = (run: Rehearsal, ticks = 200): string[] => {
  const says: string[] = [];
  for (let i = 0; i < ticks; i++)
    run.step((event) => {
      if (event.kind === 'refused') says.push(sayEvent(run, event)!);
    });
  return says;
};
const lies = (run: Rehearsal) => run.plant.motors.map(({ position }) => position);
const ask = (run: Rehearsal, motor: number, to: 'straight' | 'diverging') =>
  run.command({ kind: 'throw', turnout: run.motors[motor]!.id, to });

describe('opposite requests for one motor in one scan', () => {
  test.each([
    ['straight', 'diverging'],
    ['diverging', 'straight'],
  ] as const)('%s, then %s: it stays where it is, and that is said, from either side', (first, then) => {
    for (const start of ['straight', 'diverging'] as const) {
      const run = free(false);
      ask(run, 0, start);
      told(run);
      expect(lies(run)[0]).toBe(start);
      ask(run, 0, first);
      ask(run, 0, then);
      expect(told(run)).toEqual([`${run.motors[0]!.name} stays where it is: it is asked to lie both ways at once`]);
      expect(lies(run)[0]).toBe(start);
    }
  });
  test('of turnouts that throw together neither moves when one is asked to lie one way and the other the other way', () => {
    const run = free(true);
    const before = lies(run);
    ask(run, 0, 'diverging');
    ask(run, 1, 'straight');
    const says = told(run);
    expect(says.length).toBeGreaterThan(0);
    for (const one of says) expect(one).toMatch(/both ways at once/);
    expect(lies(run)).toEqual(before);
    ask(run, 1, 'diverging');
    expect(told(run)).toEqual([]);
    expect(lies(run)).toEqual(['diverging', 'diverging']);
  });
});

describe('the time for which points stay locked is theirs', () => {
  const cleared = (d: LayoutDocument, motor: string) => {
    const { program } = compileSystem(d);
    const rule = program.declarations.find(({ name }) => name === `cleared.${motor}`)!.expr!;
    return 'ms' in rule ? rule.ms : undefined;
  };
  test('set at one, usual at the others, within its bounds, and had back', () => {
    const d = passingLoop(['up', 'down']);
    const [one, other] = d.turnouts.map(({ id }) => id) as [string, string];
    const usual = cleared(d, one)!;
    const set = (value?: number) =>
      edited(d, { do: 'set option', id: one, pattern: 'route locking', option: 'releaseMs', value });
    expect([cleared(set(12_300), one), cleared(set(12_300), other)]).toEqual([12_300, usual]);
    expect(cleared(set(3_000_000), one)).toBe(600_000);
    expect(
      cleared(edited(set(12_300), { do: 'set option', id: one, pattern: 'route locking', option: 'releaseMs' }), one),
    ).toBe(usual);
    expect(viewPoints(checkDesign(set(12_300)), one)!.options).toMatchObject([{ usual, set: 12_300 }]);
  });
  test('a slip has one as well, and a signal onto a single line holds it for a time of its own', () => {
    const d = passingLoop(['up', 'down']);
    const design = checkDesign(d);
    const onto = design.scheme.readings.filter(({ index }) =>
      design.scheme.routesOf[index]!.some(({ directions }) => directions.length > 0),
    );
    expect(onto.length).toBeGreaterThan(0);
    for (const { signal, index } of design.scheme.readings)
      expect(viewSignal(design, signal.id)!.options.length).toBe(onto.some((one) => one.index === index) ? 1 : 0);
    const longer = edited(d, {
      do: 'set option',
      id: onto[0]!.signal.id,
      pattern: 'traffic direction',
      option: 'releaseMs',
      value: 99_000,
    });
    const times = (document: LayoutDocument) =>
      compileSystem(document).program.declarations.flatMap(({ name, expr }) =>
        name.startsWith('quiet.') && expr && 'ms' in expr ? [expr.ms] : [],
      );
    expect(times(longer).filter((ms) => ms === 99_000).length).toBeGreaterThan(0);
    expect(times(d)).not.toContain(99_000);
    const slip = Array.from({ length: 30 }, (_, seed) => randomPoints(seed)).find(
      ({ crossings }) => crossings.length > 0,
    )!;
    const set = edited(slip, {
      do: 'set option',
      id: slip.crossings[0]!.id,
      pattern: 'route locking',
      option: 'releaseMs',
      value: 7700,
    });
    expect(cleared(set, slip.crossings[0]!.id)).toBe(7700);
  });
  test('an option that there is not is told, and leaving it out mends that', () => {
    const d = passingLoop(['up', 'down']);
    d.turnouts[0]!.settings = [{ pattern: 'route locking', option: 'colour', value: 3 }];
    const [finding] = checkDesign(d).findings.filter(({ kind }) => kind === 'way of working that does not exist');
    expect(finding!.says).toContain('no such thing to set');
    const mended = checkDesign(edited(d, finding!.fixes[0]!.edit)).findings;
    expect(mended.map(({ kind }) => kind)).not.toContain('way of working that does not exist');
  });
});
