import { describe, expect, test } from 'vitest';
import { checkDesign, viewPoints, viewSignal } from '@/core/design';
import { alwaysOf, compileProgram, Interpreter } from '@/core/logic';
import { Rehearsal } from '@/core/simulation';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { learningOval } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { Draw } from '../../tools/fuzz/draw';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { withRandomPatterns } from '../../tools/fuzz/random-patterns';
import { done } from './editing';
import { randomProgram } from './random-program';

const withOwn = (d: LayoutDocument, ...put: { name: string; text: string }[]): LayoutDocument =>
  done(d, { do: 'own rules', put, drop: [], about: 'it' }).document;

describe('what a name always is', () => {
  test('it is in every scan of programs drawn by chance, whatever their inputs', () => {
    let certain = 0;
    for (let seed = 1; seed <= 300; seed++) {
      const draw = new Draw(seed);
      const program = randomProgram(draw);
      const find = alwaysOf(program);
      const always = program.declarations.flatMap(({ name, expr }) => {
        const value = expr && find(name);
        return value === undefined ? [] : [{ name, value }];
      });
      certain += always.length;
      const run = new Interpreter(compileProgram(program), false);
      for (let scan = 0; scan < 40; scan++) {
        for (const { name, role, type } of program.declarations)
          if (role === 'input')
            run.setInput(run.compiled.slots.get(name)!, draw.below(program.enums[type]?.length ?? 2));
        run.scan(scan * 20);
        for (const { name, value } of always) expect(run.valueOf(name), `${seed}: ${name}`).toBe(value);
      }
    }
    expect(certain).toBeGreaterThan(20);
  });
});

describe('sentences about signals', () => {
  test('one that is said to show stop always, or never to be cleared for a route, is never seen otherwise', () => {
    let told = 0;
    for (let seed = 1; seed <= 60; seed++) {
      const d = withRandomPatterns(randomLayout(seed), seed);
      const { findings, system } = checkDesign(d);
      const stops = findings.filter(({ says }) => says.endsWith('It always shows stop.')).map(({ subject }) => subject);
      if (stops.length === 0) continue;
      told += stops.length;
      const run = new Rehearsal(system, seed);
      const draw = new Draw(seed);
      for (let tick = 0; tick < 4000; tick++) {
        if (tick % 50 === 0)
          for (const { id } of run.motors)
            run.command({ kind: 'throw', turnout: id, to: draw.chance(0.5) ? 'straight' : 'diverging' });
        run.step((event) => {
          if (event.kind !== 'aspect' || event.aspect.stopsIn === 0) return;
          expect(stops, `${seed}`).not.toContain(system.readings[event.signal]!.signal.id);
        });
      }
    }
    expect(told).toBeGreaterThan(3);
  });
  test('a rule of one’s own is told in the place of what patterns ask for', () => {
    const d = learningOval();
    const { id, name } = signalsOf(d)[0]!;
    const { system } = checkDesign(d);
    const go = system.program.declarations.find((one) => one.name.startsWith(`go.${id}.`))!;
    const own = checkDesign(withOwn(d, { name: go.name, text: `not occupied."${system.partition.blocks[2]!.id}"` }));
    const view = viewSignal(own, id)!;
    expect(view.routes[0]!.needs).toEqual([
      { says: `${system.partition.blocks[2]!.name} is free`, pattern: 'your own rule' },
    ]);
    expect(view.proceeds).toBeUndefined();
    expect(viewSignal(checkDesign(withOwn(d, { name: `proceed.${id}`, text: 'true' })), id)!.proceeds).toBe('true');
    expect(viewSignal(checkDesign(withOwn(d, { name: go.name, text: 'false' })), id)!.routes[0]).toMatchObject({
      never: true,
      needs: [{ says: 'never' }],
    });
    /** What is found of where it stands no longer says what it shows, once a rule says otherwise. */
    const blind: LayoutDocument = { ...d, sensors: [] };
    const says = (of: LayoutDocument) =>
      checkDesign(of)
        .findings.filter(({ subject, kind }) => subject === id && kind === 'signal into undetected track')
        .map((finding) => finding.says)
        .join();
    const said = says(blind);
    expect(said).toMatch(new RegExp(`^${name} leads into .*\\. It always shows stop\\.$`));
    expect(says(withOwn(blind, { name: `proceed.${id}`, text: 'true' }))).not.toContain('always shows stop');
  });
  test('on the demo and the examples every route asks for what its patterns ask for, in their words', () => {
    for (const d of [ondrelValley(), ...EXAMPLES.map(exampleLayout)]) {
      const design = checkDesign(d);
      for (const { id } of signalsOf(d))
        for (const { needs, to } of viewSignal(design, id)!.routes)
          for (const { says, pattern } of needs) {
            expect(says, `${d.name}: ${id} to ${to}`).not.toMatch(/“|undefined/);
            expect(pattern).not.toBe('');
          }
    }
  });
  test('where the next signal leads is said where it matters, and not where all its routes come to the same', () => {
    const d = ondrelValley();
    const { id } = signalsOf(d).find(({ name }) => name === 'FE')!;
    const view = viewSignal(checkDesign(d), id)!;
    const tree = Object.fromEntries(view.routes.map(({ to, branches }) => [to, branches]));
    expect(tree.UE).toContainEqual({ when: ['UE shows proceed, straight on'], aspect: 'clear' });
    expect(tree.SE).toEqual([
      { when: ['SE at stop'], aspect: 'medium caution' },
      { when: ['SE shows proceed'], aspect: 'medium clear' },
    ]);
  });
});

describe('sentences about points', () => {
  const d = ondrelValley();
  const motor = compileSystem(d).partition.graph.motors[0]!;
  const held = (of: LayoutDocument) => viewPoints(checkDesign(of), motor.id)!.motors[0]!;
  test('what holds them is read off the rules, whoever wrote them', () => {
    expect(held(d).while.length).toBeGreaterThan(1);
    expect(held(d).locks).toBe(true);
    expect(held(withOwn(d, { name: `locked.${motor.id}`, text: 'false' })).while).toEqual([]);
    const block = compileSystem(d).partition.blocks[3]!;
    expect(held(withOwn(d, { name: `locked.${motor.id}`, text: `occupied."${block.id}"` })).while).toEqual([
      `${block.name} is occupied`,
    ]);
    const free = `RS(ask."${motor.id}".diverging, ask."${motor.id}".straight, off)`;
    expect(held(withOwn(d, { name: `drive.${motor.id}`, text: free }))).toMatchObject({ while: [], locks: false });
    expect(held(withOwn(d, { name: `drive.${motor.id}`, text: 'false' })).otherwise).toBe('never');
  });
  test('points that nothing guards are not shown locked, and move when they are asked', () => {
    const free = `RS(ask."${motor.id}".diverging, ask."${motor.id}".straight, off)`;
    const own = withOwn(d, { name: `drive.${motor.id}`, text: free }, { name: `locked.${motor.id}`, text: 'true' });
    const run = new Rehearsal(compileSystem(own), 1);
    for (let i = 0; i < 20; i++) run.step();
    expect(run.controller.isOn('locked', motor.index)).toBe(true);
    expect(run.controller.isLocked(motor.index)).toBe(false);
    const refused: string[] = [];
    run.command({ kind: 'throw', turnout: motor.id, to: 'diverging' });
    for (let i = 0; i < 200; i++) run.step((event) => event.kind === 'refused' && refused.push(motor.name));
    expect(refused).toEqual([]);
    expect(run.plant.motors[motor.index]!.position).toBe('diverging');
  });
});
