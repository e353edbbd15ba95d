import { describe, expect, test } from 'vitest';
import { checkDesign, viewDesign } from '@/core/design';
import type { FindingKind } from '@/core/findings';
import { cm, throwOutside } from '@/core/measure';
import { applyEdit, type Feature, type LayoutDocument, newDocument } from '@/core/survey';
import { readSurvey } from '@/core/walk';
import { turnout } from '@/demo/build';
import { learningOval } from '@/demo/learning-oval';

const found = (d: LayoutDocument, kind: FindingKind) =>
  checkDesign(d).findings.filter((finding) => finding.kind === kind);
const says = (d: LayoutDocument, kind: FindingKind) => found(d, kind).map((finding) => finding.says);
/** What is left of a kind once its first remedy is done. */
function mended(d: LayoutDocument, kind: FindingKind): string[] {
  const [remedy] = found(d, kind)[0]!.fixes;
  const result = applyEdit(d, remedy!.edit);
  if (!result.ok) throw new Error(result.problem);
  return says(result.change.document, kind);
}
const said = (text: string, scale: 'H0' | 'HO' = 'H0'): LayoutDocument => {
  const d = newDocument('Said', scale, 'cm');
  const { additions, bad } = readSurvey(text, d);
  expect(bad).toEqual([]);
  const result = applyEdit(d, { do: 'add things', things: additions, says: 'Said' });
  if (!result.ok) throw new Error(result.problem);
  return structuredClone(result.change.document);
};
const curve = (at: number, to: number, radius: number): Feature => ({
  id: 'x-curve',
  kind: 'curve',
  line: 'oval',
  at: cm(at),
  to: cm(to),
  radius: cm(radius),
  hand: 'left',
  certainty: 'fixed',
});

describe('trains and track that do not fit', () => {
  test('a curve tighter than a vehicle takes', () => {
    const d = learningOval();
    d.features.push(curve(10, 60, 36));
    expect(says(d, 'curve tighter than a vehicle takes')).toEqual([]);
    d.vehicles[0]!.leastRadius = cm(42);
    expect(says(d, 'curve tighter than a vehicle takes')).toEqual([
      'Curve at 10 cm to 60 cm on Oval has a radius of 36 cm, tighter than Engine can take.'.replace(
        ' to 60 cm on Oval',
        '',
      ),
    ]);
    d.vehicles[0]!.leastRadius = cm(36);
    expect(says(d, 'curve tighter than a vehicle takes')).toEqual([]);
    d.trains = [];
    d.vehicles[0]!.leastRadius = cm(42);
    expect(says(d, 'curve tighter than a vehicle takes')).toEqual([]);
  });
  test('throw beside points: the check values’ vehicle, 280 mm long with 180 mm between bogies on 600 mm', () => {
    const d = learningOval();
    d.lines.push({ id: 'leg', name: 'Leg', length: cm(90), drawing: undefined });
    d.turnouts.push({ ...turnout('T1', 'oval', 100, 'up', 'left', 'leg'), number: 6, clearance: cm(20.5) });
    d.vehicles = d.vehicles.map((one) => ({
      ...one,
      length: cm(28),
      axles: [4, 6, 22, 24].map((at) => ({ at: cm(at), feeds: 'motor' as const })),
    }));
    expect(found(d, 'clearance too short for a vehicle’s throw')).toEqual([]);
    d.features.push({ ...curve(5, 60, 60), line: 'leg' });
    /** 9.508 mm out; one in six: 6 gauges of 16.5 to where the centre lines cross, then (34.48 + 9.508)·(6 − 1/24) mm. */
    const needed = Math.ceil(6 * 16.5 + (3000 / 87 + 9.508) * (6 - 1 / 24));
    expect(throwOutside(600, 180, 280)).toBeCloseTo(9.508, 3);
    expect(says(d, 'clearance too short for a vehicle’s throw')).toEqual([
      `On the curve beside T1 Engine swings out by 9.5 mm, so that it is clear of the other leg only at ${needed / 10} cm, not at 20.5 cm.`,
    ]);
    expect(mended(d, 'clearance too short for a vehicle’s throw')).toEqual([]);
    d.features = d.features.map((one) => (one.kind === 'curve' ? { ...one, at: cm(50), to: cm(80) } : one));
    expect(found(d, 'clearance too short for a vehicle’s throw')).toEqual([]);
  });
  test('a gradient, and trains whose brakes nobody measured', () => {
    const d = learningOval();
    d.features.push({
      id: 'x-g',
      kind: 'gradient',
      line: 'oval',
      at: cm(10),
      to: cm(60),
      percent: -2.5,
      certainty: 'fixed',
    });
    expect(says(d, 'brakes not measured on a gradient')[0]).toContain(
      'falls 2.5 % eastbound, and the braking of Red train, Blue train is only',
    );
    /** 9806.65 · 0.025. */
    expect(found(d, 'brakes not measured on a gradient')[0]!.figures[0]!.value).toBe('245 mm/s²');
    d.trains = d.trains.map((train) => ({ ...train, measured: ['braking'] }));
    expect(says(d, 'brakes not measured on a gradient')).toEqual([]);
  });
  test('a lift-out joint that nothing guards', () => {
    const d = learningOval();
    d.features.push({ id: 'x-l', kind: 'liftOut', line: 'oval', at: cm(30), certainty: 'fixed' });
    expect(says(d, 'lift-out without protection')).toHaveLength(1);
    expect(mended(d, 'lift-out without protection')).toEqual([]);
    expect(says(said('line Main 300\nlift-out 100 guarded\nlift-out 200'), 'lift-out without protection')).toHaveLength(
      1,
    );
  });
  test('a leg that ends before it is clear, and one that goes on', () => {
    const text = (leg: number) => `line Leg ${leg}\nline Main 300\nturnout left 100 to Leg start clear 20`;
    expect(says(said(text(15)), 'leg that leads nowhere')).toEqual([
      'The diverging leg of T1 ends 15 cm on, before it is clear of the other leg: nothing can stand on Leg there.',
    ]);
    expect(says(said(text(40)), 'leg that leads nowhere')).toEqual([]);
  });
  test('a double track signalled both ways', () => {
    const text =
      'line North 400 circuit\nline South 400 circuit\nline North\ncrossing crossover 100 with South 100\nsignal up 50\nsignal down 60\nline South\nsignal up 50';
    expect(says(said(text), 'double track without directions')).toEqual([]);
    expect(says(said(`${text}\nsignal down 60`), 'double track without directions')).toHaveLength(1);
  });
});

describe('entered over each other', () => {
  const KIND = 'things that overlap';
  const on = (...rows: string[]) => said(`line Main 500\n${rows.join('\n')}`);
  test('curves, gradients, hidden stretches and roads; those that only meet, and platforms, are none', () => {
    const d = on('curve left r 60 from 40 to 120', 'curve right r 50 from 100 to 180');
    expect(says(d, KIND)).toEqual([
      'Two of Main are entered from 100 cm to 120 cm: the curve 40 cm to 120 cm, and the curve 100 cm to 180 cm.',
    ]);
    expect(mended(d, KIND)).toEqual([]);
    const within = on('grade 2% 40 to 200', 'grade 1% 80 to 120');
    expect(found(within, KIND)[0]!.fixes[0]!.says).toBe('Delete the gradient 80 cm to 120 cm');
    expect(mended(within, KIND)).toEqual([]);
    expect(says(on('hidden 0 to 50', 'hidden 0 to 90'), KIND)).toHaveLength(1);
    expect(mended(on('hidden 0 to 50', 'hidden 0 to 90'), KIND)).toEqual([]);
    expect(says(on('curve left r 60 from 40 to 120', 'curve right r 50 from 120 to 180'), KIND)).toEqual([]);
    expect(says(on('platform 40 to 120 A', 'platform 60 to 140 B', 'grade 2% 60 to 100'), KIND)).toEqual([]);
    expect(says(said('line A 300\nhidden 0 to 90\nline B 300\nhidden 20 to 60'), KIND)).toEqual([]);
  });
  test('turnouts and signals at one place, leading or read the same way', () => {
    const twice = on('turnout left 100 A', 'turnout right 100 B');
    expect(says(twice, KIND)).toEqual(['A and B stand at one place and lead the same way.']);
    expect(says(on('turnout left 100 facing A', 'turnout right 100 trailing B'), KIND)).toEqual([]);
    const seen = on('gap 100', 'signal up 100 S', 'signal up 100 R', 'signal down 100 W');
    expect(says(seen, KIND)).toHaveLength(1);
    expect(mended(seen, KIND)).toEqual([]);
  });
});

describe('taped twice', () => {
  const KIND = 'tapes that disagree';
  const tape = (...rows: string[]) => found(said(`line Main 500\n${rows.join('\n')}`), KIND);
  test('by what two readings of a tape differ, nothing is said', () => {
    /** 3 mm, and 0.2 % of 360 cm: 10.2 mm. */
    expect(tape('taped 120 to 480 is 361')).toEqual([]);
    expect(tape('taped 120 to 480 is 358.98')).toEqual([]);
  });
  test('by more, the difference and both lengths; alone, half of it at a time', () => {
    const [finding] = tape('taped 120 to 480 is 357');
    expect(finding!.says).toBe('Main from 120 cm to 480 cm was taped again and is 3 cm shorter than by its distances.');
    expect(finding!.figures.map(({ value }) => value)).toEqual(['360 cm', '357 cm']);
    expect(finding!.advice).toBe('Measure again 120 cm to 480 cm; half of it at a time tells which half is wrong.');
    expect(tape('taped 120 to 480 is 362')[0]!.says).toContain('2 cm longer');
  });
  test('where other tapes agree, only the rest is to be measured again', () => {
    const long = 'taped 120 to 480 is 357';
    const start = 'taped 100 to 300 is 200';
    expect(tape(long, start)[0]!.advice).toBe('Measure again 300 cm to 480 cm: the rest agrees with other tapes.');
    expect(tape(long, start, 'taped 400 to 500 is 100')[0]!.advice).toBe(
      'Measure again 300 cm to 400 cm: the rest agrees with other tapes.',
    );
    expect(tape(long, start, 'taped 300 to 500 is 200')[0]!.advice).toContain('it was read wrongly itself');
    expect(tape(long, 'taped 100 to 300 is 204')).toHaveLength(2);
  });
  /** By hand: from 100 on Main to the tips at 160 are 60 cm, 40 more on the branch: 100 cm. */
  test('across lines, along the shortest way over the points', () => {
    const track = 'line Main 500\nline Branch 200\nline Main\nturnout left 160 to Branch start clear 20\n';
    const across = (...rows: string[]) => found(said(`${track}${rows.join('\n')}`), KIND);
    expect(across('taped across 100 to Branch 40 is 100')).toEqual([]);
    const [finding] = across('taped across 100 to Branch 40 is 103');
    expect(finding!.says).toBe(
      'The track from 100 cm on Main to 40 cm on Branch was taped again and is 3 cm longer than by its distances.',
    );
    expect(finding!.figures.map(({ value }) => value)).toEqual(['100 cm', '103 cm']);
    expect(across('taped across 100 to Branch 40 is 103', 'taped 100 to 160 is 60')[0]!.advice).toBe(
      'Measure again 0 cm to 40 cm on Branch: the rest agrees with other tapes.',
    );
    expect(across('taped across 300 to Branch 40 is 180')[0]!.says).toMatch(
      /^No train runs from 300 cm on Main to 40 cm on Branch/,
    );
  });
  /** Round a circuit of three lines: 200 + 150 + 130; from 50 on A to 60 on C either 150 + 150 + 60 or 50 + 70 by the joint of A and C. */
  test('round a circuit of several lines it is the shorter way', () => {
    const ring =
      'line A 200\nline B 150\nline C 130\nline A\njoins B start\nline B\njoins C start\nline C\njoins A start\nline A\n';
    expect(found(said(`${ring}taped across 50 to C 60 is 120`), KIND)).toEqual([]);
    expect(found(said(`${ring}taped across 50 to C 60 is 360`), KIND)).toHaveLength(1);
    expect(found(said(`${ring}taped across 150 to C 10 is 210`), KIND)).toEqual([]);
  });
  test('it goes when somebody says so', () => {
    expect(mended(said('line Main 500\ntaped 120 to 480 is 357'), KIND)).toEqual([]);
  });
});

describe('current in the track', () => {
  test('a rail that wheelsets join is a short circuit between two poles, and works where both rails are one', () => {
    const KIND = 'detector that joins the two poles';
    const oval = learningOval();
    const sensors = oval.sensors.map((one) => ({ ...one, kind: 'isolated rail' as const }));
    for (const power of ['two-rail digital', 'two-rail DC'] as const) {
      const d = { ...oval, sensors, power };
      expect(says(d, KIND)).toEqual([expect.stringContaining('such a wheelset is a short circuit')]);
      expect(mended(d, KIND)).toEqual([]);
    }
    for (const power of ['centre rail', 'battery'] as const)
      expect(says({ ...oval, sensors, power }, KIND)).toEqual([]);
    expect(says({ ...oval, sensors: [...oval.sensors.slice(1), sensors[0]!] }, KIND)[0]).toMatch(
      /^B1 notices a wheelset/,
    );
    expect(says(oval, KIND)).toEqual([]);
  });
  test('where there is no current a detector is proposed that needs none', () => {
    const { sensors: _, ...oval } = learningOval();
    const bareOval = { ...oval, sensors: [] };
    const offered = (power: 'battery' | 'two-rail digital') =>
      found({ ...bareOval, power }, 'track without detection').flatMap(({ fixes }) => fixes.map((fix) => fix.says));
    expect(offered('two-rail digital')[0]).toMatch(/^Add a current detector to /);
    expect(offered('battery')[0]).toMatch(/^Add an isolated rail to /);
  });

  /** A line that comes back to its own turnout; its loop is 250 cm long from tips to tips. */
  const loop = 'line Main 400\nturnout left 100 to Main end clear 20\ngap 60\n150\n350';
  test('a reverse loop is a short circuit with two rails, and none with a centre rail or batteries', () => {
    const d = said(loop);
    const KIND = 'track that meets itself the other way round';
    expect(says(d, KIND)[0]).toMatch(/^By T1 the track comes back on itself/);
    expect(mended(d, KIND)).toEqual([]);
    expect(found(d, KIND)[0]!.fixes[0]!.says).toBe('Cut both rails at 150 cm and 350 cm');
    for (const power of ['centre rail', 'battery'] as const) expect(says({ ...d, power }, KIND)).toEqual([]);
    expect(says({ ...d, power: 'two-rail DC' }, KIND)).toHaveLength(1);
    expect(says(learningOval(), KIND)).toEqual([]);
  });
  test('a triangle is one too; a passing loop and a circuit are none', () => {
    const KIND = 'track that meets itself the other way round';
    expect(says(said('line Main 400 circuit\ntriangle 100 to 300 left legs 80 long 90'), KIND)).toHaveLength(1);
    expect(says(said('line Main 400 circuit\npassing loop 100 to 300 left'), KIND)).toEqual([]);
  });
  test('a reversing section that is shorter than the longest train', () => {
    const d = said(loop);
    const both = d.features.map((one) =>
      one.kind === 'gap' && one.at.tenthUm > cm(100).tenthUm ? { ...one, rail: 'both' as const } : one,
    );
    const oval = learningOval();
    const withTrain = (long: number): LayoutDocument => ({
      ...d,
      features: both,
      vehicles: [{ ...oval.vehicles[0]!, length: cm(long) }],
      trains: [{ ...oval.trains[0]!, vehicles: ['v-engine'], start: undefined }],
    });
    expect(says(withTrain(150), 'reversing section shorter than a train')).toEqual([]);
    expect(says(withTrain(210), 'reversing section shorter than a train')).toEqual([
      'The stretch on Main from 150 cm to 350 cm is cut off at both ends in both rails, and 10 cm shorter than the longest train: its wheels bridge both ends at once.',
    ]);
  });
  test('a gap in another rail than the others, looked at along the rails', () => {
    const KIND = 'gap in the other rail';
    const d = learningOval();
    expect(says(d, KIND)).toEqual([]);
    d.features = d.features.map((one) => (one.id === 'g2' ? ({ ...one, rail: 'left' } as Feature) : one));
    expect(says(d, KIND)).toHaveLength(1);
    expect(found(d, KIND)[0]!.subject).toBe('g2');
    expect(mended(d, KIND)).toEqual([]);
    expect(says({ ...d, power: 'centre rail' }, KIND)).toEqual([]);
    /** Two lines that meet start to start: the right rail of one is the left of the other. */
    const back = (rail: string) =>
      said(`line A 200\nline B 200\nstart joins A start\ngap 50 ${rail}\nline A\ngap 50 right\n100`);
    expect(says(back('right'), KIND)).toHaveLength(1);
    expect(says(back('left'), KIND)).toEqual([]);
  });
  test('sections without a feeder, once feeders are entered', () => {
    const KIND = 'section without a feeder';
    const d = said('line Main 400 circuit\ngap 50\n250');
    expect(says(d, KIND)).toEqual([]);
    d.features.push({ id: 'x-f', kind: 'feeder', line: 'L1', at: cm(100), name: 'F1', certainty: 'fixed' });
    expect(says(d, KIND)).toHaveLength(1);
    d.features.push({ id: 'x-f2', kind: 'feeder', line: 'L1', at: cm(300), name: 'F2', certainty: 'fixed' });
    expect(says(d, KIND)).toEqual([]);
  });
  test('a reversing section that no feeder turns round', () => {
    const KIND = 'reversing section that nothing reverses';
    const cut = 'line Main 400\nturnout left 100 to Main end clear 20\ngap 60\n150 both\n350 both\n';
    expect(says(said(cut), KIND)).toEqual([]);
    const fed = said(`${cut}feeder 30\n120\n250`);
    expect(says(fed, KIND)).toHaveLength(1);
    expect(says(fed, KIND)[0]).toMatch(/^The stretch on Main from 150 cm to 350 cm is fed the same way round/);
    expect(mended(fed, KIND)).toEqual([]);
    expect(says(said(`${cut}feeder 30\n250 reverses`), KIND)).toEqual([]);
    expect(says({ ...fed, power: 'centre rail' }, KIND)).toEqual([]);
    expect(says(said('line Main 400 circuit\ngap 50 both\n250 both\nfeeder 100\n300'), KIND)).toEqual([]);
  });
  /** What three boosters feed on a circuit cut in four, told by hand: A 50 to 150, B and C 150 to 250, A 250 to 350, none the rest. */
  test('districts: fed twice, fed by nothing, led from nowhere', () => {
    const d = said(
      'line Main 400 circuit\ngap 50\n150\n250\n350\nfeeder 100 F1 booster A\n170 F2 booster B\n230 F3 booster "C"\n300 F4 booster A\nfeeder 330 F5',
    );
    const design = checkDesign(d);
    expect(
      viewDesign(d, design).districts.map(({ booster, feeders, length }) => [
        booster.name,
        feeders.length,
        length / 1e5,
      ]),
    ).toEqual([
      ['A', 2, 200],
      ['B', 1, 100],
      ['C', 1, 100],
    ]);
    expect(found(d, 'two boosters in one section').map(({ severity, figures }) => [severity, figures])).toEqual([
      [
        'unsafe',
        [
          { name: 'F2', value: 'B' },
          { name: 'F3', value: 'C' },
        ],
      ],
    ]);
    expect(mended(d, 'two boosters in one section')).toEqual([]);
    expect(found(d, 'feeder of no booster')).toHaveLength(1);
    expect(mended(d, 'feeder of no booster')).toEqual([]);
    expect(says(d, 'section without a feeder')).toHaveLength(1);
    expect(viewDesign(learningOval()).districts).toEqual([]);
  });
  test('boosters that share no return are parted in both rails', () => {
    const KIND = 'boosters joined by a rail';
    const d = said(
      'line Main 400 circuit\ngap 50\n150\n250 both\nfeeder 100 F1 booster A\n200 F2 booster B\n300 F3 booster A',
    );
    expect(says(d, KIND)).toEqual([]);
    const apart: LayoutDocument = { ...d, ownReturns: true };
    /** 50 cm parts A from A, 250 cm cuts both; what is left is 150 cm. */
    expect(found(apart, KIND).map(({ subject }) => subject)).toEqual([
      d.features.find(({ at }) => at.tenthUm === cm(150).tenthUm)!.id,
    ]);
    expect(mended(apart, KIND)).toEqual([]);
    expect(says({ ...apart, power: 'battery' }, KIND)).toEqual([]);
  });
  test('on batteries no detector notices a train, and neither does the run', () => {
    const d: LayoutDocument = { ...learningOval(), power: 'battery' };
    expect(says(d, 'detector that needs current in the track')).toEqual([
      'Trains run on batteries, none in the track: 4 detectors will never notice any.',
    ]);
    expect(says(d, 'train no detector sees')).toHaveLength(2);
  });
});
