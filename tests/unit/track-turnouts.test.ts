import { describe, expect, test } from 'vitest';
import { checkDesign, lockingTable, trackTurnouts } from '@/core/design';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { planned } from '@/demo/plans';
import { JUNCTION, LOOP } from './locking-plans';

function table(d: LayoutDocument): Record<string, string> {
  const design = checkDesign(d);
  return Object.fromEntries(
    trackTurnouts(design, lockingTable(design)).map((one) => [
      `${one.track.name} ${one.signal.name} ${one.motor.name}`,
      `${one.facing ? 'facing' : 'trailing'}: ${one.shows.straight.join(' ') || 'stop'} / ${one.shows.diverging.join(' ') || 'stop'}`,
    ]),
  );
}

/** Worked by hand from the rule of two tracks run on assigned sides: trailing points that lie against a track mean stop, facing ones lead aside. */
describe('the turnouts that each track meets', () => {
  test('a loop on a single line: facing at its ends, trailing out of it', () => {
    expect(table(planned({ name: 'Loop', text: LOOP }))).toEqual({
      'Main A T1': 'facing: caution clear / caution clear',
      'Main B T2': 'facing: caution clear / caution clear',
      'Main ME T2': 'trailing: caution / stop',
      'Main MW T1': 'trailing: caution / stop',
      'Loop LE T2': 'trailing: stop / caution',
      'Loop LW T1': 'trailing: stop / caution',
    });
  });
  test('a junction of two tracks: the branch leaves one facing, and comes into the other trailing', () => {
    const found = table(planned({ name: 'Junction', text: JUNCTION }));
    expect(Object.keys(found)).toEqual(['East D1 T1', 'West U1 T2', 'BranchIn BU T2']);
    expect(found['East D1 T1']).toMatch(/^facing: .*\/ (?!stop)/);
    expect(found['West U1 T2']).toMatch(/^trailing: (?!stop).* \/ stop$/);
    expect(found['BranchIn BU T2']).toMatch(/^trailing: stop \/ (?!stop)/);
  });
  test('whatever leads aside can be held at a signal: then it is always stop there, and nowhere else', () => {
    const d = planned({ name: 'Loop', text: LOOP });
    signalsOf(d).find(({ name }) => name === 'A')!.patterns = ['diverging held'];
    const found = table(d);
    expect([found['Main A T1'], found['Main B T2']]).toEqual([
      'facing: caution clear / stop',
      'facing: caution clear / caution clear',
    ]);
  });
  test('two tracks with a crossover: it binds the track that it leads from, both its ends thrown together', () => {
    const d = exampleLayout(EXAMPLES.find(({ name }) => name === 'Two tracks, one crossover')!);
    const design = checkDesign(d);
    const rows = trackTurnouts(design, lockingTable(design));
    /** It rises from East to West, whose trains run down: each meets its end of it facing. */
    expect(rows.map(({ signal, motor, facing, together }) => [signal.name, motor.name, facing, together])).toEqual([
      ['E1', 'T1', true, ['T2']],
      ['W1', 'T2', true, ['T1']],
    ]);
  });
});
