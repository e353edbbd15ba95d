import { describe, expect, test } from 'vitest';
import { cm, stoppingDistanceMm } from '@/core/measure';
import { Random, Rehearsal, type RehearsalEvent, replay, type TimedCommand } from '@/core/simulation';
import { type LayoutDocument, readDocument } from '@/core/survey';
import { compileSystem, Digest } from '@/core/system';
import { learningOval, ring, withTrains } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';

const SECOND = 50;
const hazard = (event: RehearsalEvent) =>
  ['collision', 'mishap', 'points moved under'].includes(event.kind) ||
  (event.kind === 'passes' && event.aspect.id === 'stop');

function run(document: LayoutDocument, seconds: number, seed = 1, at?: (second: number, rehearsal: Rehearsal) => void) {
  const rehearsal = new Rehearsal(compileSystem(document), seed);
  const hazards: string[] = [];
  for (let tick = 0; tick < seconds * SECOND; tick++) {
    if (tick % SECOND === 0) at?.(tick / SECOND, rehearsal);
    rehearsal.step((event) => {
      if (hazard(event)) hazards.push(`${rehearsal.tick / SECOND} s: ${JSON.stringify(event)}`);
    });
  }
  return { rehearsal, hazards };
}

describe('chance', () => {
  test('PCG32 gives the published numbers for seed 42, sequence 54 (demo output of the generator’s authors, from memory)', () => {
    const random = new Random(42, 54);
    expect(Array.from({ length: 6 }, () => random.next32())).toEqual([
      0xa15c02b7, 0x7b47f409, 0xba1d3330, 0x83d2f293, 0xbfa4784b, 0xcbed606e,
    ]);
  });
  test('normal deviates have mean 0 and deviation 1', () => {
    const random = new Random(3);
    const values = Array.from({ length: 20_000 }, () => random.normal());
    const mean = values.reduce((a, b) => a + b) / values.length;
    expect(mean).toBeCloseTo(0, 1);
    expect(Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / values.length)).toBeCloseTo(1, 1);
  });
  test('FNV-1a, 32 bit: the first lane of four bytes “foob” is the published hash (reference implementation, from memory)', () => {
    const hash = new Digest();
    hash.add(0x626f6f66);
    expect(hash.text.slice(0, 8)).toBe('3f5076ef');
  });
});

describe('motion', () => {
  test('a train brakes to stand before a signal at stop, never past it, and within its braking distance of top speed', () => {
    const d = withTrains(ring('r', 6, 300), 1, 300);
    d.trains.push({ ...d.trains[0]!, id: 'tr9', name: 'Blocker', start: { line: 'oval', at: cm(1100), facing: 'up' } });
    let lit = 0;
    const { rehearsal, hazards } = run(d, 120, 1, (_, r) => {
      const train = r.plant.trains[0]!;
      lit = Math.max(lit, train.speed);
      r.command({ kind: 'run', train: 'tr9', on: false });
    });
    expect(hazards).toEqual([]);
    const train = rehearsal.plant.trains[0]!;
    expect(train.speed).toBe(0);
    const { topMmPerS, brakingMmPerS2 } = train.figures;
    expect(lit).toBeGreaterThan(topMmPerS * 0.99);
    expect(stoppingDistanceMm(topMmPerS, 0, brakingMmPerS2)).toBeLessThan(3000);
  });
  test('a section is occupied while a detectable axle stands in it, and by nothing else', () => {
    const d = smallValley();
    const { rehearsal } = run(d, 1);
    const seen = rehearsal.system.partition.blocks
      .filter((b) => rehearsal.plant.detected[b.section])
      .map((b) => b.name);
    expect(seen.sort()).toEqual(['M1', 'SK1', 'UC2', 'UC3']);
  });
});

describe('the same run everywhere', () => {
  const commands: TimedCommand[] = [
    { tick: 100, command: { kind: 'throw', turnout: 't-T5', to: 'diverging' } },
    { tick: 900, command: { kind: 'hold', signal: 's-M1E', on: true } },
    { tick: 2000, command: { kind: 'hold', signal: 's-M1E', on: false } },
    { tick: 2500, command: { kind: 'run', train: 'tr-mail', on: false } },
  ];
  test('same document, seed and commands give the same trace; another seed or command another', () => {
    const hash = (seed: number, list = commands) => replay(compileSystem(smallValley()), seed, 6000, list).traceHash;
    expect(hash(1)).toBe(hash(1));
    expect(hash(2)).not.toBe(hash(1));
    expect(hash(1, commands.slice(1))).not.toBe(hash(1));
  });
  test('a document that went out as a file and came back runs the same', () => {
    const reading = readDocument(JSON.parse(JSON.stringify(smallValley())));
    if (!reading.ok) throw new Error('the demo is faulty');
    expect(replay(compileSystem(reading.document), 1, 3000, commands).traceHash).toBe(
      replay(compileSystem(smallValley()), 1, 3000, commands).traceHash,
    );
  });
  test('skipping settled scans gives the same trace as evaluating every scan', () => {
    const hash = (skipSettled: boolean) => {
      const rehearsal = new Rehearsal(compileSystem(smallValley()), 4, { skipSettled });
      for (let i = 0; i < 6000; i++) rehearsal.step();
      return rehearsal.traceHash;
    };
    expect(hash(true)).toBe(hash(false));
  });
});

/** A ring of N blocks with K trains moves on if and only if K < N. Source: counting argument, each move needs a free block ahead. */
describe('a ring of N blocks with K trains under the automatic block', () => {
  const laps = (n: number, k: number) => {
    const { rehearsal, hazards } = run(withTrains(ring('r', n, 150), k, 150), 600);
    expect(hazards).toEqual([]);
    return rehearsal.plant.trains.map((t) => t.head / (n * 1500));
  };
  test.each([
    [2, 1],
    [3, 1],
    [3, 2],
    [4, 3],
    [5, 4],
    [6, 3],
    [6, 5],
    [8, 7],
  ])('N = %i, K = %i circulates', (n, k) => {
    for (const lap of laps(n, k)) expect(lap).toBeGreaterThan(1);
  });
  test.each([[2], [3], [4], [6]])('N = K = %i stands still', (n) => {
    for (const lap of laps(n, n)) expect(lap).toBeLessThan(0.1);
  });
});

describe('the demo', () => {
  test('left running for an hour on the main circuit, nothing collides and every block rule is kept', () => {
    const { rehearsal, hazards } = run(smallValley(), 3600);
    expect(hazards).toEqual([]);
    for (const train of rehearsal.plant.trains.slice(0, 2)) expect(train.head / 11_800).toBeGreaterThan(20);
  });

  test('with turnouts thrown, signals held and trains turned back at random for an hour, nothing is harmed', () => {
    for (const seed of [1, 2, 3]) {
      const random = new Random(seed, 7);
      const pick = <T>(list: T[]): T => list[Math.floor(random.uniform() * list.length)]!;
      const d = smallValley();
      const signals = d.features.filter((f) => f.kind === 'signal');
      const { rehearsal, hazards } = run(d, 3600, seed, (second, r) => {
        if (second % 3 === 0)
          r.command({
            kind: 'throw',
            turnout: pick(d.turnouts).id,
            to: random.uniform() < 0.7 ? 'straight' : 'diverging',
          });
        if (second % 40 === 0) r.command({ kind: 'hold', signal: pick(signals).id, on: random.uniform() < 0.3 });
        if (second % 5 === 0)
          for (const s of signals) if (random.uniform() < 0.2) r.command({ kind: 'hold', signal: s.id, on: false });
        if (second % 61 === 0) {
          const train = pick(r.plant.trains);
          if (train.speed === 0) r.command({ kind: 'turn back', train: train.figures.id });
        }
        if (second % 10 === 0)
          for (const train of r.plant.trains)
            if (train.stranded) r.command({ kind: 'run', train: train.figures.id, on: true });
      });
      expect(
        hazards.filter((h) => !h.includes('"fell":true')),
        `seed ${seed}`,
      ).toEqual([]);
      expect(rehearsal.plant.trains.reduce((sum, t) => sum + t.tapeChanges, 0)).toBeGreaterThan(100);
    }
  }, 120_000);

  test('opposing trains on the single line never both get proceed, and one of them goes on', () => {
    const d = smallValley();
    d.trains[1]!.start = { line: 'main', at: cm(534), facing: 'down' };
    const { hazards, rehearsal } = run(d, 300, 1, (_, r) => {
      const shows = (name: string) => r.aspectAt(r.system.readings.findIndex((s) => s.signal.name === name)).id;
      expect(shows('UC2E') !== 'stop' && shows('M1W') !== 'stop').toBe(false);
    });
    expect(hazards).toEqual([]);
    expect(Math.max(...rehearsal.plant.trains.slice(0, 2).map(({ head }) => head))).toBeGreaterThan(1000);
  });

  test('a turnout refuses to move under a train and while one is cleared over it', () => {
    const d = smallValley();
    const rehearsal = new Rehearsal(compileSystem(d), 1);
    const refused: string[] = [];
    for (let tick = 0; tick < 300 * SECOND; tick++) {
      if (tick % 250 === 0 || tick % 250 === 100)
        rehearsal.command({ kind: 'throw', turnout: 't-T6', to: tick % 250 === 0 ? 'diverging' : 'straight' });
      rehearsal.step((event) => {
        if (event.kind === 'refused') refused.push(d.turnouts[event.motor]!.name);
        expect(hazard(event)).toBe(false);
      });
    }
    expect(refused.length).toBeGreaterThan(10);
  });
});

describe('power-up', () => {
  test('trains that stand where nobody knows how they came are not lost: a lone train still runs', () => {
    const { rehearsal } = run(learningOval(), 60);
    expect(Math.min(...rehearsal.plant.trains.map((t) => t.head))).toBeGreaterThan(1000);
  });
  test('a train that does not fit on its track is named, and the others run', () => {
    const d = smallValley();
    d.trains[0]!.start = { line: 'pd', at: cm(150), facing: 'down' };
    const rehearsal = new Rehearsal(compileSystem(d), 1);
    expect(rehearsal.plant.notPlaced).toHaveLength(1);
    expect(rehearsal.plant.trains).toHaveLength(3);
  });
});
