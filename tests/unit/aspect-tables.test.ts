import { describe, expect, test } from 'vitest';
import { checkDesign, tryByHand } from '@/core/design';
import { ASPECT_SYSTEMS, type AspectSystem, greyOf, NOWHERE } from '@/core/kinds';
import { names } from '@/core/patterns';
import { ProofRun } from '@/core/proof';
import { Rehearsal } from '@/core/simulation';
import {
  applyEdit,
  type LayoutDocument,
  readDocumentText,
  signalsOf,
  systemOf,
  writeDocumentText,
} from '@/core/survey';
import { compileSystem } from '@/core/system';
import { train, vehicle } from '@/demo/build';
import { ring, withTrains } from '@/demo/learning-oval';
import { blockIds } from './block-ids';
import { fork } from './fork';

function signalled(d: LayoutDocument, system: string): LayoutDocument {
  for (const signal of signalsOf(d)) signal.system = system;
  return d;
}
function shown(d: LayoutDocument, occupied: string[], points: Record<string, 'straight' | 'diverging'> = {}) {
  const design = checkDesign(d);
  const values = tryByHand(design, { occupied: blockIds(design, occupied), points });
  return Object.fromEntries(
    signalsOf(d).map((signal) => [signal.name, design.system.program.enums.aspect![values[names.shows(signal)]!]]),
  );
}

describe('four aspects', () => {
  /** Free sections ahead 0, 1, 2, 3 and more: red, single yellow, double yellow, green; British prototype practice. */
  test.each([
    [0, 'stop'],
    [1, 'caution'],
    [2, 'early caution'],
    [3, 'clear'],
    [4, 'clear'],
  ])('%i free sections ahead: %s', (free, aspect) => {
    const d = signalled(ring('Eight', 8, 150), 'four-aspect');
    expect(shown(d, [`B${free + 1}`]).S1).toBe(aspect);
  });
});

describe('speed signals, by a table written from what a signalman would want', () => {
  const d = fork('speed-signals');
  test.each<[string, string[], 'straight' | 'diverging', Record<string, string>]>([
    [
      'straight, all free: the end of the track is announced',
      [],
      'straight',
      { Far: 'clear', Home: 'clear', Last: 'caution' },
    ],
    ['straight, C taken', ['C'], 'straight', { Far: 'clear', Home: 'caution', Last: 'stop' }],
    ['straight, B taken', ['B'], 'straight', { Far: 'caution', Home: 'stop' }],
    [
      'aside, all free: medium, announced before',
      [],
      'diverging',
      { Far: 'approach medium', Home: 'medium clear', Side: 'medium caution' },
    ],
    ['aside, E taken', ['E'], 'diverging', { Far: 'approach medium', Home: 'medium caution', Side: 'stop' }],
    ['aside, D taken', ['D'], 'diverging', { Far: 'caution', Home: 'stop' }],
    ['the points taken', ['X'], 'diverging', { Far: 'caution', Home: 'stop' }],
  ])('%s', (_, occupied, lies, expected) => {
    /** Beyond the fork Side's own way is straight on to the end of its track. */
    const want = { ...expected, ...(expected.Side === 'medium caution' ? { Side: 'caution' } : {}) };
    expect(
      shown(
        d,
        ['Begin', 'A', ...occupied].filter((b) => b === 'Begin' || occupied.includes(b)),
        { [d.turnouts[0]!.id]: lies },
      ),
    ).toMatchObject(want);
  });
});

describe('junction arms', () => {
  test('never both clear: each points state clears one, and an occupied way none', () => {
    const d = fork('junction-arms');
    const t = d.turnouts[0]!.id;
    expect(shown(d, ['Begin'], { [t]: 'straight' }).Home).toBe('clear ahead');
    expect(shown(d, ['Begin'], { [t]: 'diverging' }).Home).toBe('clear aside');
    expect(shown(d, ['Begin', 'D'], { [t]: 'diverging' }).Home).toBe('stop');
    const system = ASPECT_SYSTEMS['junction-arms']!;
    for (const { lit } of system.aspects)
      expect(lit.filter((lamp) => system.lamps[lamp]!.colour === 'clear').length).toBeLessThan(2);
  });
});

describe('every system', () => {
  test.each(Object.entries(ASPECT_SYSTEMS))(
    '%s can be told without colours, begins with stop, and says what it means',
    (_, system: AspectSystem) => {
      const greys = system.aspects.map((aspect) => greyOf(system, aspect));
      expect(new Set(greys).size).toBe(greys.length);
      expect(system.aspects.map(({ stopsIn }) => stopsIn === 0)).toEqual(system.aspects.map((_, i) => i === 0));
      for (const { means, lit } of system.aspects) expect(means.length * lit.length).toBeGreaterThan(0);
    },
  );
  test('one name means one obligation in all of them (49 CFR 236.23, paraphrased: aspects are defined; model practice may choose otherwise)', () => {
    const found = new Map<string, number>();
    for (const { id, stopsIn } of Object.values(ASPECT_SYSTEMS).flatMap(({ aspects }) => [...aspects])) {
      expect(found.get(id) ?? stopsIn, id).toBe(stopsIn);
      found.set(id, stopsIn);
    }
  });
});

describe('what trains do', () => {
  const speedsPast = (lies: 'straight' | 'diverging') => {
    const d = fork('speed-signals');
    d.vehicles = [vehicle('v', 'Railcar', 22, [2, 5, 17, 20], () => true, 200)];
    d.trains = [
      train(
        't',
        'Railcar',
        ['v'],
        100,
        { line: d.lines[0]!.id, at: 60, facing: 'up' },
        { up: 200, down: 200, delayMs: 0, is: 'assumed' },
      ),
    ];
    d.turnouts[0]!.lies = [lies];
    const run = new Rehearsal(compileSystem(d), 1);
    run.command({ kind: 'run', train: 't', on: true });
    const speeds: Record<string, number> = {};
    for (let tick = 0; tick < 50 * 90; tick++)
      run.step((e) => {
        if (e.kind === 'passes') speeds[signalsOf(d)[e.signal]!.name] = run.plant.trains[0]!.speed;
      });
    return speeds;
  };
  test('a way aside is approached and run at medium speed: 48 km/h in H0, 153 mm/s', () => {
    const [straight, aside] = [speedsPast('straight'), speedsPast('diverging')];
    const medium = (48 * 1e6) / 3600 / 87;
    expect(straight.Home).toBeGreaterThan(medium * 1.9);
    expect(aside.Far).toBeGreaterThan(medium * 1.5);
    /** One scan of braking more or less. */
    expect(aside.Home).toBeLessThan(medium + 200 * 0.02 + 1);
    expect(aside.Side).toBeLessThan(medium * 1.02);
  });
});

describe('a system of one’s own', () => {
  const own = (d: LayoutDocument) => d.aspectSystems.at(-1)!;
  const copied = (): LayoutDocument => {
    const result = applyEdit(withTrains(ring('Own', 6, 150), 1, 150), {
      do: 'put aspect system',
      system: {
        name: 'Ours',
        lamps: [
          { shape: 'square', colour: 'stop', head: undefined },
          { shape: 'diamond', colour: 'white', head: undefined },
        ],
        aspects: [
          {
            id: 'danger',
            means: 'Stand.',
            calls: 'the dispatcher',
            stopsIn: 0,
            speed: undefined,
            speedAtNext: undefined,
            leads: undefined,
            lit: [0],
            flashing: undefined,
          },
          {
            id: 'go',
            means: 'Go.',
            calls: undefined,
            stopsIn: undefined,
            speed: { share: undefined, kmh: 40 },
            speedAtNext: undefined,
            leads: undefined,
            lit: [1],
            flashing: undefined,
          },
        ],
      },
    });
    if (!result.ok) throw new Error(result.problem);
    return result.change.document;
  };
  test('is kept, read back, used by signals, and keeps from being deleted while it is', () => {
    const d = copied();
    const used = applyEdit(d, { do: 'signal by', ids: signalsOf(d).map(({ id }) => id), system: own(d).id });
    if (!used.ok) throw new Error(used.problem);
    const next = used.change.document;
    const read = readDocumentText(writeDocumentText(next));
    expect(read.ok && read.document).toEqual(JSON.parse(JSON.stringify(next)));
    expect(systemOf(next, own(d).id).aspects[1]!.stopsIn).toBe(NOWHERE);
    expect(shown(next, ['B4'])).toEqual({ S1: 'go', S2: 'go', S3: 'go', S4: 'danger', S5: 'go', S6: 'go' });
    const gone = applyEdit(next, { do: 'delete', id: own(next).id });
    expect(gone).toMatchObject({ ok: false, problem: expect.stringMatching(/^Ours is the system of: S1, /) });
    expect(applyEdit(d, { do: 'delete', id: own(d).id }).ok).toBe(true);
  });
  test('a stop by another name is a stop for the proof too, beside one that is called so', () => {
    const d = structuredClone(copied());
    const { vehicles, trains } = withTrains(ring('Own', 6, 150), 2, 150);
    Object.assign(d, { vehicles, trains });
    signalsOf(d).forEach((signal, i) => {
      if (i % 2 === 0) signal.system = own(d).id;
    });
    const verdicts = (of: LayoutDocument) => {
      const run = new ProofRun(compileSystem(of), 400_000, new Set());
      while (!run.step(5000));
      return run.result().verdicts.map(({ property, result }) => `${property}: ${result}`);
    };
    const plain = structuredClone(d);
    for (const signal of signalsOf(plain)) signal.system = 'three-aspect';
    expect(verdicts(plain).every((verdict) => verdict.endsWith('holds'))).toBe(true);
    /** “Go” announces no stop: that alone differs, as it does for two aspects. */
    const two = structuredClone(d);
    signalsOf(two).forEach((signal, i) => {
      signal.system = i % 2 === 0 ? 'two-aspect' : 'three-aspect';
    });
    expect(verdicts(d)).toEqual(verdicts(two));
  });
  test.each<[string, (d: LayoutDocument) => void, RegExp]>([
    ['lights a lamp it has not', (d) => own(d).aspects[1]!.lit.push(7), /lights a lamp that “Ours” does not have/],
    [
      'has no stop',
      (d) => {
        own(d).aspects[0]!.stopsIn = 1;
      },
      /does not stop trains/,
    ],
    ['has one aspect', (d) => own(d).aspects.pop(), /fewer than two aspects/],
    [
      'has two of one name',
      (d) => {
        own(d).aspects[1]!.id = 'danger';
      },
      /Two aspects of “Ours” are called “danger”/,
    ],
    [
      'says a speed twice',
      (d) => {
        own(d).aspects[1]!.speed = { share: 0.5, kmh: 40 };
      },
      /speed of “go” is not said, or twice/,
    ],
    [
      'flashes what is dark',
      (d) => {
        own(d).aspects[1]!.flashing = [0];
      },
      /flash that is not lit/,
    ],
    [
      'lights nothing',
      (d) => {
        own(d).aspects[1]!.lit = [];
      },
      /lights no lamp/,
    ],
    [
      'stops twice',
      (d) => {
        own(d).aspects[1]!.stopsIn = 0;
      },
      /second aspect for stop/,
    ],
    [
      'calls a meaning by a name that has another',
      (d) => {
        own(d).aspects[1]!.id = 'caution';
      },
      /“caution” .* means something else/,
    ],
  ])('that %s is refused in words, and nothing of it taken', (_, spoil, says) => {
    const d = structuredClone(copied());
    spoil(d);
    const read = readDocumentText(JSON.stringify(d));
    expect(read.ok ? [] : read.faults.map(({ problem }) => problem)).toContainEqual(expect.stringMatching(says));
  });
  test('a signal by a system that is not there is refused', () => {
    const d = structuredClone(copied());
    signalsOf(d)[0]!.system = 'as99';
    const read = readDocumentText(JSON.stringify(d));
    expect(read.ok ? '' : read.faults[0]!.problem).toBe('There is no aspect system “as99”.');
  });
});
