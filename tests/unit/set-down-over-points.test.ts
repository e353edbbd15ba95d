import { describe, expect, test } from 'vitest';
import { cm } from '@/core/measure';
import { ProofRun, STANDARD_SWITCHES, type Switch } from '@/core/proof';
import { hazardOfEvent, Rehearsal } from '@/core/simulation';
import { type LayoutDocument, newDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { block, train, turnout, vehicle } from '@/demo/build';

/** One block with a turnout in it, and a train that begins over its blades. */
function overBlades(): LayoutDocument {
  const d = newDocument('Over the blades', 'H0', 'cm');
  d.referenceLine = 'main';
  d.lines = [
    { id: 'main', name: 'Main', length: cm(150), drawing: undefined },
    { id: 'leg', name: 'Leg', length: cm(45), drawing: undefined },
  ];
  d.turnouts = [turnout('T', 'main', 60, 'up', 'left', 'leg')];
  block(d, 'All', 'main', 30);
  d.vehicles = [vehicle('long', 'Long engine', 30, [2, 28], () => true, 300)];
  const figures = { up: 100, down: 150, delayMs: 300, is: 'assumed' as const };
  d.trains = [train('one', 'One', ['long'], 50, { line: 'main', at: 75, facing: 'up' }, figures)];
  return d;
}

/** Whether points move under it when it is set down so many scans after they were asked for; undefined where the points are not thrown. */
function movesUnder(document: LayoutDocument, scans: number): boolean {
  const run = new Rehearsal(compileSystem(document), 1);
  const wait = (ticks: number) => {
    let met = false;
    for (let i = 0; i < ticks; i++)
      run.step((event) => {
        met ||= hazardOfEvent(event) === 'points moved under a train';
      });
    return met;
  };
  run.command({ kind: 'run', train: 'one', on: false });
  run.command({ kind: 'lift off', train: 'one' });
  wait(1000);
  run.command({ kind: 'throw', turnout: 't-T', to: 'diverging' });
  const before = wait(scans);
  run.command({ kind: 'set down', train: 'one' });
  return before || wait(200);
}

describe('a train set down where points are thrown', () => {
  const document = overBlades();
  const verdict = (on: Iterable<Switch>) => {
    const run = new ProofRun(compileSystem(document), 200_000, new Set(on));
    while (!run.step(10_000));
    return run.result().verdicts.find(({ property }) => property === 'points moved under a train')?.result;
  };

  test('points that have begun to move go on under it, until they lie', () => {
    expect([1, 2, 10, 60].map((scans) => movesUnder(document, scans))).toEqual([true, true, true, true]);
    expect(movesUnder(document, 200)).toBe(false);
  });
  test('so a proof in which trains are lifted and set down finds it, and only there', () => {
    expect(verdict([...STANDARD_SWITCHES, 'lift'])).toBe('fails');
    expect(verdict(STANDARD_SWITCHES)).toBe('holds');
  });
});
