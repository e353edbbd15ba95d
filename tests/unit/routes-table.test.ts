import { describe, expect, test } from 'vitest';
import { checkDesign, viewPoints, viewSignal } from '@/core/design';
import { cm } from '@/core/measure';
import { type LayoutDocument, newDocument } from '@/core/survey';
import { block, gap, signal, turnout } from '@/demo/build';
import { smallValley } from '@/demo/small-valley';

/** What each signal of a layout protects. */
const signalsIn = (d: LayoutDocument) => {
  const design = checkDesign(d);
  return design.scheme.readings.map(({ signal }) => viewSignal(design, signal.id)!);
};

/**
 * All ways of all signals of the demo, written down from the drawing by hand: where each leads, how the points have to
 * lie (+ straight, − diverging), and the blocks that must be free.
 */
const WAYS: Record<string, [to: string, points: string, blocks: string][]> = {
  UC1E: [['ME', 'T4−', 'UB UM']],
  UC2E: [['ME', 'T3+ T4+', 'UB UM']],
  UC3E: [['ME', 'T3− T4+', 'UB UM']],
  UC1W: [['FW', 'T1−', 'UA FM']],
  UC2W: [['FW', 'T2+ T1+', 'UA FM']],
  UC3W: [['FW', 'T2− T1+', 'UA FM']],
  UW: [
    ['UC2W', 'T4+ T3+', 'UB UC2'],
    ['UC3W', 'T4+ T3−', 'UB UC3'],
    ['UC1W', 'T4−', 'UB UC1'],
  ],
  ME: [
    ['M1E', 'T5+ T8+', 'MA M1'],
    ['PD', 'T5+ T8−', 'MA PD'],
    ['M2E', 'T5−', 'MA M2'],
  ],
  M1W: [['UW', 'T8+ T5+', 'MA UM']],
  M2W: [['UW', 'T5−', 'MA UM']],
  PDW: [['UW', 'T8− T5+', 'MA UM']],
  M1E: [['FE', 'T6+', 'MB MF']],
  M2E: [['FE', 'T6−', 'MB MF']],
  MW: [
    ['M1W', 'T6+', 'MB M1'],
    ['M2W', 'T6−', 'MB M2'],
  ],
  FE: [
    ['UE', 'T7+', 'FJ FM'],
    ['SE', 'T7−', 'FJ SB'],
  ],
  FW: [['MW', 'T7+', 'FJ MF']],
  UE: [
    ['UC1E', 'T1−', 'UA UC1'],
    ['UC2E', 'T1+ T2+', 'UA UC2'],
    ['UC3E', 'T1+ T2−', 'UA UC3'],
  ],
  SBW: [['MW', 'T7−', 'FJ MF']],
  SE: [
    ['SK1', 'T9+', 'SA SK1'],
    ['SK2', 'T9− T10+', 'SA SK2'],
    ['SK3', 'T9− T10−', 'SA SK3'],
  ],
  SK1W: [['SBW', 'T9+', 'SA SB']],
  SK2W: [['SBW', 'T10+ T9−', 'SA SB']],
  SK3W: [['SBW', 'T10− T9−', 'SA SB']],
};

describe('the ways ahead of every signal of the demo', () => {
  const signals = signalsIn(smallValley());
  test('every signal is in the table', () =>
    expect(signals.map((s) => s.name).sort()).toEqual(Object.keys(WAYS).sort()));
  test.each(signals.map((s) => [s.name, s] as const))('%s', (name, reading) => {
    const found = reading.routes.map((way) => [
      way.to,
      way.points.map((p) => `${p.turnout}${p.position === 'straight' ? '+' : '−'}`).join(' '),
      way.blocks.join(' '),
    ]);
    expect(found.sort()).toEqual([...WAYS[name]!].sort());
  });
  test('ways into dead ends say that the track ends; all others lead to a signal', () => {
    for (const reading of signals) {
      for (const way of reading.routes) expect(way.ending).toBe(/^(PD|SK\d)$/.test(way.to) ? 'end of track' : 'signal');
    }
  });
  test('the way from ME over the straight points is 54 + 176 cm long', () => {
    const way = signals.find((s) => s.name === 'ME')!.routes.find((w) => w.to === 'M1E')!;
    expect(way.length).toBe(cm(230).tenthUm);
  });
});

test('each turnout is locked by the block it lies in: from the drawing', () => {
  const d = smallValley();
  const design = checkDesign(d);
  const blocksOf = (id: string) =>
    viewPoints(design, id)!.motors[0]!.while.flatMap((says) => /^(.*) is occupied$/.exec(says)?.[1] ?? []);
  const byName = Object.fromEntries(d.turnouts.map((t) => [t.name, blocksOf(t.id).join(' ')]));
  expect(byName).toEqual({
    T1: 'UA',
    T2: 'UA',
    T3: 'UB',
    T4: 'UB',
    T5: 'MA',
    T6: 'MB',
    T7: 'FJ',
    T8: 'MA',
    T9: 'SA',
    T10: 'SA',
  });
});

/** A spur whose gap lies within the clearance of its turnout: a vehicle in the spur can still foul the main line. */
function foulSpur(): LayoutDocument {
  const d = newDocument('Foul');
  d.referenceLine = 'main';
  d.lines = [
    { id: 'main', name: 'main', length: cm(600), drawing: undefined },
    { id: 'spur', name: 'spur', length: cm(150), drawing: undefined },
  ];
  d.turnouts = [turnout('T1', 'main', 250, 'up', 'right', 'spur')];
  d.features = [
    gap('g1', 'main', 200),
    gap('g2', 'main', 300),
    gap('g3', 'spur', 10),
    signal('S', 'main', 200, 'up'),
    signal('S2', 'main', 300, 'up'),
  ];
  for (const [name, line, at] of [
    ['A', 'main', 100],
    ['P', 'main', 270],
    ['B', 'main', 400],
    ['Spur', 'spur', 80],
  ] as const)
    block(d, name, line, at);
  return d;
}

describe('a gap inside the clearance', () => {
  test('the fouled block must be free for the straight way too', () => {
    const { scheme } = checkDesign(foulSpur());
    const straight = scheme.routesOf[0]!.find((w) => w.to === 'S2')!;
    expect(straight.route.fouled.map((b) => scheme.partition.blocks[b]!.name)).toEqual(['Spur']);
  });
  test('the turnout is locked by a vehicle in either block', () =>
    expect(viewPoints(checkDesign(foulSpur()), 't-T1')!.motors[0]!.while).toEqual([
      'P is occupied',
      'Spur is occupied',
      'A train is cleared over T1, or was a moment ago',
    ]));
});

describe('crossings', () => {
  /** Two lines that cross at a diamond, each with a signal before it. */
  const crossing = (kind: 'diamond' | 'double slip' | 'crossover') => {
    const d = newDocument('Crossing');
    d.referenceLine = 'a';
    d.lines = ['a', 'b'].map((id) => ({ id, name: id, length: cm(400), drawing: undefined }));
    d.crossings = [
      {
        id: 'x1',
        name: 'X1',
        kind,
        a: { line: 'a', at: cm(200) },
        b: { line: 'b', at: cm(200) },
        angleDegrees: 30,
        clearance: cm(15),
        certainty: 'fixed',
      },
    ];
    for (const line of ['a', 'b']) {
      d.features.push(gap(`g1${line}`, line, 120), gap(`g2${line}`, line, 300), signal(`S${line}`, line, 120, 'up'));
      block(d, `${line}1`, line, 60);
      block(d, `${line}2`, line, 200);
      block(d, `${line}3`, line, 350);
    }
    return d;
  };
  test('a signal over a diamond needs the crossed line’s block free as well', () => {
    const { scheme } = checkDesign(crossing('diamond'));
    const [way] = scheme.routesOf[0]!;
    expect(way!.route.fouled.map((b) => scheme.partition.blocks[b]!.name)).toEqual(['b2']);
  });
  test('a crossover is said to be read as a diamond so far, a slip is read as it is', () => {
    const kinds = (kind: 'crossover' | 'double slip') => checkDesign(crossing(kind)).findings.map((f) => f.kind);
    expect(kinds('crossover')).toContain('crossing read as a diamond');
    expect(kinds('double slip')).not.toContain('crossing read as a diamond');
  });
});

describe('where the track or the detection ends', () => {
  const line = (change: (d: LayoutDocument) => void) => {
    const d = newDocument('Ends');
    d.referenceLine = 'a';
    d.lines = [{ id: 'a', name: 'a', length: cm(400), drawing: undefined }];
    d.features = [gap('g1', 'a', 100), gap('g2', 'a', 250), signal('S1', 'a', 100, 'up'), signal('S2', 'a', 250, 'up')];
    for (const [name, at] of [
      ['A', 50],
      ['B', 180],
      ['C', 300],
    ] as const)
      block(d, name, 'a', at);
    change(d);
    return signalsIn(d).map((s) => s.routes.map((w) => w.ending));
  };
  test('before a buffer the last signal’s way ends with the track', () =>
    expect(line(() => {})).toEqual([['signal'], ['end of track']]));
  test('before an unwatched block it ends with the detection', () => {
    expect(
      line((d) => {
        d.sensors.pop();
      }),
    ).toEqual([['signal'], ['end of detection']]);
  });
  test('a lone signal on a ring is its own next one: the train that comes round to it meets nobody but itself', () => {
    expect(
      line((d) => {
        d.joins = [{ id: 'j', a: { line: 'a', end: 'end' }, b: { line: 'a', end: 'start' } }];
        d.features = d.features.filter((f) => f.id !== 's-S2');
      }),
    ).toEqual([['signal']]);
  });
});
