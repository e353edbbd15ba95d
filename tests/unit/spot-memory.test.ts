import { describe, expect, test } from 'vitest';
import { checkDesign, tryByHand } from '@/core/design';
import { divideTrack } from '@/core/detection';
import { cm } from '@/core/measure';
import { ProofRun, STANDARD_SWITCHES, type Switch } from '@/core/proof';
import { hazardOfEvent, Rehearsal } from '@/core/simulation';
import type { LayoutDocument, Sensor } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { compileTrack } from '@/core/track';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { ring, withTrains } from '@/demo/learning-oval';
import { Draw } from '../../tools/fuzz/draw';

/** A ring of blocks of 120 cm without any detector of sections: two spots at each boundary, so far apart. */
function told(
  blocks: number,
  trains: number,
  apart = 20,
  kind: Sensor['kind'] = 'optical',
  bothWays = false,
  long = 120,
): LayoutDocument {
  const d = withTrains(ring('Told', blocks, long), trains, long);
  const spot = (id: string, at: number): Sensor => ({
    id,
    name: id.toUpperCase(),
    kind,
    anchor: { line: 'oval', at: cm(((at % (blocks * long)) + blocks * long) % (blocks * long)) },
    holdMs: 200,
    input: undefined,
    certainty: 'fixed',
  });
  d.features = d.features.flatMap((one): typeof d.features => {
    if (one.kind === 'gap') return [{ id: one.id, kind: 'mark', line: one.line, at: one.at, certainty: 'fixed' }];
    return bothWays && one.kind === 'signal'
      ? [one, { ...one, id: `${one.id}d`, name: `${one.name}d`, governs: 'down' }]
      : [one];
  });
  d.sensors = Array.from({ length: blocks }, (_, i) => {
    const at = i * long + long / 2;
    return [spot(`a${i}`, at - apart / 2), spot(`b${i}`, at + apart / 2)];
  }).flat();
  return d;
}
function run(d: LayoutDocument, seconds: number, seed = 1) {
  const rehearsal = new Rehearsal(compileSystem(d), seed);
  const hazards = new Set<string>();
  for (const { id } of d.trains) rehearsal.command({ kind: 'run', train: id, on: true });
  for (let tick = 0; tick < seconds * 50; tick++)
    rehearsal.step((event) => {
      const hazard = hazardOfEvent(event);
      if (hazard) hazards.add(hazard);
    });
  return { rehearsal, hazards: [...hazards], ran: rehearsal.plant.trains.map(({ head }) => head) };
}

describe('a block told by spots', () => {
  test('needs a pair at each end, of what notices whole vehicles, and nothing that watches it throughout', () => {
    const toldIn = (d: LayoutDocument) => {
      const { blocks, inferred: known } = divideTrack(d, compileTrack(d));
      return blocks.filter(({ index }) => known.has(index)).map(({ name }) => name);
    };
    const d = told(4, 2);
    expect(toldIn(d).sort()).toEqual(['B1', 'B2', 'B3', 'B4']);
    /** The boundary at 60 cm has lost a spot: neither of its blocks can be told. */
    expect(toldIn({ ...d, sensors: d.sensors.filter(({ id }) => id !== 'a0') }).sort()).toEqual(['B2', 'B3']);
    expect(toldIn(told(4, 2, 20, 'reed'))).toEqual([]);
    const watched: Sensor = { ...d.sensors[0]!, id: 'w', name: 'W', kind: 'current' };
    expect(toldIn({ ...d, sensors: [...d.sensors, watched] })).toEqual([]);
  });
  test('trains follow each other round without harm, and get on', () => {
    const { hazards, ran } = run(told(5, 2), 600);
    expect(hazards).toEqual([]);
    for (const head of ran) expect(head).toBeGreaterThan(20_000);
  });
  test('in twenty-five random runs with turning back, lifting off and setting down nobody meets', () => {
    let turns = 0;
    for (let seed = 1; seed <= 25; seed++) {
      const draw = new Draw(seed);
      const d = told(draw.whole(4, 6), 2, draw.whole(6, 30), 'optical', true);
      const rehearsal = new Rehearsal(compileSystem(d), seed);
      const hazards = new Set<string>();
      for (let tick = 0; tick < 15_000; tick++) {
        if (tick % 100 === 0) {
          const train = draw.pick(d.trains).id;
          const command = draw.pick([
            { kind: 'run', train, on: true },
            { kind: 'run', train, on: true },
            { kind: 'run', train, on: false },
            { kind: 'turn back', train },
            { kind: 'lift off', train },
            { kind: 'set down', train },
          ] as const);
          if (rehearsal.command(command) === undefined && command.kind === 'turn back') turns += 1;
        }
        rehearsal.step((event) => {
          const hazard = hazardOfEvent(event);
          if (hazard) hazards.add(hazard);
        });
      }
      expect({ seed, hazards: [...hazards] }).toEqual({ seed, hazards: [] });
    }
    expect(turns).toBeGreaterThan(100);
  });
  test.each([
    [4, 1, false, []],
    [4, 2, false, []],
    [3, 2, false, []],
    [3, 1, true, []],
  ])('%d blocks and %d trains are looked at in every state, both ways: %s', (blocks, trains, bothWays, expected) => {
    const proof = new ProofRun(compileSystem(told(blocks, trains, 20, 'optical', bothWays)), 400_000);
    while (!proof.step(20_000));
    expect(
      proof
        .result()
        .verdicts.map(({ property, result }) => [property, result])
        .filter(([, one]) => one !== 'holds'),
    ).toEqual(expected);
  });
  /** It stands over the spots as power comes up: nobody knows which way it came, so that the block behind it stays occupied. Safe, but stuck. */
  test('a train longer than its block meets nobody, but may leave a block occupied that a person has to free', () => {
    const failing = (switches: ReadonlySet<Switch>) => {
      const proof = new ProofRun(compileSystem(told(6, 1, 12, 'optical', false, 40)), 400_000, switches);
      while (!proof.step(20_000));
      return proof.result().verdicts.flatMap(({ property, result }) => (result === 'holds' ? [] : [property]));
    };
    const nobody = new Set([...STANDARD_SWITCHES].filter((one) => one !== 'say free'));
    expect([failing(nobody), failing(STANDARD_SWITCHES)]).toEqual([['deadlock'], []]);
  });
  /** Both poke over their spots and withdraw: what is seen is the same as of a train that goes out. No rule can tell them apart. */
  test('two trains that turn back at one boundary are taken for one that went out, and the proof finds it', () => {
    const example = exampleLayout(EXAMPLES.find(({ id }) => id === 'spots')!);
    const failing = (switches: ReadonlySet<Switch>) => {
      const proof = new ProofRun(compileSystem(example), 400_000, switches);
      while (!proof.step(20_000));
      return proof.result().verdicts.filter(({ result }) => result === 'fails');
    };
    const found = failing(STANDARD_SWITCHES).find(({ property }) => property === 'two trains in a block')!;
    expect(found.counterexample!.filter(({ says }) => says.includes('turns back')).length).toBeGreaterThan(1);
    const without = new Set([...STANDARD_SWITCHES].filter((one) => one !== 'turn back'));
    expect(failing(without).map(({ property }) => property)).toEqual([]);
  });
  test('findings: what it gets wrong is told, a pair that a short train slips through is unsafe, and one that lacks', () => {
    const kinds = (d: LayoutDocument) => checkDesign(d).findings.map(({ kind, severity }) => `${severity} ${kind}`);
    const usual = kinds(told(4, 1));
    expect(usual.filter((kind) => kind === 'check block inferred from spots alone')).toHaveLength(4);
    expect(usual).not.toContain('check track without detection');
    expect(kinds(told(4, 1, 60))).toContain('unsafe spots farther apart than a train is long');
    const lacking = { ...told(4, 1), sensors: told(4, 1).sensors.filter(({ id }) => id !== 'a0') };
    expect(kinds(lacking).filter((kind) => kind === 'check block inferred from spots at one end only')).toHaveLength(2);
    expect(kinds(lacking)).toContain('check track without detection');
  });
  test('tried by hand: an axle put down is taken for a train, the others are free', () => {
    const d = told(4, 0);
    const design = checkDesign(d);
    const block = design.scheme.partition.blocks[0]!;
    const values = tryByHand(design, { occupied: [block.id], points: {} });
    const occupied = design.scheme.partition.blocks.filter(({ id }) => values[`occupied.${id}`] === 1);
    expect(occupied.map(({ id }) => id)).toEqual([block.id]);
  });
});
