import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { checkDesign, tryByHand } from '@/core/design';
import { ASPECT_SYSTEMS, type AspectSystem, NOWHERE } from '@/core/kinds';
import { names } from '@/core/patterns';
import { ProofModel, ProofRun, type Switch } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { Rehearsal } from '@/core/simulation';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { ring, withTrains } from '@/demo/learning-oval';
import { spinHazards } from '../../tools/spin';
import { blockIds } from './block-ids';

const table = ASPECT_SYSTEMS as Record<string, AspectSystem>;
const AHEAD = 'warns two signals ahead';
const NONE = 'warns of nothing';

/** Two more schools, made for this test: one warns two signals ahead, one not at all. */
beforeAll(() => {
  table[AHEAD] = {
    name: 'Warns two signals ahead',
    lamps: [
      { shape: 'square', colour: 'stop' },
      { shape: 'triangle', colour: 'caution' },
      { shape: 'triangle', colour: 'caution' },
      { shape: 'circle', colour: 'clear' },
    ],
    aspects: [
      { id: 'stop', means: '', stopsIn: 0, lit: [0] },
      { id: 'caution', means: '', stopsIn: 1, lit: [1] },
      { id: 'early', means: '', stopsIn: 2, lit: [1, 2] },
      { id: 'clear', means: '', stopsIn: NOWHERE, lit: [3] },
    ],
  };
  table[NONE] = {
    name: 'Warns of nothing',
    lamps: table[AHEAD].lamps,
    aspects: [
      { id: 'stop', means: '', stopsIn: 0, lit: [0] },
      { id: 'clear', means: '', stopsIn: NOWHERE, lit: [3] },
    ],
  };
});
afterAll(() => {
  delete table[AHEAD];
  delete table[NONE];
});

function signalled(d: LayoutDocument, system: (n: number) => string): LayoutDocument {
  signalsOf(d).forEach((signal, n) => {
    signal.system = system(n) as 'three-aspect';
  });
  return d;
}
function shown(d: LayoutDocument, occupied: string[]): (string | undefined)[] {
  const design = checkDesign(d);
  const values = tryByHand(design, { occupied: blockIds(design, occupied), points: {} });
  return signalsOf(d).map((signal) => design.system.program.enums.aspect![values[names.shows(signal)]!]);
}

describe('what signals show behind a train that stands, by pencil', () => {
  test('announced two signals ahead: stop, caution, early, clear', () => {
    const d = signalled(ring('Six', 6, 150), () => AHEAD);
    expect(shown(d, ['B4'])).toEqual(['clear', 'early', 'caution', 'stop', 'clear', 'clear']);
    expect(shown(d, ['B2', 'B4'])).toEqual(['caution', 'stop', 'caution', 'stop', 'clear', 'early']);
    expect(shown(d, [])).toEqual(Array(6).fill('clear'));
  });
  test('announced by none: stop or clear', () => {
    const d = signalled(ring('Six', 6, 150), () => NONE);
    expect(shown(d, ['B4'])).toEqual(['clear', 'clear', 'clear', 'stop', 'clear', 'clear']);
  });
  test('each signal of a mixed line says what its own system can say', () => {
    const d = signalled(ring('Six', 6, 150), (n) => [AHEAD, 'three-aspect', NONE][n % 3]!);
    /** S1 and S4 warn two ahead, S2 and S5 one, S3 and S6 not. */
    expect(shown(d, ['B3'])).toEqual(['early', 'caution', 'stop', 'clear', 'clear', 'clear']);
    expect(shown(d, ['B2'])).toEqual(['caution', 'stop', 'clear', 'clear', 'clear', 'clear']);
    expect(shown(d, ['B4'])).toEqual(['clear', 'clear', 'clear', 'stop', 'clear', 'clear']);
    expect(shown(d, ['B6'])).toEqual(['clear', 'clear', 'clear', 'early', 'caution', 'stop']);
  });
});

/** Blocks of 60 cm, and trains that need up to 1.1 m to stop. */
function shortBlocks(system: string): LayoutDocument {
  const d = signalled(withTrains(ring('Short blocks', 6, 60), 2, 60), () => system);
  for (const train of d.trains) Object.assign(train, { topSpeedKmh: 130, brakingMmPerS2: 80 });
  return d;
}
function proof(d: LayoutDocument, on?: ReadonlySet<Switch>) {
  const run = new ProofRun(compileSystem(d), 300_000, on);
  while (!run.step(5000));
  const { verdicts, finished } = run.result();
  return { finished, of: (property: string) => verdicts.find((v) => v.property === property)! };
}

describe('what a system proves and what trains do under it', { timeout: 120_000 }, () => {
  const late = 'stop not announced in time';
  test('blocks too short for one warning are long enough for two', () => {
    expect(proof(shortBlocks(NONE)).of(late).result).toBe('fails');
    expect(proof(shortBlocks('three-aspect')).of(late).result).toBe('fails');
    const ahead = proof(shortBlocks(AHEAD));
    expect([ahead.finished, ahead.of(late).result]).toEqual([true, 'holds']);
  });
  test('runs: no train passes a signal at stop under the system that warns early, and some do under the one that never warns', () => {
    const passed = (system: string) => {
      const d = shortBlocks(system);
      let stops = 0;
      const rehearsal = new Rehearsal(compileSystem(d), 5);
      for (const { id } of d.trains) rehearsal.command({ kind: 'run', train: id, on: true });
      for (let tick = 0; tick < 50 * 240; tick++) {
        if (tick % 700 === 350)
          rehearsal.command({ kind: 'hold', signal: signalsOf(d)[(tick / 350) % 6]!.id, on: (tick / 700) % 2 < 1 });
        rehearsal.step((e) => {
          if (e.kind === 'passes' && e.aspect.stopsIn === 0 && !e.dropped) stops += 1;
        });
      }
      return stops;
    };
    expect(passed(AHEAD)).toBe(0);
    expect(passed(NONE)).toBeGreaterThan(0);
  });
  test.each([
    [AHEAD, false],
    ['three-aspect', true],
    [NONE, true],
  ])('Spin agrees on one train and signals held by hand: %s', (system, fails) => {
    const d = signalled(withTrains(ring('Short blocks', 4, 60), 1, 60), () => system);
    Object.assign(d.trains[0]!, { topSpeedKmh: 130, brakingMmPerS2: 80 });
    const on = new Set<Switch>(['hold']);
    expect(proof(d, on).of(late).result).toBe(fails ? 'fails' : 'holds');
    const model = writePromela(new ProofModel(compileSystem(d), on));
    const [look] = spinHazards(model, [[late]]);
    expect({ system, ...look }).toMatchObject({ system, errors: fails ? 1 : 0, complete: !fails });
  });
});
