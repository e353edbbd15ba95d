import { describe, expect, test } from 'vitest';
import { viewDesign } from '@/core/design';
import { consistOf, unseenOf } from '@/core/detection';
import { SENSOR_KIND_IDS, SENSORS, type SensorKindId, sensorKind } from '@/core/kinds';
import { cm } from '@/core/measure';
import { names } from '@/core/patterns';
import { ProofRun } from '@/core/proof';
import { Rehearsal, replay } from '@/core/simulation';
import { applyEdit, type LayoutDocument, readDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { covering } from '../../tools/fuzz/covering';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { withRandomSensors } from '../../tools/fuzz/random-sensors';
import { asVersion2 } from './older-documents';
import { isWhole, ofSweep } from './sweep';

const EYE = { id: 'x9', kind: 'spot', name: 'Eye', at: cm(33), certainty: 'fixed', sees: 'optical' };

describe('documents of version 2', () => {
  test.each([smallValley(), learningOval()].map((d) => [d.name, d] as const))('%s opens', (_, document) => {
    const reading = readDocument(asVersion2(document, { ...EYE, line: document.referenceLine }));
    expect(reading.ok ? [] : reading.faults).toEqual([]);
    if (!reading.ok) return;
    const { sensors, features } = reading.document;
    expect(sensors.slice(0, -1)).toEqual(document.sensors.map((s) => ({ ...s, certainty: 'tentative' })));
    expect(sensors.at(-1)).toMatchObject({ id: 'x9', name: 'Eye', kind: 'optical', anchor: { at: cm(33) } });
    expect(features).toEqual(document.features);
  });
  test('and run as they did', () => {
    const document = smallValley();
    const reading = readDocument(asVersion2(document));
    if (!reading.ok) throw new Error('It does not open.');
    expect(replay(compileSystem(reading.document), 3, 3000, []).traceHash).toBe(
      replay(compileSystem(document), 3, 3000, []).traceHash,
    );
  });
  test.each([
    ['detectors that are no list', { detectors: 7 }],
    ['a spot of an unknown kind', { features: [{ id: 'x', kind: 'spot', name: 'X', line: 'a', sees: 'sonar' }] }],
    ['features that are none', { features: [null, 3, 'spot'] }],
  ])('%s are told, not thrown', (_, broken) => {
    expect(readDocument({ ...asVersion2(smallValley()), ...broken }).ok).toBe(false);
  });
});

describe('what each kind notices of a train', () => {
  /** An engine with two axles that draw current, and a car with one axle of metal, one of plastic and a magnet. */
  const d = learningOval();
  d.vehicles = [
    {
      id: 'e',
      name: 'Engine',
      kind: 'engine',
      length: cm(20),
      axles: [4, 16].map((at) => ({ at: cm(at), feeds: 'motor' as const, plastic: false })),
      grams: 300,
      magnetAt: undefined,
    },
    {
      id: 'c',
      name: 'Car',
      kind: 'wagon',
      length: cm(10),
      axles: [
        { at: cm(2), feeds: 'nothing', plastic: false },
        { at: cm(8), feeds: 'nothing', plastic: true },
      ],
      grams: 60,
      magnetAt: cm(5),
    },
  ];
  d.trains = [{ ...d.trains[0]!, vehicles: ['e', 'c'] }];
  const consist = consistOf(d, d.trains[0]!);
  const places = (kind: SensorKindId) => consist.parts[sensorKind(kind).notices.id]!.map(({ from, to }) => [from, to]);
  /** By hand, in mm from the nose; common practice, no source. */
  test.each<[SensorKindId, number[][]]>([
    ['current', [40, 160].map((at) => [at, at])],
    ['diode', [40, 160].map((at) => [at, at])],
    ['isolated rail', [40, 160, 220].map((at) => [at, at])],
    ['treadle', [40, 160, 220].map((at) => [at, at])],
    ['contact rail', [40, 160, 220].map((at) => [at, at])],
    ['optical', [[0, 300]]],
    ['reed', [[250, 250]]],
    ['hall', [[250, 250]]],
    ['timer', []],
    ['chained board', []],
    ['toggle', []],
    ['virtual end', []],
  ])('%s', (kind, expected) => expect(places(kind)).toEqual(expected));
  test('the table above has every kind', () => expect(SENSOR_KIND_IDS).toHaveLength(12));
  test('a tail is as long as the worst of the kinds that watch sections leaves it', () => {
    expect(unseenOf(d, consist)).toEqual({ all: false, blindMm: 140, tailMm: 140 });
    const rails = { ...d, sensors: d.sensors.map((s) => ({ ...s, kind: 'isolated rail' as const })) };
    expect(unseenOf(rails, consist)).toEqual({ all: false, blindMm: 120, tailMm: 80 });
    const both = { ...d, sensors: d.sensors.map((s, i) => ({ ...s, kind: i ? s.kind : ('isolated rail' as const) })) };
    expect(unseenOf(both, consist)).toEqual({ all: false, blindMm: 140, tailMm: 140 });
  });
});

describe('the plant against positions of trains, worked out anew', () => {
  test.each([1, 2, 3, 4, 5, 6, 7, 8])('random layout %i', (seed) => {
    const document = withRandomSensors(randomLayout(seed * 31), seed);
    const run = new Rehearsal(compileSystem(document), seed);
    const { plant, system: scheme } = run;
    const { pieces, fields } = scheme.partition;
    let looked = 0;
    for (let tick = 0; tick < 3000; tick++) {
      run.step();
      if (tick % 5 !== 0) continue;
      document.sensors.forEach((sensor, s) => {
        const { notices, reachMm } = SENSORS[sensor.kind];
        /** How far inside what the sensor watches something noticeable is; at 0 it may be in or out. */
        let inside = Number.NEGATIVE_INFINITY;
        plant.trains.forEach((rolling, t) => {
          const consist = rolling.consist;
          /** On plain DC there is no current in the track while a train stands. */
          if (document.power === 'two-rail DC' && rolling.speed === 0 && reachMm === 'section') return;
          let behind = 0;
          for (const span of plant.positionOf(t)) {
            const length = Math.abs(span.to - span.from);
            for (const { from, to } of consist.parts[notices.id]!) {
              const [near, far] = [Math.max(from, behind), Math.min(to, behind + length)];
              if (near > far || (from === to && to >= behind + length)) continue;
              const ends = [near, far].map((at) => span.from + Math.sign(span.to - span.from) * (at - behind));
              const [low, high] = [Math.min(...ends), Math.max(...ends)];
              const at = sensor.anchor.at.tenthUm / 10_000;
              const watched =
                reachMm === 'section'
                  ? pieces
                      .filter((p) => p.line === span.line && p.section === fields.all[fields.ofSensor[s]!]!.section)
                      .map((p) => [p.from / 10_000, p.to / 10_000])
                  : sensor.anchor.line === span.line
                    ? [[at - reachMm, at + reachMm]]
                    : [];
              for (const [a, b] of watched as [number, number][])
                inside = Math.max(inside, Math.min(high - a, b - low));
            }
            behind += length;
          }
        });
        if (Math.abs(inside) < 0.05) return;
        looked += 1;
        expect(plant.detected[fields.ofSensor[s]!], `${sensor.name} (${sensor.kind}) at ${tick}`).toBe(
          inside > 0 ? 1 : 0,
        );
      });
    }
    expect(looked).toBeGreaterThan(500);
  });
});

describe('rules', () => {
  const withSpot = (kind: SensorKindId, at: number, change: (d: LayoutDocument) => void = () => {}) => {
    const d = learningOval();
    change(d);
    const added = applyEdit(d, { do: 'add sensor', kind, line: d.referenceLine, at: cm(at) });
    if (!added.ok) throw new Error(added.problem);
    return added.change.document;
  };
  test('a spot says that its block is occupied, and never that it is free', () => {
    const d = withSpot('optical', 33);
    const program = compileSystem(d).program.declarations;
    const occupied = program.filter(({ name, expr }) => name.startsWith('occupied.') && expr?.op === 'or');
    expect(occupied).toHaveLength(1);
    const last = d.sensors.at(-1)!;
    const alone = { ...d, sensors: [last] };
    for (const { name: rule, expr } of compileSystem(alone).program.declarations)
      if (rule.startsWith('occupied.')) expect(expr).toEqual({ op: 'true' });
    expect(program.some((declaration) => declaration.name === names.seen(last))).toBe(true);
  });
  test('a spot that a fast train can pass between two scans is told, with the trains it never notices', () => {
    const slow = viewDesign(withSpot('treadle', 33));
    expect(slow.findings.filter(({ kind }) => kind === 'spot that can miss a train')).toEqual([]);
    const fast = withSpot('treadle', 33, (d) => {
      for (const t of d.trains) t.topSpeedKmh = 300;
    });
    const missed = viewDesign(fast).findings.filter(({ kind }) => kind === 'spot that can miss a train');
    expect(missed).toHaveLength(1);
    const blind = viewDesign(withSpot('reed', 33)).findings.find(({ kind }) => kind === 'spot that can miss a train');
    expect(blind?.says).toContain('magnet');
  });
});

describe('the proof covers whatever rehearsals come to, with sensors of every kind', () => {
  test('forty random layouts', () => {
    let compared = 0;
    const kinds = new Set<string>();
    for (let seed = 31_000; seed < 31_000 + ofSweep(40); seed++) {
      const document = withRandomSensors(randomLayout(seed), seed);
      const result = covering(document, [seed * 2, seed * 2 + 1], 4, 20_000);
      expect(result.contradictions, `layout ${seed}`).toEqual([]);
      if (!result.finished) continue;
      compared += 1;
      for (const { kind } of document.sensors) kinds.add(kind);
    }
    expect(compared).toBeGreaterThan(ofSweep(18) - 1);
    if (isWhole) expect([...kinds].sort()).toEqual([...SENSOR_KIND_IDS].sort());
  });
  test('a car that no isolated rail sees is found by the proof, and one that it sees is not', () => {
    const verdict = (plastic: boolean) => {
      const d = learningOval();
      for (const sensor of d.sensors) sensor.kind = 'isolated rail';
      for (const vehicle of d.vehicles)
        vehicle.axles.forEach((axle, i) => {
          axle.feeds = 'nothing';
          axle.plastic = plastic && i > 1;
        });
      const run = new ProofRun(compileSystem(d));
      while (!run.step(5000)) {}
      return run.result().verdicts.filter(({ result }) => result === 'fails').length;
    };
    expect(verdict(false)).toBe(0);
    expect(verdict(true)).toBeGreaterThan(0);
  });
});
