import { describe, expect, test } from 'vitest';
import { FAULT_IDS, type Fault, type FaultId, faultsAbout, faultsIn, faultsOf, withFault } from '@/core/faults';
import { ProofModel, ProofRun, proofKey, steerCounterexample } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { HAZARD_IDS, Rehearsal } from '@/core/simulation';
import { applyEdit, type Edit, type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem, type System } from '@/core/system';
import { ring, withTrains } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { passingLoop } from '@/demo/passing-loop';
import { spinHazards } from '../../tools/spin';

const edited = (d: LayoutDocument, edit: Edit): LayoutDocument => {
  const result = applyEdit(d, edit);
  if (!result.ok) throw new Error(result.problem);
  return result.change.document;
};
/** A ring on which nothing about the wiring is left unsaid, and one section is cut off by its signal. */
function wired(): LayoutDocument {
  let d = withTrains(ring('Six', 6, 150), 4, 150);
  const signals = signalsOf(d).map(({ id }) => id);
  d = edited(d, { do: 'wire', ids: d.sensors.map(({ id }) => id), wiring: { sensors: 'free' } });
  d = edited(d, { do: 'wire', ids: signals, wiring: { signals: 'clear' } });
  d = edited(d, { do: 'use pattern', id: signals[0]!, pattern: 'stop section', on: true });
  d = edited(d, { do: 'wire', ids: [signals[0]!], wiring: { relays: 'fed' } });
  const inputs = Object.fromEntries(d.sensors.map(({ id }, i) => [id, `1.${i + 1}`]));
  return edited(d, { do: 'give inputs', modules: { inputs: 16, spare: 2 }, inputs });
}

/** The same with signals that are lit only while a train comes: what is read off them is not what they show. */
const darkened = (): LayoutDocument => ({
  ...signalsOf(wired()).reduce(
    (d, { id }) => edited(d, { do: 'use pattern', id, pattern: 'approach lit', on: true }),
    wired(),
  ),
  name: 'Six, lit on approach',
});

/** What can be seen of a run, tick by tick: signals as drivers read them, points, and where trains are. */
function seen(system: System, ticks: number, strike: (run: Rehearsal, tick: number) => void): string[] {
  const run = new Rehearsal(system, 5);
  for (const { id } of system.plant.trains) run.command({ kind: 'run', train: id, on: true });
  const told: string[] = [];
  for (let tick = 0; tick < ticks; tick++) {
    strike(run, tick);
    if (tick % 400 === 350)
      for (const { id, index } of run.motors)
        run.command({
          kind: 'throw',
          turnout: id,
          to: run.plant.motors[index]!.position === 'straight' ? 'diverging' : 'straight',
        });
    run.step();
    const signals = system.readings.map((_, s) => run.readOff(s).id);
    const points = run.plant.motors.map(({ position }) => position);
    told.push(JSON.stringify([signals, points, run.plant.trains.map(({ head }) => head)]));
  }
  return told;
}
const [FROM, TO, TICKS] = [700, 2400, 4000];
/** It strikes and goes by the command, between controller and plant. */
const byCommand = (fault: Fault) => (run: Rehearsal, tick: number) => {
  if (tick === FROM || tick === TO)
    expect(run.command({ kind: 'fail', ...fault, on: tick === FROM }), JSON.stringify(fault)).toBeUndefined();
};
/** It strikes and goes by the input that it has in the program. */
const byInput = (run: Rehearsal, tick: number) => {
  if (tick === FROM || tick === TO) run.controller.set(faultsIn(run.system)[0]!.slot, tick === FROM ? 1 : 0);
};

describe('a fault in a rehearsal and as a part of the System is the same', () => {
  const layouts = [wired(), darkened(), passingLoop(['up', 'down']), ondrelValley()];
  const cases = layouts.flatMap((document) => {
    const system = compileSystem(document);
    return faultsOf(system).map(({ fault, things }) => ({ system, fault, thing: things[0]!.id, of: document.name }));
  });
  test('every kind of fault is among those tried', () => {
    expect([...new Set(cases.map(({ fault }) => fault))].sort()).toEqual([...FAULT_IDS].sort());
  });
  test.each(cases)('$of: $fault', ({ system, fault, thing }) => {
    const faulty = withFault(system, { fault, thing });
    expect(proofKey(faulty)).not.toBe(proofKey(system));
    const commanded = seen(system, TICKS, byCommand({ fault, thing }));
    expect(seen(faulty, TICKS, byInput)).toEqual(commanded);
    const sound = seen(system, TICKS, () => {});
    expect(seen(faulty, TICKS, () => {})).toEqual(sound);
    expect(commanded.slice(0, FROM)).toEqual(sound.slice(0, FROM));
  });
  test('each kind makes some run another one', () => {
    const idle = FAULT_IDS.filter((id) =>
      cases
        .filter(({ fault }) => fault === id)
        .every(({ system, thing }) =>
          layouts.every(
            () => seen(system, TICKS, byCommand({ fault: id, thing })).join() === seen(system, TICKS, () => {}).join(),
          ),
        ),
    );
    expect(idle).toEqual([]);
  });
});

describe('the proof looks at a fault that strikes at any moment', () => {
  function prove(document: LayoutDocument, fault: FaultId, nth = 0) {
    const system = compileSystem(document);
    const things = faultsOf(system).find((one) => one.fault === fault)!.things;
    const run = new ProofRun(withFault(system, { fault, thing: things[nth]!.id }), 200_000);
    while (!run.step(5000));
    const proof = run.result();
    const failing = proof.verdicts.filter(({ result }) => result === 'fails');
    return { run, proof, failing, properties: failing.map(({ property }) => property) };
  }
  const oval = () => withTrains(ring('Five', 5, 120), 2, 120);

  test('a detector that notices nothing lets a train run into another, and the rehearsal comes to it', () => {
    const { run, failing, properties, proof } = prove(oval(), 'detector blind');
    expect(properties).toContain('trains touch');
    const touch = failing.find(({ property }) => property === 'trains touch')!;
    expect(touch.counterexample!.map(({ says }) => says).join(' ')).toMatch(/notices nothing/);
    const { confirmed, commands } = steerCounterexample(run.explorer.model, 'trains touch', touch.counterexample!);
    expect(confirmed).toBe(true);
    expect(commands.some(({ command }) => command.kind === 'fail')).toBe(true);
    expect(proof.assumptions.join(' ')).toMatch(/but for this, at any moment: .* notices nothing/);
  });
  test('a detector that is stuck stops trains, and lets none touch', () => {
    const { proof, properties } = prove(oval(), 'detector stuck');
    expect(proof.finished).toBe(true);
    expect(properties).not.toContain('trains touch');
  });
  test('a dead signal that is wired to clear lets trains touch; one that is wired to stop does not', () => {
    const ids = signalsOf(oval()).map(({ id }) => id);
    const so = (signals: 'stop' | 'clear') => edited(oval(), { do: 'wire', ids, wiring: { signals } });
    expect(prove(so('clear'), 'signal dead').properties).toContain('trains touch');
    expect(prove(so('stop'), 'signal dead').properties).not.toContain('trains touch');
  });
  test('a link that drops out keeps what was said last: a train that comes meanwhile is in a block that reads free', () => {
    const d = edited(oval(), {
      do: 'give inputs',
      modules: { inputs: 16, spare: 2 },
      inputs: Object.fromEntries(oval().sensors.map(({ id }, i) => [id, `${1 + (i % 2)}.${i + 1}`])),
    });
    const { run, properties } = prove(d, 'link drops out');
    expect(properties).toContain('trains touch');
    expect(run.steer('trains touch').confirmed).toBe(true);
  });
  test('a control that is one aspect off clears a signal over a train; arms on a contact of the points have none', () => {
    expect(prove(oval(), 'control drifted').properties).toContain('proceed over a train');
    const d = oval();
    const [first, second] = signalsOf(d);
    first!.patterns = ['from the contact'];
    const struck = faultsOf(compileSystem(d)).find(({ fault }) => fault === 'control drifted')!;
    expect(struck.things.map(({ id }) => id)).not.toContain(first!.id);
    expect(struck.things.map(({ id }) => id)).toContain(second!.id);
  });
  test('light in the room is to every optical spot as a train, all at once, and to nothing else', () => {
    const d = oval();
    for (const nth of [1, 3]) d.sensors[nth]!.kind = 'optical';
    const system = compileSystem(d);
    const { things } = faultsOf(system).find(({ fault }) => fault === 'room light')!;
    expect(things.map(({ id }) => id)).toEqual([d.sensors[1]!.id, d.sensors[3]!.id]);
    const reads = (on: boolean) => {
      const run = new Rehearsal(compileSystem({ ...d, trains: [] }), 1);
      if (on) run.command({ kind: 'fail', fault: 'room light', thing: things[0]!.id, on });
      for (let tick = 0; tick < 10; tick++) run.step();
      return run.system.sensors.map((_, s) => run.controller.values[run.system.terminals.slot('detector', s)]);
    };
    expect([reads(false), reads(true)]).toEqual([
      [0, 0, 0, 0, 0],
      [0, 1, 0, 1, 0],
    ]);
  });
  test('Spin finds the same mishaps under the same fault', () => {
    const system = compileSystem(oval());
    const thing = faultsOf(system).find(({ fault }) => fault === 'detector blind')!.things[0]!.id;
    const faulty = withFault(system, { fault: 'detector blind', thing });
    const run = new ProofRun(faulty);
    while (!run.step(5000));
    const { verdicts } = run.result();
    const asked = HAZARD_IDS.filter((id) => verdicts.some(({ property }) => property === id));
    const failing = asked.filter((id) => verdicts.find(({ property }) => property === id)!.result === 'fails');
    expect(failing).toContain('trains touch');
    const looks = spinHazards(
      writePromela(new ProofModel(faulty)),
      asked.map((id) => [id]),
    );
    expect(asked.filter((_, i) => looks[i]!.errors > 0)).toEqual(failing);
  }, 120_000);
});

describe('what cannot fail so is refused', () => {
  test('a timer or a virtual end notices nothing, and no fault of a detector strikes it', () => {
    const d = withTrains(ring('Four', 4, 120), 1, 120);
    for (const [i, kind] of (['timer', 'virtual end', 'toggle', 'optical'] as const).entries())
      d.sensors[i]!.kind = kind;
    const [timer, end, toggle, spot] = d.sensors.map(({ id }) =>
      faultsAbout(compileSystem(d), id).map(({ fault }) => fault),
    );
    expect([timer, end, toggle]).toEqual([[], [], []]);
    expect(spot).toEqual(['detector dead', 'detector stuck', 'detector blind', 'room light']);
  });
  test('a thing that is not there, and one of which nobody has said how it is wired', () => {
    const run = new Rehearsal(compileSystem(withTrains(ring('Four', 4, 120), 1, 120)), 1);
    const sensor = run.system.sensors[0]!;
    expect(run.command({ kind: 'fail', fault: 'detector stuck', thing: 'nobody', on: true })).toMatch(/Nothing/);
    expect(run.command({ kind: 'fail', fault: 'detector dead', thing: sensor.id, on: true })).toBe(
      `Nobody has said how ${sensor.name} is wired: say so in Signal.`,
    );
    expect(() => withFault(run.system, { fault: 'detector dead', thing: sensor.id })).toThrow(RangeError);
  });
});
