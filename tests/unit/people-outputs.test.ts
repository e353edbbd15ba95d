import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { frameOf, Rehearsal, replay } from '@/core/simulation';
import { applyEdit, type Edit, type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';

function edited(document: LayoutDocument, edit: Edit): LayoutDocument {
  const result = applyEdit(document, edit);
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
}
const using = (document: LayoutDocument, id: string, pattern: string) =>
  edited(document, { do: 'use pattern', id, pattern, on: true });

describe('what is shown to people alone', () => {
  test('a lamp on the panel is lit while its sensor has seen a train within its hold time, and from power-up', () => {
    const oval = learningOval();
    const lamps = oval.sensors.reduce((d, { id }) => using(d, id, 'panel lamp'), oval);
    const run = new Rehearsal(compileSystem(lamps), 1);
    for (const { id } of lamps.trains) run.command({ kind: 'run', train: id, on: true });
    const last = oval.sensors.map(() => 0);
    const known = { lit: 0, dark: 0 };
    for (let tick = 0; tick < 4000; tick++) {
      run.step();
      const { shows } = frameOf(run);
      oval.sensors.forEach(({ id, holdMs }, s) => {
        const field = run.system.partition.fields.ofSensor[s]!;
        if (run.plant.detected[field]! > 0) last[s] = tick;
        const since = (tick - last[s]!) * 20;
        /** A scan this side or that is the program’s own affair. */
        if (Math.abs(since - holdMs) <= 60) return;
        const expected = since < holdMs ? 'lit' : 'dark';
        expect(shows[`lamp.${id}`], `${id} at ${tick}`).toBe(expected);
        known[expected] += 1;
      });
    }
    expect(Math.min(known.lit, known.dark)).toBeGreaterThan(1000);
  });
  test('a lamp that is red for power goes dark where a train is held, and is told to pass for a signal', () => {
    const oval = learningOval();
    const stop = signalsOf(oval)[1]!;
    const held = using(oval, stop.id, 'stop section');
    const red = held.sensors.reduce((d, { id }) => using(d, id, 'power lamp'), held);
    const run = new Rehearsal(compileSystem(red), 1);
    const { readings, partition } = run.system;
    const section = partition.sections[partition.pieces[readings[1]!.piece]!.section]!;
    for (const { id } of red.trains) run.command({ kind: 'run', train: id, on: true });
    run.command({ kind: 'hold', signal: stop.id, on: true });
    const seen = new Map<string, Set<string>>();
    /** Power follows the rules by a scan. */
    let before: Record<string, string> = {};
    for (let tick = 0; tick < 4000; tick++) {
      run.step();
      const { shows, dead } = frameOf(run);
      for (const { id } of tick === 0 ? [] : red.sensors) {
        const cut = section.sensors.includes(id) && section.blocks.some((b) => dead.includes(partition.blocks[b]!.id));
        seen.set(id, (seen.get(id) ?? new Set()).add(`${before[`lamp.${id}`]} ${cut ? 'cut off' : 'fed'}`));
      }
      before = shows;
    }
    for (const [id, ways] of seen)
      expect([...ways].sort()).toEqual(section.sensors.includes(id) ? ['dark cut off', 'red fed'] : ['red fed']);
    const found = checkDesign(red).findings.filter(({ kind }) => kind === 'lamp that passes for a signal');
    expect(found.map(({ severity }) => severity)).toEqual(red.sensors.map(() => 'unsafe'));
    const mended = found.reduce((d, { fixes }) => edited(d, fixes[0]!.edit), red);
    expect(checkDesign(mended).findings.map(({ kind }) => kind)).not.toContain('lamp that passes for a signal');
  });
  test('an indicator shows how its points lie, and nothing while they move', () => {
    const valley = smallValley();
    const { id } = valley.turnouts[4]!;
    const run = new Rehearsal(compileSystem({ ...using(valley, id, 'points indicator'), trains: [] }), 1);
    for (let tick = 0; tick < 1500; tick++) run.step();
    run.command({ kind: 'throw', turnout: id, to: 'diverging' });
    const seen: string[] = [];
    for (let tick = 0; tick < 400; tick++) {
      run.step();
      const shown = frameOf(run).shows[`indicator.${id}`]!;
      const { position } = run.plant.motors[4]!;
      if (seen.at(-1) !== shown) seen.push(shown);
      /** What is reported in one scan is shown in the next. */
      if (position !== 'between' && shown !== 'dark' && tick > 200) expect(shown).toBe(position);
    }
    expect(seen).toEqual(['straight', 'dark', 'diverging']);
    expect(Object.keys(frameOf(run).shows)).toEqual([`indicator.${id}`]);
  });
  test('it changes nothing that trains do', () => {
    const valley = smallValley();
    const shown = [
      ...valley.turnouts.map(({ id }) => [id, 'points indicator']),
      ...valley.sensors.map(({ id }) => [id, 'panel lamp']),
    ].reduce((d, [id, pattern]) => using(d, id!, pattern!), valley);
    const hash = (document: LayoutDocument) => {
      const commands = document.trains.map(({ id }) => ({
        tick: 5,
        command: { kind: 'run' as const, train: id, on: true },
      }));
      return replay(compileSystem(document), 1, 2000, commands).traceHash;
    };
    expect(hash(shown)).toBe(hash(valley));
    expect(Object.keys(frameOf(new Rehearsal(compileSystem(shown), 1)).shows)).toHaveLength(
      valley.turnouts.length + valley.sensors.length,
    );
  });
});

describe('a way of working that is chosen', () => {
  test('is taken back by undo, and leaves no trace when it is switched off', () => {
    const oval = learningOval();
    const { id } = oval.sensors[0]!;
    const on = using(oval, id, 'panel lamp');
    expect(on.sensors[0]!.patterns).toEqual(['panel lamp']);
    expect(edited(on, { do: 'use pattern', id, pattern: 'panel lamp', on: false })).toEqual(oval);
  });
  test('that there is not, or not for such a thing, is told, and can be left out', () => {
    const oval = learningOval();
    const { id } = oval.sensors[0]!;
    const d = using(using(using(oval, id, 'panel lamp'), id, 'stop section'), id, 'waving a flag');
    const told = checkDesign(d).findings.filter(({ kind }) => kind === 'way of working that does not exist');
    expect(told.map(({ says }) => /“(.*)”/.exec(says)![1])).toEqual(['stop section', 'waving a flag']);
    const left = told.reduce((document, { fixes }) => edited(document, fixes[0]!.edit), d);
    expect(left).toEqual(using(oval, id, 'panel lamp'));
    expect(checkDesign(left).findings.some(({ kind }) => kind === 'way of working that does not exist')).toBe(false);
  });
});
