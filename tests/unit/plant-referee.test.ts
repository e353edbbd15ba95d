import { describe, expect, test } from 'vitest';
import { checkDesign } from '@/core/design';
import { consistOf, unseenOf } from '@/core/detection';
import { cm, mmOf, runTimeS } from '@/core/measure';
import { layTape, Plant, type PlantEvent, stepOn, turnTape } from '@/core/plant';
import { frameOf, hazardOfEvent, PathRecorder, Rehearsal, sayEvent } from '@/core/simulation';
import { isKind, type LayoutDocument } from '@/core/survey';
import { compileSystem, plantParameters } from '@/core/system';
import { straighten } from '@/core/track';
import { learningOval, ring, withTrains } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { ruleNamed } from './rule-named';

const none = () => ({ speed: 0, startDelay: 0 });

/** A plant without any rules: every signal shows the same, points lie as told. */
function bare(d: LayoutDocument, shown = 'clear') {
  const { scheme } = checkDesign(d);
  const aspect = scheme.aspects.find(({ id }) => id === shown)!;
  const plant = new Plant(plantParameters(d), scheme.partition, scheme.readings, none);
  const lies: Record<string, 'straight' | 'diverging'> = Object.fromEntries(
    d.turnouts.map((t) => [t.name, t.lies[0]!]),
  );
  const events: PlantEvent[] = [];
  const step = () =>
    plant.step(
      (t) => lies[d.turnouts[t]!.name]!,
      () => aspect,
      events,
    );
  return { plant, scheme, lies, events, step };
}

/** Where a train stands, by brute force: its intervals on each line in mm, from its drawn spans. */
const intervals = (plant: Plant, train: number) =>
  plant.positionOf(train).map((s) => ({ line: s.line, low: Math.min(s.from, s.to), high: Math.max(s.from, s.to) }));

function overlap(plant: Plant, one: number, two: number): boolean {
  return intervals(plant, one).some((a) =>
    intervals(plant, two).some((b) => a.line === b.line && a.low < b.high - 1e-6 && b.low < a.high - 1e-6),
  );
}

describe('trains that touch are found at once', () => {
  test('a faster train runs into a slower one: the very step a brute-force comparison sees it', () => {
    const d = withTrains(ring('r', 6, 150), 2, 150);
    d.trains[0]!.topSpeedKmh = 90;
    d.trains[1]!.topSpeedKmh = 20;
    const { plant, events, step } = bare(d);
    let first = -1;
    for (let tick = 0; tick < 50 * 120 && first < 0; tick++) {
      step();
      const reported = events.some((e) => e.kind === 'collision');
      const seen = overlap(plant, 0, 1);
      expect(reported, `at step ${tick}`).toBe(seen);
      if (seen) first = tick;
    }
    expect(first).toBeGreaterThan(100);
  });

  test('two trains on the legs of a turnout touch where the legs are not yet clear', () => {
    const d = smallValley();
    d.trains = [
      { ...d.trains[3]!, id: 'x1', name: 'On main', start: { line: 'main', at: cm(690), facing: 'up' } },
      { ...d.trains[3]!, id: 'x2', name: 'In loop', start: { line: 'm2', at: cm(215), facing: 'up' } },
    ];
    const { plant, events, step } = bare(d);
    plant.trains[1]!.running = true;
    plant.trains[0]!.running = false;
    // The train in the loop trails T6, which lies straight: it is stranded on the points, foul of the main line.
    for (let tick = 0; tick < 50 * 30; tick++) step();
    expect(events.some((e) => e.kind === 'mishap' && e.mishap.kind === 'points wrong')).toBe(true);
    expect(events.some((e) => e.kind === 'collision')).toBe(false);
    plant.trains[0]!.running = true;
    for (let tick = 0; tick < 50 * 30; tick++) step();
    const hit = events.find((e) => e.kind === 'collision');
    expect(hit).toMatchObject({ train: 0, other: 1 });
    const nose = plant.positionOf(0)[0]!.from;
    expect(nose).toBeGreaterThanOrEqual(mmOf(cm(716).tenthUm) - 1);
    expect(nose).toBeLessThan(mmOf(cm(716).tenthUm) + 10);
  });
});

describe('points and ends', () => {
  test('points thrown under a train are reported', () => {
    const d = smallValley();
    d.trains = [{ ...d.trains[0]!, start: { line: 'main', at: cm(320), facing: 'up' } }];
    const { lies, events, step } = bare(d, 'stop');
    step();
    lies.T4 = 'diverging';
    step();
    expect(events).toContainEqual({ kind: 'points moved under', train: 0, motor: 3 });
  });
  test('a turnout is between its positions for its throwing time', () => {
    const { plant, lies, events, step } = bare(smallValley(), 'stop');
    lies.T6 = 'diverging';
    let between = 0;
    for (let i = 0; i < 120; i++) {
      step();
      if (plant.motors[5]!.position === 'between') between += 1;
    }
    expect(between * 20).toBeGreaterThanOrEqual(1460);
    expect(between * 20).toBeLessThanOrEqual(1520);
    expect(events.filter((e) => e.kind === 'points').map((e) => e.kind === 'points' && e.position)).toEqual([
      'between',
      'diverging',
    ]);
  });
  test('a driver stops before a buffer by himself', () => {
    const d = smallValley();
    d.trains = [{ ...d.trains[3]!, start: { line: 'pd', at: cm(60), facing: 'up' } }];
    const { plant, events, step } = bare(d);
    for (let i = 0; i < 50 * 60; i++) step();
    expect(events.some((e) => e.kind === 'mishap')).toBe(false);
    const [span] = plant.positionOf(0);
    expect(span!.from).toBeLessThan(1900);
    expect(span!.from).toBeGreaterThan(1900 - 60);
  });
});

describe('detection follows the axles', () => {
  test('at every step a section is occupied exactly when a detectable axle stands in it (brute force over lines)', () => {
    const d = smallValley();
    const { plant, scheme, step } = bare(d);
    const consists = d.trains.map((t) => consistOf(d, t));
    let looked = 0;
    for (let tick = 0; tick < 50 * 60; tick++) {
      step();
      if (tick % 7 !== 0) continue;
      /** Sections an axle surely stands in, and those it may: within a hundredth of a millimetre of a gap it is on either side. */
      const sure = new Set<number>();
      const may = new Set<number>();
      plant.trains.forEach((_, t) => {
        let behind = 0;
        for (const span of plant.positionOf(t)) {
          const length = Math.abs(span.to - span.from);
          for (const axle of consists[t]!.parts.current.map(({ from }) => from)) {
            if (axle < behind || axle >= behind + length) continue;
            const at = span.from + Math.sign(span.to - span.from) * (axle - behind);
            for (const p of scheme.partition.pieces) {
              if (p.line !== span.line) continue;
              const inside = Math.min(at - p.from / 10_000, p.to / 10_000 - at);
              if (inside > -0.01) may.add(p.section);
              if (inside > 0.01) sure.add(p.section);
            }
          }
          behind += length;
        }
      });
      const seen = [...plant.detected.keys()].filter((section) => plant.detected[section] === 1);
      expect(
        [...sure].filter((section) => !seen.includes(section)),
        `at step ${tick}`,
      ).toEqual([]);
      expect(
        seen.filter((section) => !may.has(section)),
        `at step ${tick}`,
      ).toEqual([]);
      looked += 1;
    }
    expect(looked).toBeGreaterThan(400);
  });
  test('a train’s consist is its vehicles laid end to end', () => {
    const d = smallValley();
    const mail = consistOf(d, d.trains[0]!);
    expect(mail.lengthMm).toBe(240 + 4 * 260);
    expect(mail.parts.current.slice(0, 7).map(({ from }) => from)).toEqual([30, 70, 100, 130, 200, 270, 300]);
    const quarry = consistOf(d, d.trains[2]!);
    expect(quarry.lengthMm).toBe(130 + 11 * 120 - 0);
    expect(unseenOf(d, quarry).tailMm).toBe(30);
    expect(() => consistOf(d, { ...d.trains[0]!, vehicles: ['ghost'] })).toThrow('ghost');
  });
});

describe('motion against the formulas', () => {
  test('from a stand to a signal at stop a train needs the time of the formula', () => {
    const d = withTrains(ring('r', 4, 500), 1, 500);
    const train = d.trains[0]!;
    train.start = { line: 'oval', at: cm(300), facing: 'up' };
    train.accelerationMmPerS2 = 80;
    train.brakingMmPerS2 = 80;
    train.startDelayMs = 0;
    const { plant, step } = bare(d, 'stop');
    let ticks = 0;
    do {
      step();
      ticks += 1;
    } while (plant.trains[0]!.speed > 0);
    const run = plant.trains[0]!.head;
    expect(run).toBeGreaterThan(4450);
    expect(run).toBeLessThan(4460.001);
    expect(ticks * 0.02).toBeCloseTo(runTimeS(run, plant.trains[0]!.figures.topMmPerS, 80), 0);
  });
  test('past a signal at caution a train runs at half speed', () => {
    const { plant, step, events } = bare(withTrains(ring('r', 4, 300), 1, 300), 'caution');
    for (let i = 0; i < 50 * 20; i++) step();
    expect(events.some((e) => e.kind === 'passes' && e.aspect.id === 'caution')).toBe(true);
    expect(plant.trains[0]!.speed).toBeCloseTo(plant.trains[0]!.figures.topMmPerS / 2, 6);
  });
});

describe('the tape of a train', () => {
  const { scheme } = checkDesign(smallValley());
  const straight = () => 'straight' as const;
  test('a train longer than its piece lies back over the boundaries behind it', () => {
    const piece = scheme.partition.pieces.find((p) => p.line === 'main' && p.from === cm(524).tenthUm)!;
    const tape = layTape(scheme.partition, piece, 1, 5600, 1000, straight)!;
    expect(tape[0]!.from).toBeLessThanOrEqual(-1000);
    expect(tape.map((t) => scheme.partition.blocks[scheme.partition.pieces[t.piece]!.block]!.name)).toEqual([
      'UM',
      'MA',
      'MA',
      'MA',
      'M1',
    ]);
    for (let i = 1; i < tape.length; i++) expect(tape[i]!.from).toBeCloseTo(tape[i - 1]!.to, 6);
  });
  test('a dead end behind the nose is too short', () => {
    const piece = scheme.partition.pieces.find((p) => p.line === 'pd' && p.to === cm(190).tenthUm)!;
    expect(layTape(scheme.partition, piece, 0, 1500, 1000, straight)).toBeUndefined();
  });
  test('turning twice is no turn at all', () => {
    const piece = scheme.partition.pieces.find((p) => p.line === 'main' && p.from === cm(524).tenthUm)!;
    const tape = layTape(scheme.partition, piece, 1, 5600, 1000, straight)!;
    const twice = turnTape(turnTape(tape, 0, 1000), 0, 1000);
    const ground = (list: typeof tape) => list.filter((t) => t.to > -1000 && t.from < 0).map((t) => [t.piece, t.exit]);
    expect(ground(twice)).toEqual(ground(tape));
  });
  test('a step over points set against it says so; at a buffer the track ends', () => {
    const leg = scheme.partition.pieces.find((p) => p.line === 'm2' && p.from === 0)!;
    expect(stepOn(scheme.partition, leg, 0, straight)).toMatchObject({ kind: 'points wrong', motor: 4 });
    expect(stepOn(scheme.partition, leg, 0, () => 'diverging')).toMatchObject({ kind: 'on' });
    const dock = scheme.partition.pieces.find((p) => p.line === 'pd' && p.to === cm(190).tenthUm)!;
    expect(stepOn(scheme.partition, dock, 1, straight)).toEqual({ kind: 'end of track' });
  });
});

describe('what a screen is told', () => {
  const d = smallValley();
  const rehearsal = new Rehearsal(compileSystem(d), 1);
  const said: string[] = [];
  const recorder = new PathRecorder(rehearsal, straighten(d));
  for (let i = 0; i < 50 * 90; i++) {
    rehearsal.step((event) => {
      const says = sayEvent(rehearsal, event);
      if (says) said.push(says);
      expect(hazardOfEvent(event)).toBeUndefined();
    });
  }
  const frame = frameOf(rehearsal);
  test('trains at their true length, whatever track they lie on', () => {
    for (const [t, train] of frame.trains.entries()) {
      const length = train.spans.reduce((sum, s) => sum + Math.abs(s.to - s.from), 0);
      expect(length).toBeCloseTo(consistOf(d, d.trains[t]!).lengthMm, 6);
    }
  });
  test('events in sentences', () => {
    expect(said).toContain('Night mail starts');
    expect(said.some((s) => /^Morning stopper passes M1E at (clear|caution)$/.test(s))).toBe(true);
    expect(said.some((s) => /^Skerrin railcar stands before SBW$/.test(s))).toBe(true);
  });
  test('an aspect for every signal, a position for every turnout, and occupied blocks by id', () => {
    expect(frame.aspects).toHaveLength(d.features.filter(isKind('signal')).length);
    expect(frame.points.every((p) => p === 'straight')).toBe(true);
    expect(frame.occupied).toContain('block b-UC3');
  });
  test('graph samples: nose ahead of tail on the ruler of an eastbound train', () => {
    const [mail] = recorder.sample().trains;
    expect(mail!.tick).toBe(rehearsal.tick);
    const round = 11_800;
    const long = ((mail!.head - mail!.tail) / 10_000 + round) % round;
    expect(long).toBeCloseTo(1280, 0);
  });
  test('commands that cannot be carried out say why', () => {
    const run = new Rehearsal(compileSystem(learningOval()), 1);
    expect(run.command({ kind: 'throw', turnout: 'x', to: 'straight' })).toContain('no longer there');
    expect(run.command({ kind: 'hold', signal: 'x', on: true })).toContain('no longer there');
    expect(run.command({ kind: 'run', train: 'x', on: true })).toContain('not on the track');
    while (run.plant.trains[0]!.speed === 0) run.step();
    expect(run.command({ kind: 'turn back', train: 'tr1' })).toContain('still moving');
  });
  test('a train turned back runs the other way, and its direction is told to the line', () => {
    const run = new Rehearsal(compileSystem(smallValley()), 1);
    for (let i = 0; i < 50 * 40; i++) run.step();
    const railcar = run.plant.trains[3]!;
    expect(railcar.speed).toBe(0);
    expect(run.command({ kind: 'turn back', train: 'tr-railcar' })).toBeUndefined();
    const before = run.plant.positionOf(3)[0]!.from;
    for (let i = 0; i < 50 * 30; i++) run.step();
    const after = run.plant.positionOf(3);
    expect(after[0]!.line).toBe('sk');
    expect(after[0]!.from).toBeGreaterThan(before);
    expect(
      ['held.SB.onward', 'held.SB.back']
        .map((text) => run.controller.evaluator.valueOf(ruleNamed(run.system.program, text)))
        .sort(),
    ).toEqual([0, 1]);
  });
});
