import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { hazardOfEvent, Rehearsal } from '@/core/simulation';
import { type LayoutDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { train, vehicle } from '@/demo/build';
import { planned } from '@/demo/plans';

const BLOCKS = [50, 150, 250, 350, 450].map((at, n) => `block ${at} ${'ABCDE'[n]}\ndetector ${at} ${'ABCDE'[n]}`);

/** A ring of five blocks with stopping places before so many signals that releases alone clear; a railcar waits before each of the first few. */
function ring(signals: readonly number[], scheme: string, waiting: readonly number[]): LayoutDocument {
  const d = planned({
    name: 'Ring',
    text: `line Main 600 circuit one way up
gap 100
200
300
400
500
${signals.map((at, n) => `signal up ${at} S${n + 1}`).join('\n')}
${BLOCKS.join('\n')}`,
  });
  for (const signal of signalsOf(d)) signal.patterns = [scheme, 'release alone'];
  for (const sensor of d.sensors) sensor.holdMs = 200;
  const line = d.lines[0]!.id;
  d.vehicles = waiting.map((_, n) => vehicle(`v${n}`, `Railcar ${n + 1}`, 24, [4, 20], () => true, 300));
  d.trains = waiting.map((at, n) =>
    train(
      `tr${n}`,
      `Train ${n + 1}`,
      [`v${n}`],
      60,
      { line, at, facing: 'up' },
      { up: 150, down: 200, delayMs: 300, is: 'assumed' },
    ),
  );
  return d;
}

/** Trains stand until power-up is over; then a signal is given a pulse, and they run for some minutes: what it comes to. */
function comesTo(d: LayoutDocument, first: string | undefined, stalled?: string): 'runs' | 'waits' | 'hit' {
  const run = new Rehearsal(compileSystem(d), 1);
  const setRunning = (on: boolean) => {
    for (const { id } of d.trains) run.command({ kind: 'run', train: id, on: on && id !== stalled });
  };
  let [hit, moved] = [false, 0];
  const step = () =>
    run.step((event) => {
      hit ||= hazardOfEvent(event) === 'trains touch';
    });
  setRunning(false);
  for (let i = 0; i < 300; i++) step();
  setRunning(true);
  const signal = signalsOf(d).find(({ name }) => name === first);
  if (signal) expect(run.command({ kind: 'give pulse', thing: signal.id, what: 'release' })).toBeUndefined();
  for (let i = 0; i < 50 * 600 && !hit; i++) {
    step();
    if (run.plant.trains.some(({ speed }) => speed > 0)) moved = run.tick;
  }
  return hit ? 'hit' : run.tick - moved > 50 * 60 ? 'waits' : 'runs';
}

describe('who releases whom, and how it is remembered: worked by hand from what the trade says', () => {
  test.each([
    /** Push by memory runs any number, even one; by pulse into a section that is dead by itself it strands a lone train. */
    ['push by memory', 'runs'],
    ['push by pulse', 'waits'],
    /** Pull by memory lets a lone train clear its own signal and run on; a pulse is over by the time it comes round. */
    ['pull by memory', 'runs'],
    ['pull by pulse', 'waits'],
  ] as const)('%s, a lone train: %s', (scheme, ends) => expect(comesTo(ring([100], scheme, [90]), 'S1')).toBe(ends));
  test.each([
    /** One that comes round pushes the one that waits. */
    ['push by memory', 'runs'],
    ['push by pulse', 'runs'],
  ] as const)('%s, two trains and one signal: %s', (scheme, ends) =>
    expect(comesTo(ring([100], scheme, [90, 390]), 'S1')).toBe(ends),
  );
  test.each([
    /** Once both stand nobody comes up behind either, and a pulse that the other gave in passing is over. */
    ['push by pulse', 'S1', 'waits'],
    ['pull by pulse', 'S2', 'waits'],
    /** What was remembered in passing lets each run on. */
    ['push by memory', 'S1', 'runs'],
    ['pull by memory', 'S2', 'runs'],
  ] as const)('%s, two trains before two signals, the right one started: %s', (scheme, first, ends) =>
    expect(comesTo(ring([100, 400], scheme, [90, 390]), first)).toBe(ends),
  );
  test.each([
    /** A train that fails to start is hit from behind by who pushed it; who is pulled waits for one that never gets to its release point. */
    ['push by memory', 'S1', 'hit'],
    ['push by pulse', 'S1', 'hit'],
    ['pull by memory', 'S2', 'waits'],
    ['pull by pulse', 'S2', 'waits'],
  ] as const)('%s, of two trains the one before S2 fails to start: %s', (scheme, first, ends) =>
    expect(comesTo(ring([100, 400], scheme, [90, 390]), first, 'tr1')).toBe(ends),
  );
  test('with nobody started, nobody goes', () => {
    for (const scheme of ['push by memory', 'pull by pulse'])
      expect(comesTo(ring([100, 400], scheme, [90, 390]), undefined)).toBe('waits');
  });
});

describe('what is said of it', () => {
  const said = (d: LayoutDocument) =>
    checkDesign(d)
      .findings.filter(({ kind }) => kind === 'signal that looks at nothing ahead')
      .map(({ severity, says }) => [severity, says.split(' ').slice(0, 4).join(' ')]);
  test('a release that decides alone is to be checked; one that is not there is unsafe', () => {
    expect(said(ring([100], 'push by memory', [90]))).toEqual([['check', 'What releases S1 decides']]);
    expect(said(ring([100], 'timed caution', [90]))).toEqual([['unsafe', 'Only what releases S1']]);
  });
  test('a signal that nobody comes up behind is said to have only its button', () => {
    const d = planned({
      name: 'Line',
      text: 'line Main 300\nbuffer 0\nbuffer\ngap 150\nsignal up 150 S\nblock 50 A\ndetector 50 A\nblock 200 B\ndetector 200 B',
    });
    signalsOf(d)[0]!.patterns = ['push by memory'];
    const found = checkDesign(d).findings.find(({ kind }) => kind === 'automatic working that cannot be there');
    expect(found?.says).toMatch(/no train comes up behind one that waits there: only its button releases it/);
  });
});
