import { describe, expect, test } from 'vitest';
import { checkDesign, leftOut, schemeFigures, viewPoints } from '@/core/design';
import { faultsOf } from '@/core/faults';
import { cm } from '@/core/measure';
import { ProofModel, ProofRun, type Switch } from '@/core/proof';
import { writePromela } from '@/core/proof/export';
import { hazardsNow, Rehearsal } from '@/core/simulation';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { spinHazards } from '../../tools/spin';
import { railcarsOnLoop } from './locking-plans';

interface Wanted {
  assumed?: boolean;
  hand?: boolean;
  set?: boolean;
  together?: boolean;
}
/** A loop with a train in rear of A; what is said of T1, and of T2 where both throw together. */
function loop({ assumed = false, hand = false, set = false, together = false }: Wanted = {}): LayoutDocument {
  const d = railcarsOnLoop(1);
  for (const turnout of d.turnouts) {
    turnout.throwMs = 1000;
    if (assumed) turnout.patterns = ['position assumed'];
    turnout.motor = hand ? 'hand' : 'slow';
  }
  if (together) d.turnouts[1]!.throwsWith = d.turnouts[0]!.id;
  if (set) for (const signal of signalsOf(d)) signal.patterns = ['set routes'];
  return d;
}

function running(d: LayoutDocument) {
  const run = new Rehearsal(compileSystem(d), 1);
  for (const { id } of d.trains) run.command({ kind: 'run', train: id, on: false });
  const pass = (ms: number) => {
    for (let i = 0; i < ms / 20; i++) run.step();
  };
  const shows = (name: string) => run.aspectAt(run.system.readings.findIndex(({ signal }) => signal.name === name)).id;
  const throwIt = (to: 'straight' | 'diverging') => run.command({ kind: 'throw', turnout: run.motors[0]!.id, to });
  pass(12_000);
  return { run, pass, shows, throwIt, lies: () => run.plant.motors[0]!.position };
}

function prove(d: LayoutDocument) {
  const run = new ProofRun(compileSystem(d), 1_000_000, TRIED);
  while (!run.step(5000));
  const { verdicts, finished } = run.result();
  return { finished, failing: verdicts.flatMap(({ property, result }) => (result === 'fails' ? [property] : [])) };
}
const TRIED = new Set<Switch>(['throw back']);

describe('points of which no contact tells how they lie', () => {
  const clearsAfter = (assumed: boolean): [stops: boolean, ms: number] => {
    const { run, pass, shows, throwIt } = running(loop({ assumed }));
    run.command({ kind: 'hold', signal: run.system.readings[0]!.signal.id, on: true });
    pass(10_000);
    throwIt('diverging');
    pass(100);
    run.command({ kind: 'hold', signal: run.system.readings[0]!.signal.id, on: false });
    const stops = shows('A') === 'stop';
    let ms = 100;
    for (; shows('A') === 'stop' && ms < 5000; ms += 20) pass(20);
    return [stops, ms];
  };
  test('count as lying where they were sent after half as long again, and signals over them show stop until then', () => {
    const [told, by] = [clearsAfter(false), clearsAfter(true)];
    expect([told[0], by[0]]).toEqual([true, true]);
    /** 1000 ms; 1500 ms. */
    expect(Math.abs(told[1] - 1000)).toBeLessThanOrEqual(60);
    expect(Math.abs(by[1] - 1500)).toBeLessThanOrEqual(60);
  });
  test('are told, with what can come of it, and mended in one step', () => {
    const told = (d: LayoutDocument) =>
      checkDesign(d)
        .findings.filter(({ kind }) => kind === 'points whose position is assumed')
        .map(({ severity, says, fixes }) => [severity, says, fixes.length]);
    expect(told(loop())).toEqual([]);
    expect(told(loop({ assumed: true }))[0]).toEqual([
      'check',
      'No contact tells how T1 lies: if its motor sticks, or one of two that throw together does not follow, nothing notices it. Signals clear over it by where it was sent last.',
      1,
    ]);
    expect(told(loop({ assumed: true, hand: true }))[0]![0]).toBe('unsafe');
  });
  test('no contact of theirs can be the wrong way round', () => {
    const reversed = (d: LayoutDocument) =>
      faultsOf(compileSystem(d)).find(({ fault }) => fault === 'contact reversed')?.things.length ?? 0;
    expect([reversed(loop()), reversed(loop({ assumed: true }))]).toEqual([2, 0]);
  });
});

describe('a motor that does not arrive', () => {
  /** One train stands in rear of A, another in M; T1 is sent to diverging, and does not move. */
  const stuck = (wanted: Wanted, motor = 0) => {
    const d = loop(wanted);
    d.vehicles.push({ ...d.vehicles[0]!, id: 'v2' });
    const start = { line: d.lines[0]!.id, at: cm(220), facing: 'up' as const };
    d.trains.push({ ...d.trains[0]!, id: 'other', name: 'Other', vehicles: ['v2'], start });
    const { run, pass, shows, lies } = running(d);
    const ME = signalsOf(d).find(({ name }) => name === 'ME')!.id;
    run.command({ kind: 'hold', signal: ME, on: true });
    pass(12_000);
    run.command({ kind: 'fail', fault: 'points stay', thing: run.motors[motor]!.id, on: true });
    run.command({ kind: 'throw', turnout: run.motors[1 - motor]!.id, to: 'diverging' });
    run.command({ kind: 'throw', turnout: run.motors[motor]!.id, to: 'diverging' });
    pass(20_000);
    const before = [lies(), shows('A')];
    run.command({ kind: 'run', train: 'tr0', on: true });
    const met = new Set<string>();
    for (let i = 0; i < 200; i++) {
      pass(100);
      for (const { id } of hazardsNow(run)) met.add(id);
    }
    return { before, met: [...met].sort() };
  };
  test('keeps the signal at stop where a contact tells, and sends a train into another where none does', () => {
    expect(stuck({})).toEqual({ before: ['straight', 'stop'], met: [] });
    const { before, met } = stuck({ assumed: true });
    expect(before).toEqual(['straight', 'clear']);
    expect(met).toContain('two trains in a block');
  });
  test('so does one of two that throw together and does not follow', () => {
    expect(stuck({ together: true })).toEqual({ before: ['straight', 'stop'], met: [] });
    expect(stuck({ together: true, assumed: true }).met).toContain('two trains in a block');
  });
  test('while every motor arrives in time nothing goes wrong by it, whatever people throw; Spin agrees', () => {
    for (const assumed of [false, true]) {
      const d = loop({ assumed });
      expect([assumed, prove(d)]).toEqual([assumed, { finished: true, failing: [] }]);
      const [look] = spinHazards(writePromela(new ProofModel(compileSystem(d), TRIED)), [['points set wrong']]);
      expect([assumed, look!.errors, look!.complete]).toEqual([assumed, 0, true]);
    }
  });
  test('a rule of somebody’s own that is too quick is not taken for one that waits: Prove and Spin find what comes of it', () => {
    const d = loop({ assumed: true });
    const motor = d.turnouts[1]!.id;
    d.rules = [
      {
        id: 'ru1',
        name: `sent.${motor}.straight`,
        text: `TON(not PREVIOUS(drive.${motor}), 100 ms, on)`,
        type: undefined,
        about: undefined,
      },
    ];
    expect(checkDesign(d).findings.filter(({ kind }) => kind === 'rule of your own that does not work')).toEqual([]);
    expect(prove(d).failing).toContain('points set wrong');
    const [look] = spinHazards(writePromela(new ProofModel(compileSystem(d), TRIED)), [['points set wrong']]);
    expect(look!.errors).toBeGreaterThan(0);
  });
});

describe('points that people throw', () => {
  test('follow no route that somebody sets: the signal waits until they lie for it', () => {
    const { run, pass, shows, throwIt, lies } = running(loop({ hand: true, set: true }));
    const A = run.system.readings.find(({ signal }) => signal.name === 'A')!.signal.id;
    const { route } = run.system.commanded.find(({ to }) => to === 'LE')!;
    run.command({ kind: 'set route', signal: A, route });
    pass(4000);
    expect([lies(), shows('A')]).toEqual(['straight', 'stop']);
    throwIt('diverging');
    pass(2000);
    expect([lies(), shows('A') === 'stop']).toEqual(['diverging', false]);
    throwIt('straight');
    pass(2000);
    expect(lies()).toBe('diverging');
  });
  test('are told by a note, and by what a proof takes for granted', () => {
    const notes = checkDesign(loop({ hand: true })).findings.filter(({ kind }) => kind === 'points that nothing holds');
    expect(notes.map(({ severity }) => severity)).toEqual(['note', 'note']);
    expect(leftOut(loop({ hand: true }))).toEqual([
      'Nobody throws points by hand that are locked, though nothing holds them: T1, T2.',
    ]);
    expect(leftOut(loop())).toEqual([]);
  });
});

describe('what the contacts of a motor work', () => {
  const loads = (d: LayoutDocument) => viewPoints(checkDesign(d), d.turnouts[0]!.id)!.motors.map((one) => one.loads);
  test('one that tells, one for an indicator, one for arms wired to it; none that tells where none is there', () => {
    expect(loads(loop())).toEqual([['tells the rules how T1 lies']]);
    expect(loads(loop({ assumed: true }))).toEqual([[]]);
    const d = loop();
    d.turnouts[0]!.patterns = ['points indicator'];
    for (const signal of signalsOf(d)) if (signal.name === 'A') signal.patterns = ['from the contact'];
    expect(loads(d)).toEqual([['tells the rules how T1 lies', 'works the indicator beside it', 'works A']]);
    for (const signal of signalsOf(d)) signal.patterns = ['from the contact'];
    expect(loads(d)).toEqual([['works the indicator beside it', 'works A, MW, LW']]);
  });
  test('are counted, and those that are missing', () => {
    const d = loop();
    const count = () => {
      const { contacts, contactsMissing } = schemeFigures(d);
      return [contacts, contactsMissing];
    };
    expect(count()).toEqual([2, 2]);
    d.turnouts[0]!.spareContacts = 1;
    expect(count()).toEqual([2, 1]);
    d.turnouts[0]!.patterns = ['points indicator'];
    expect(count()).toEqual([3, 2]);
  });
});
