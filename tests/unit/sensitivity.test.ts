import { Simulation } from 'eecircuit-engine';
import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { divideTrack, sensitivityOf } from '@/core/detection';
import { sensorKind } from '@/core/kinds';
import { applyEdit, type LayoutDocument, readDocument } from '@/core/survey';
import { compileTrack } from '@/core/track';
import { learningOval } from '@/demo/learning-oval';

/** Four sections of 120 cm, each with a current detector. */
const oval = (change: Partial<LayoutDocument> = {}): LayoutDocument => ({ ...learningOval(), ...change });
const of = (d: LayoutDocument, nth = 0) => sensitivityOf(d, divideTrack(d, compileTrack(d)), d.sensors[nth]!)!;
const sensors = (d: LayoutDocument, change: object): LayoutDocument => ({
  ...d,
  sensors: d.sensors.map((one) => ({ ...one, ...change })),
});
const findings = (d: LayoutDocument, kind: string) => checkDesign(d).findings.filter((one) => one.kind === kind);

describe('currents through a detector', () => {
  /** References 3: 14 V over 10 kΩ are 1.4 mA, over 4.7 kΩ 2.97872 mA. */
  test('one resistor axle, as published', () => {
    expect(of(oval()).axleMa).toBeCloseTo(1.4, 9);
    expect(of(oval({ electrics: { volts: 14, axleOhms: 4700, leakOhms: 200_000 } })).axleMa).toBeCloseTo(2.97872, 5);
  });
  /** References 3: sensitivity goes with the turns. By hand: 2 mA through one turn, two turns, 1 mA; 1.2 m of 200 kΩ a metre leak 0.084 mA. */
  test('turns, leakage and what it notices, by hand', () => {
    expect(of(oval())).toMatchObject({ turns: 2, fromMa: 1, seesAxle: true, falselyOccupied: false, rightTurns: 2 });
    expect(of(oval()).leakMa).toBeCloseTo(0.084, 9);
    expect(of(sensors(oval(), { turns: 4, noticesMa: 6 })).fromMa).toBe(1.5);
    expect(of(sensors(oval(), { turns: 4, noticesMa: 6 }))).toMatchObject({ seesAxle: false, rightTurns: 5 });
  });
  test('diodes keep their voltage from the train, and are not wound', () => {
    const d = sensors(oval(), { kind: 'diode', turns: 7 });
    expect(of(d)).toMatchObject({ turns: 1, fromMa: 1, seesAxle: true });
    expect(of(d).axleMa).toBeCloseTo((14 - 1.4) / 10, 9);
  });
  test('where leakage is as much as an axle no number of turns helps', () => {
    const wet = oval({ electrics: { volts: 14, axleOhms: 10_000, leakOhms: 10_000 } });
    expect(of(wet)).toMatchObject({ seesAxle: true, falselyOccupied: true });
    expect(of(wet).rightTurns).toBeUndefined();
    expect(findings(wet, 'detector that leakage occupies').map(({ fixes }) => fixes.length)).toEqual([0, 0, 0, 0]);
  });
  /** Whatever it is set to: with the turns that are advised one axle is noticed and leakage is not, and with fewer the axle is not. */
  test('the turns that are advised are right, and the fewest', () => {
    let advised = 0;
    for (const noticesMa of [0.1, 0.5, 1, 2, 3.5, 5, 9, 14, 27, 60])
      for (const leakOhms of [5_000, 20_000, 60_000, 200_000]) {
        const d = sensors(oval({ electrics: { volts: 14, axleOhms: 10_000, leakOhms } }), { noticesMa });
        const { rightTurns } = of(d);
        if (rightTurns === undefined) {
          for (let turns = 1; turns <= 20; turns++) {
            const { seesAxle, falselyOccupied } = of(sensors(d, { turns }));
            expect(seesAxle && !falselyOccupied).toBe(false);
          }
          continue;
        }
        advised += 1;
        expect(of(sensors(d, { turns: rightTurns }))).toMatchObject({ seesAxle: true, falselyOccupied: false });
        if (rightTurns > 1) expect(of(sensors(d, { turns: rightTurns - 1 })).seesAxle).toBe(false);
      }
    expect(advised).toBeGreaterThan(15);
  });
});

/** A circuit simulator (ngspice) on the same section: its rails, twelve leaks along them, and axles anywhere. */
describe('against a circuit simulator', () => {
  const AXLES = [0, 1, 2, 5];
  test('axles in parallel and leakage, within the drop in the rails', async () => {
    const simulator = new Simulation();
    await simulator.start();
    for (const kind of ['current', 'diode'] as const) {
      const electrics = { volts: 14, axleOhms: 10_000, leakOhms: 25_000 };
      const { axleMa, leakMa } = of(sensors(oval({ electrics }), { kind }));
      const { dropV } = sensorKind(kind).inFeeder!;
      for (const axles of AXLES) {
        const lumps = Array.from(
          { length: 12 },
          (_, i) => `Rrail${i} n${i} n${i + 1} 0.002\nRleak${i} n${i + 1} 0 ${(25_000 / 1.2) * 12}`,
        );
        const set = Array.from({ length: axles }, (_, i) => `Raxle${i} n${1 + 2 * i} 0 10000`);
        simulator.setNetList(
          [
            'section',
            'Vtrack feed 0 dc 14',
            `Vdrop feed sense dc ${dropV}`,
            'Vsense sense n0 dc 0',
            ...lumps,
            ...set,
            '.op',
            '.end',
          ].join('\n'),
        );
        const result = await simulator.runSim();
        const at = result.variableNames.findIndex((name) => name.toLowerCase() === 'i(vsense)');
        expect(at, result.variableNames.join(' ')).toBeGreaterThanOrEqual(0);
        const value = result.data[at]!.values[0] as number;
        expect(value * 1000).toBeCloseTo(axles * axleMa + leakMa, 4);
      }
    }
  });
});

describe('findings', () => {
  const withResistors = (d: LayoutDocument): LayoutDocument => ({
    ...d,
    vehicles: d.vehicles.map((one) => ({
      ...one,
      axles: one.axles.map((axle) => (axle.feeds === 'nothing' ? { ...axle, feeds: 'resistor' as const } : axle)),
    })),
  });
  test('a detector that misses an axle is unsafe where trains rely on one, and mended by its remedy', () => {
    const dull = sensors(withResistors(oval()), { noticesMa: 5 });
    const found = findings(dull, 'detector too dull for a resistor axle');
    expect(found.map(({ subject, severity }) => [subject, severity])).toEqual(
      dull.sensors.map(({ id }) => [id, 'unsafe']),
    );
    expect(found[0]!.fixes[0]!.says).toBe(`Wind its feeder through ${dull.sensors[0]!.name} 4 times`);
    const done = applyEdit(dull, found[0]!.fixes[0]!.edit);
    if (!done.ok) throw new Error(done.problem);
    expect(findings(done.change.document, 'detector too dull for a resistor axle')).toHaveLength(3);
    expect(readDocument(JSON.parse(JSON.stringify(done.change.document))).ok).toBe(true);
    const nobody = {
      ...dull,
      vehicles: oval().vehicles.map((one) => ({
        ...one,
        axles: one.axles.map((axle) => ({
          ...axle,
          feeds: axle.feeds === 'motor' ? axle.feeds : ('nothing' as const),
        })),
      })),
    };
    expect(findings(nobody, 'detector too dull for a resistor axle')).toEqual([]);
  });
  test('on plain DC it is told that a closed throttle blinds them; with batteries they have nothing to notice at all', () => {
    expect(findings(oval(), 'detector blind at a closed throttle')).toEqual([]);
    expect(findings(oval({ power: 'two-rail DC' }), 'detector blind at a closed throttle')).toHaveLength(1);
    const battery = checkDesign(sensors(oval({ power: 'battery' }), { noticesMa: 5 })).findings.map(({ kind }) => kind);
    expect(battery).toContain('detector that needs current in the track');
    expect(battery).not.toContain('detector blind at a closed throttle');
  });
});
