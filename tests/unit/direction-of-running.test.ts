import { describe, expect, test } from 'vitest';
import { checkDesign, proposeSignals } from '@/core/design';
import { Rehearsal } from '@/core/simulation';
import { type LayoutDocument, newDocument, signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { readSurvey, withAdditions, writeSurvey } from '@/core/walk';
import { passingLoop } from '@/demo/passing-loop';
import { done, refused } from './editing';

const said = (text: string): LayoutDocument => {
  const { additions, bad } = readSurvey(text, newDocument('Said'));
  expect(bad).toEqual([]);
  return withAdditions(newDocument('Said'), additions);
};
/** A line with a siding, gaps round its points, and a train that nobody has set down. */
const YARD = `line Main 500
line Siding 150
line Main
turnout left 250 to Siding start clear 20
gap 245
gap 275
detector 100
detector 260
detector 400
line Siding
gap 25
detector 80
`;
const SIGNALLED = `${YARD}signal 25 westbound
line Main
signal 245
signal 275 westbound
`;
const one = (text: string) => said(text.replace('line Main 500', 'line Main 500 one way eastbound'));
const routes = (d: LayoutDocument) =>
  checkDesign(d).scheme.readings.map(({ signal, routes: all }) => [
    `${signal.at.tenthUm / 1e5} ${signal.governs}`,
    all.length,
  ]);
const findings = (d: LayoutDocument, kind: string) =>
  checkDesign(d)
    .findings.filter((finding) => finding.kind === kind)
    .map(({ severity, says }) => `${severity}: ${says}`);

describe('a line that trains run one way only', () => {
  test('is said in Survey, with the line or afterwards, and written out with it', () => {
    const d = one(YARD);
    expect(d.lines[0]!.running).toBe('up');
    expect(writeSurvey(d)).toContain('line "Main" 500 cm one way up');
    expect(said(writeSurvey(d)).lines.map(({ running }) => running)).toEqual(['up', undefined]);
    const both = done(d, { do: 'run line', id: d.lines[0]!.id, running: undefined });
    expect([both.document.lines[0]!.running, both.says]).toEqual([undefined, 'Run Main both ways']);
    expect(done(both.document, { do: 'run line', id: d.lines[0]!.id, running: 'down' }).says).toBe(
      'Run Main westbound only',
    );
  });
  test('no signal lets a train onto it the other way; over points that lead there it keeps its other routes', () => {
    expect(routes(said(SIGNALLED))).toEqual([
      ['25 down', 1],
      ['245 up', 2],
      ['275 down', 1],
    ]);
    expect(routes(one(SIGNALLED))).toEqual([
      ['25 down', 0],
      ['245 up', 2],
      ['275 down', 0],
    ]);
    expect(findings(one(SIGNALLED), 'signal with nothing to protect')).toEqual([
      expect.stringMatching(/^check: S1 has no way on: .* It always shows stop\.$/),
      expect.stringMatching(/^check: S3 has no way on: /),
    ]);
  });
  test('signals are proposed, and found missing, only where trains come', () => {
    const places = (d: LayoutDocument) => proposeSignals(d).signals.map(({ at, governs }) => `${at / 1e5} ${governs}`);
    expect(places(said(YARD))).toEqual(['245 up', '275 down', '25 down']);
    expect(places(one(YARD))).toEqual(['245 up', '25 down']);
    const kind = 'points without protection';
    expect(findings(said(YARD), kind)).toEqual([expect.stringMatching(/^unsafe: .* from 245 cm on Main and 275 cm/)]);
    expect(findings(one(YARD), kind)).toEqual([
      expect.stringMatching(/^unsafe: .* from 245 cm on Main and 25 cm on Siding\.$/),
    ]);
  });
  test('no train turns back against it; one that runs against it may turn to run with it', () => {
    const d = passingLoop(['up', 'down']);
    const turned = (running: 'up' | 'down' | undefined) => {
      const lines = d.lines.map((line) => ({ ...line, running }));
      const run = new Rehearsal(compileSystem({ ...d, lines }), 1);
      return [0, 1].map((train) => run.plant.turnBack(train));
    };
    const free = turned(undefined);
    const up = turned('up');
    const facing = d.trains.map(({ start }) => start!.facing);
    expect(facing).toEqual(['up', 'down']);
    expect(up[0]).toBe('the line is run one way');
    expect(up[1]).toBe(free[1]);
    expect(turned('down')[1]).toBe('the line is run one way');
  });
  test('voids a proof, and is lost neither by splitting nor by making one line of two', () => {
    const d = one(YARD);
    const key = (document: LayoutDocument) => compileSystem(document).key;
    expect(key(d)).not.toBe(key(done(d, { do: 'run line', id: d.lines[0]!.id, running: undefined }).document));
    const split = done(d, { do: 'split line', id: d.lines[0]!.id, at: { tenthUm: 300e5, typed: '300 cm' } }).document;
    const halves = split.lines.filter(({ name }) => name.startsWith('Main'));
    expect(halves.map(({ running }) => running)).toEqual(['up', 'up']);
    const { id: join } = split.joins[0]!;
    const other = done(split, { do: 'run line', id: halves[1]!.id, running: 'down' }).document;
    expect(refused(other, { do: 'merge lines', join })).toMatch(/are run in different directions/);
    expect(done(split, { do: 'merge lines', join }).document.lines[0]!.running).toBe('up');
  });
  test('as trains stand now, a way that none of them comes is a note, with what to say of it', () => {
    const d = passingLoop(['up', 'up']);
    const bare = { ...d, features: d.features.filter(({ kind }) => kind !== 'signal') };
    expect(new Set(proposeSignals(bare).signals.map(({ governs }) => governs))).toEqual(new Set(['up']));
    expect(signalsOf(bare)).toEqual([]);
    const notes = findings(bare, 'points without protection').filter((says) => says.startsWith('note'));
    expect(notes.length).toBeGreaterThan(0);
    for (const says of notes) expect(says).toMatch(/No train comes this way as they stand now/);
  });
});
