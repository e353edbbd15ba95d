import { describe, expect, test } from 'vitest';
import { checkDesign, viewPoints } from '@/core/design';
import { Rehearsal } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { train, vehicle } from '@/demo/build';
import { planned } from '@/demo/plans';

/** A turnout with a button, an indicator beside it and an arm before it, worked by its contact. Nothing is cut, nothing is watched. */
const HEADS = `line Main 300
line Spur 120
line Main
turnout 150 left "T1" to Spur start works "points indicator"
signal up 130 S works "from the contact"
buffer 0
buffer
line Spur
buffer`;
const heads = (): LayoutDocument => planned({ name: 'Heads', text: HEADS });
const withTrain = (d: LayoutDocument): LayoutDocument => {
  d.vehicles = [vehicle('v', 'Engine', 20, [4, 16], () => true, 200)];
  d.trains = [
    train(
      'tr',
      'Goods',
      ['v'],
      40,
      { line: d.lines[0]!.id, at: 60, facing: 'up' },
      { up: 100, down: 150, delayMs: 300, is: 'assumed' },
    ),
  ];
  return d;
};
const told = (d: LayoutDocument) => checkDesign(d).findings.map(({ severity, kind }) => `${severity}: ${kind}`);

describe('buttons and heads alone are a layout', () => {
  test('nothing is said of what signals would need that hold trains', () => {
    expect(told(heads()).filter((one) => !one.startsWith('note'))).toEqual(['unsafe: signal that holds no train']);
    expect(told(heads())).toContain('note: points that nothing holds');
    expect(told(heads()).join()).not.toMatch(/nothing to protect|not at a block/);
  });
  test('the turnout follows its button, and indicator and arm follow the turnout', () => {
    const run = new Rehearsal(compileSystem(heads()), 1);
    const settle = () => {
      for (let tick = 0; tick < 300; tick++) run.step();
    };
    const [motor] = run.motors;
    const shown = () => [run.plant.motors[0]!.position, run.readOff(0).id];
    settle();
    expect(shown()).toEqual(['straight', 'clear']);
    expect(run.command({ kind: 'throw', turnout: motor!.id, to: 'diverging' })).toBeUndefined();
    settle();
    expect(shown()).toEqual(['diverging', 'clear']);
    const indicator = run.system.terminals.slot('indicator', 0);
    const value = run.controller.values[indicator]!;
    expect(run.system.program.enums.indicator![value]).toBe('diverging');
  });
  test('it says that nothing holds it', () => {
    const d = heads();
    const design = checkDesign(d);
    expect(viewPoints(design, d.turnouts[0]!.id)!.motors[0]!.while).toEqual([]);
  });
  test('with a train that can come there it is unsafe, and once a detector watches it, it is locked', () => {
    expect(told(withTrain(heads()))).toContain('unsafe: points that nothing holds');
    const watched = planned({ name: 'Watched', text: `${HEADS}\nline Main\ndetector 100` });
    expect(told(withTrain(watched)).join()).not.toContain('points that nothing holds');
    const run = new Rehearsal(compileSystem(withTrain(watched)), 1);
    for (let tick = 0; tick < 600; tick++) run.step();
    run.command({ kind: 'throw', turnout: run.motors[0]!.id, to: 'diverging' });
    for (let tick = 0; tick < 200; tick++) run.step();
    expect(run.plant.motors[0]!.position).toBe('straight');
  });
});
