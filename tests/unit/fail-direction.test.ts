import { describe, expect, test } from 'vitest';
import { Bench, checkDesign, FAILURES, sumOf } from '@/core/design';
import { ASPECT_SYSTEMS, type AspectSystem, lampsOut, NOWHERE } from '@/core/kinds';
import { applyEdit, type Edit, type LayoutDocument, signalsOf } from '@/core/survey';
import { ring, withTrains } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';

const column = (says: RegExp) => FAILURES.findIndex((fault) => says.test(fault));
const tableOf = (d: LayoutDocument) => new Bench(checkDesign(d)).fails({});
const edited = (d: LayoutDocument, edit: Edit): LayoutDocument => {
  const result = applyEdit(d, edit);
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
};
const oval = () => withTrains(ring('Six', 6, 150), 1, 150);
const sensors = (d: LayoutDocument) => d.sensors.map(({ id }) => id);
const kinds = (d: LayoutDocument) => checkDesign(d).findings.map(({ kind }) => kind);

describe('49 CFR 236.23, paraphrased (model practice may choose otherwise): a failed lamp gives no less restrictive aspect', () => {
  test.each(Object.entries(ASPECT_SYSTEMS))('%s', (_, system: AspectSystem) => {
    expect(lampsOut(system).filter(({ worse }) => worse)).toEqual([]);
  });
  test('a system in which caution is clear with a lamp more is found out', () => {
    const lamps = [
      { shape: 'square', colour: 'stop' },
      { shape: 'circle', colour: 'clear' },
      { shape: 'diamond', colour: 'white' },
    ] as const;
    const bad: AspectSystem = {
      name: 'Bad',
      lamps,
      aspects: [
        { id: 'stop', means: 'Stop.', stopsIn: 0, lit: [0] },
        { id: 'slow', means: 'Slow.', stopsIn: 1, lit: [1, 2] },
        { id: 'go', means: 'Go.', stopsIn: NOWHERE, lit: [1] },
      ],
    };
    expect(lampsOut(bad).filter(({ worse }) => worse)).toMatchObject([
      { lamp: 2, aspect: { id: 'slow' }, read: { id: 'go' } },
    ]);
  });
});

describe('what each fault does to a signal with a train ahead', () => {
  test('at power-up, and after a restart with trains anywhere, nothing is cleared into a train', () => {
    for (const d of [oval(), ondrelValley()])
      for (const { name, outcomes } of tableOf(d)) expect(outcomes[column(/Power/)]?.safe ?? true, name).toBe(true);
  });
  test('a dead detector reads as it is wired: free clears into the train, occupied holds, and unsaid is not guessed', () => {
    const [dead, stuck] = [column(/detector is dead/), column(/stuck/)];
    const outcomes = (d: LayoutDocument) => tableOf(d).map((row) => row.outcomes);
    for (const row of outcomes(oval()))
      expect(row[dead]).toEqual({ says: 'not said how it is wired', safe: undefined });
    const free = edited(oval(), { do: 'wire', ids: sensors(oval()), wiring: { sensors: 'free' } });
    /** Of the blocks ahead of a ring’s signal only the first is on its way; with that read free, the next is clear too. */
    for (const row of outcomes(free)) expect(row[dead]).toMatchObject({ safe: false, says: 'clear instead of stop' });
    const occupied = edited(oval(), { do: 'wire', ids: sensors(oval()), wiring: { sensors: 'occupied' } });
    for (const row of outcomes(occupied)) expect(row[dead]).toEqual({ says: 'stop', safe: true });
    for (const row of outcomes(free)) expect(row[stuck]).toEqual({ says: 'stop', safe: true });
  });
  test('a module that is lost takes all its inputs along', () => {
    const d = edited(oval(), { do: 'wire', ids: sensors(oval()), wiring: { sensors: 'free' } });
    const lost = column(/module/);
    expect(tableOf(d).every(({ outcomes }) => outcomes[lost] === undefined)).toBe(true);
    const inputs = Object.fromEntries(sensors(d).map((id, i) => [id, `1.${i + 1}`]));
    const wired = edited(d, { do: 'give inputs', modules: { inputs: 16, spare: 2 }, inputs });
    for (const { outcomes } of tableOf(wired)) expect(outcomes[lost]).toMatchObject({ safe: false });
  });
  test('wiring that fails to a false clear is a finding that one edit mends', () => {
    let d = edited(oval(), { do: 'wire', ids: sensors(oval()), wiring: { sensors: 'free' } });
    const signals = signalsOf(d).map(({ id }) => id);
    d = edited(d, { do: 'wire', ids: signals, wiring: { signals: 'clear' } });
    d = edited(d, { do: 'use pattern', id: signals[0]!, pattern: 'stop section', on: true });
    d = edited(d, { do: 'wire', ids: [signals[0]!], wiring: { relays: 'fed' } });
    const wrong = checkDesign(d).findings.filter(({ kind }) => kind === 'wiring that fails to a false clear');
    expect(wrong.map(({ severity }) => severity)).toEqual(['unsafe', 'unsafe', 'unsafe']);
    for (const { fixes } of wrong) d = edited(d, fixes[0]!.edit);
    expect(kinds(d)).not.toContain('wiring that fails to a false clear');
    const relay = column(/relay of the section/);
    expect(tableOf(d)[0]!.outcomes[relay]).toEqual({ says: 'no power', safe: true });
    expect(tableOf(d)[1]!.outcomes[relay]).toBeUndefined();
  });
  test('a block that spots tell of is not looked at, and the headline counts what is not known', () => {
    const d = ondrelValley();
    const rows = tableOf(d);
    const dead = column(/detector is dead/);
    const spots = rows.filter(({ outcomes }) => outcomes[dead]?.says.startsWith('not looked at'));
    /** Only SB is told by spots: these are the signals that lead into it. */
    for (const { outcomes } of spots) expect(outcomes[dead]!.says).toContain('spots tell of SB');
    for (const { outcomes } of spots) expect(outcomes[dead]).toMatchObject({ safe: undefined });
    expect(spots.length).toBeGreaterThan(0);
    const { all, bad, unknown } = sumOf(rows);
    const counted = rows.flatMap(({ outcomes }) => outcomes).filter((one) => one);
    expect([all, unknown]).toEqual([counted.length, counted.filter((one) => one!.safe === undefined).length]);
    expect(bad).toBe(counted.filter((one) => one!.safe === false).length);
    expect(unknown).toBeGreaterThan(spots.length);
  });
});
