import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { compileProgram, Interpreter, type Program } from '@/core/logic';
import { Random } from '@/core/simulation';
import { compileSystem } from '@/core/system';
import { smallValley } from '@/demo/small-valley';
import { spokenName } from './rule-named';

/**
 * The demo's main line as a signalman would write it down, from the drawing alone and not from the rule generator:
 * each signal with the block a train reads it from, the blocks it protects, and the next signal. All points straight.
 * Listed in the order of the fixed priority.
 */
type Way = 'east' | 'west';
const TABLE: Record<string, { way: Way; from: string; protects: [string, string]; next: string }> = {
  UC2E: { way: 'east', from: 'UC2', protects: ['UB', 'UM'], next: 'ME' },
  UC2W: { way: 'west', from: 'UC2', protects: ['UA', 'FM'], next: 'FW' },
  UW: { way: 'west', from: 'UM', protects: ['UB', 'UC2'], next: 'UC2W' },
  ME: { way: 'east', from: 'UM', protects: ['MA', 'M1'], next: 'M1E' },
  M1W: { way: 'west', from: 'M1', protects: ['MA', 'UM'], next: 'UW' },
  M1E: { way: 'east', from: 'M1', protects: ['MB', 'MF'], next: 'FE' },
  MW: { way: 'west', from: 'MF', protects: ['MB', 'M1'], next: 'M1W' },
  FE: { way: 'east', from: 'MF', protects: ['FJ', 'FM'], next: 'UE' },
  FW: { way: 'west', from: 'FM', protects: ['FJ', 'MF'], next: 'MW' },
  UE: { way: 'east', from: 'FM', protects: ['UA', 'UC2'], next: 'UC2E' },
};
const BLOCKS = ['UA', 'UC2', 'UB', 'UM', 'MA', 'M1', 'MB', 'MF', 'FJ', 'FM'];
type State = { occupied: boolean; memory: 'none' | Way };

/**
 * What the rules promise, worked out from the table: asked for, free, direction not held against it, no earlier rival.
 * Undefined where two requests that call on ahead keep taking turns: with living memories the first one served keeps its
 * direction, but here the memories are set from outside and stay as they are.
 */
function referee(
  state: Record<string, State>,
  held: string[],
): Record<string, 'stop' | 'caution' | 'clear'> | undefined {
  const names = Object.keys(TABLE);
  const before = (name: string) => names.find((other) => TABLE[other]!.next === name)!;
  /** Next before it: stands in rear and is not known to go the other way, or runs in the block before on the way here. */
  const next = (name: string) => {
    const { way, from } = TABLE[name]!;
    const rear = state[from]!;
    if (rear.occupied && (rear.memory === 'none' || rear.memory === way)) return true;
    return TABLE[before(name)]!.protects.some(
      (block) => block !== from && state[block]!.occupied && state[block]!.memory === way,
    );
  };
  let going = new Set<string>();
  for (let round = 0; ; round++) {
    const last = going;
    if (round > 8) return undefined;
    const may = new Set(
      names.filter((name) => {
        const { way, protects } = TABLE[name]!;
        const asked = next(name) || (next(before(name)) && going.has(before(name)));
        const free = protects.every(
          (block) => !state[block]!.occupied && (state[block]!.memory === 'none' || state[block]!.memory === way),
        );
        return asked && free && !held.includes(name);
      }),
    );
    going = new Set(
      names.filter((name, rank) => {
        const { way, protects } = TABLE[name]!;
        const rival = names
          .slice(0, rank)
          .some(
            (other) =>
              TABLE[other]!.way !== way && may.has(other) && TABLE[other]!.protects.some((b) => protects.includes(b)),
          );
        return may.has(name) && !rival;
      }),
    );
    if (round > 0 && names.every((name) => going.has(name) === last.has(name))) break;
  }
  return Object.fromEntries(
    names.map((name) => [name, !going.has(name) ? 'stop' : going.has(TABLE[name]!.next) ? 'clear' : 'caution']),
  );
}

/** The demo's program with its memories of direction and its hold times turned into inputs that the test sets. */
function opened(): Program {
  const { program } = compileSystem(smallValley());
  return {
    ...program,
    declarations: program.declarations.map((d) =>
      /^(held|occupied|settled)\b/.test(d.name) ? { name: d.name, type: d.type, role: 'input' } : d,
    ),
  };
}

const program = opened();
const compiled = compileProgram(program);
const byText = new Map(program.declarations.map(({ name }) => [spokenName(program, name), name]));
const named = (text: string) => byText.get(text)!;
const slot = (text: string) => compiled.slots.get(named(text))!;
/** The demo's sides: along a chain of plain blocks, or by the block before a block with points. */
const SIDES: Record<string, Record<Way, string>> = {
  UA: { east: 'from FM', west: 'from UC2' },
  UB: { east: 'from UC2', west: 'from UM' },
  MA: { east: 'from UM', west: 'from M1' },
  MB: { east: 'from M1', west: 'from MF' },
  FJ: { east: 'from MF', west: 'from FM' },
};
const sideOf = (block: string, way: Way) =>
  `held.${block}.${SIDES[block]?.[way] ?? (way === 'east' ? 'onward' : 'back')}`;

function shown(state: Record<string, State>, held: string[] = []): Record<string, string> {
  const run = new Interpreter(compiled);
  run.setInput(slot('settled'), 1);
  for (const block of BLOCKS) {
    run.setInput(slot(`occupied.${block}`), state[block]!.occupied ? 1 : 0);
    if (state[block]!.memory !== 'none') run.setInput(slot(sideOf(block, state[block]!.memory as Way)), 1);
  }
  for (const name of held) run.setInput(slot(`hold.${name}`), 1);
  // The memories are read one scan late, as the rules read them, so a few scans pass before things are still.
  for (let scan = 0; scan <= 12; scan++) run.scan(scan * 20);
  return Object.fromEntries(
    Object.keys(TABLE).map((name) => [name, ['stop', 'caution', 'clear'][run.valueOf(named(`signal.${name}`))]!]),
  );
}

/** Two signals of opposite ways that protect the same block never both show proceed. */
function expectNoneOppose(aspects: Record<string, string>): void {
  for (const one in TABLE) {
    for (const two in TABLE) {
      const against =
        TABLE[one]!.way === 'east' &&
        TABLE[two]!.way === 'west' &&
        TABLE[one]!.protects.some((b) => TABLE[two]!.protects.includes(b));
      if (against && aspects[one] !== 'stop' && aspects[two] !== 'stop')
        expect.fail(`${one} and ${two} both show proceed`);
    }
  }
}

const KINDS: State[] = [
  { occupied: false, memory: 'none' },
  { occupied: true, memory: 'east' },
  { occupied: true, memory: 'west' },
];

describe('every aspect of the main line', () => {
  test('for every block empty, or held by an eastbound or a westbound train: 59,049 cases', () => {
    let unsettled = 0;
    const seen = { stop: 0, caution: 0, clear: 0 };
    for (let n = 0; n < 3 ** BLOCKS.length; n++) {
      const state = Object.fromEntries(BLOCKS.map((block, i) => [block, KINDS[Math.floor(n / 3 ** i) % 3]!]));
      const ours = shown(state);
      const theirs = referee(state, []);
      expectNoneOppose(ours);
      if (!theirs) {
        unsettled += 1;
        continue;
      }
      for (const name in TABLE) {
        if (ours[name] !== theirs[name])
          expect.fail(`${name} shows ${ours[name]}, the table says ${theirs[name]}, for ${JSON.stringify(state)}`);
        seen[theirs[name]!] += 1;
      }
    }
    expect(unsettled / 3 ** BLOCKS.length).toBeLessThan(0.02);
    expect(seen.stop).toBeGreaterThan(1000);
    expect(seen.caution).toBeGreaterThan(1000);
    expect(seen.clear).toBeGreaterThan(100);
  }, 300_000);

  test('for every occupancy and memory of the five blocks a signal speaks of, with the others drawn: 77,760 cases', () => {
    const random = new Random(17);
    const memories = ['none', 'east', 'west'] as const;
    const kinds = [false, true].flatMap((occupied) => memories.map((memory): State => ({ occupied, memory })));
    for (const name in TABLE) {
      const { from, protects, next } = TABLE[name]!;
      const near = [...new Set([from, ...protects, ...TABLE[next]!.protects])];
      expect(near).toHaveLength(5);
      for (let n = 0; n < kinds.length ** near.length; n++) {
        const state = Object.fromEntries(
          BLOCKS.map((block) => [block, kinds[Math.floor(random.uniform() * kinds.length)]!]),
        );
        near.forEach((block, i) => {
          state[block] = kinds[Math.floor(n / kinds.length ** i) % kinds.length]!;
        });
        const theirs = referee(state, []);
        if (!theirs) continue;
        const ours = shown(state);
        if (ours[name] !== theirs[name])
          expect.fail(`${name} shows ${ours[name]}, the table says ${theirs[name]}, for ${JSON.stringify(state)}`);
      }
    }
  }, 300_000);

  test('for any occupancy with any memory of direction and any signal held by hand, 20,000 drawn cases', () => {
    const states = fc.record(
      Object.fromEntries(
        BLOCKS.map((b) => [
          b,
          fc.record({
            occupied: fc.boolean(),
            memory: fc.constantFrom('none' as const, 'east' as const, 'west' as const),
          }),
        ]),
      ),
    );
    const holds = fc.subarray(Object.keys(TABLE), { maxLength: 3 });
    let compared = 0;
    fc.assert(
      fc.property(states, holds, (state, held) => {
        const ours = shown(state as Record<string, State>, held);
        const theirs = referee(state as Record<string, State>, held);
        expectNoneOppose(ours);
        if (!theirs) return;
        compared += 1;
        expect(ours).toEqual(theirs);
      }),
      { numRuns: 20_000, seed: 5 },
    );
    expect(compared).toBeGreaterThan(15_000);
  }, 120_000);
});

describe('points', () => {
  const free = Object.fromEntries(BLOCKS.map((b) => [b, { occupied: false, memory: 'none' as const }]));
  /** A train asks for each signal in turn with its whole way free; which points lie wrong for it on the main line. */
  const WRONG: [string, string[]][] = [
    ['UC2E', ['T3', 'T4']],
    ['UW', ['T3', 'T4']],
    ['ME', ['T5', 'T8']],
    ['M1W', ['T5', 'T8']],
    ['M1E', ['T6']],
    ['MW', ['T6']],
    ['FE', ['T7']],
    ['FW', ['T7']],
    ['UE', ['T1', 'T2']],
    ['UC2W', ['T1', 'T2']],
  ];
  test.each(WRONG)(
    '%s shows stop while a point of its way moves, and for trailing points lying wrong',
    (name, turnouts) => {
      const { from, way } = TABLE[name]!;
      const state = { ...free, [from]: { occupied: true, memory: way } };
      expect(shown(state)[name]).not.toBe('stop');
      for (const turnout of turnouts) {
        const run = new Interpreter(compiled);
        run.setInput(slot('settled'), 1);
        run.setInput(slot(`occupied.${from}`), 1);
        run.setInput(slot(sideOf(from, way)), 1);
        run.setInput(slot(`points.${turnout}`), 2);
        for (let scan = 0; scan < 4; scan++) run.scan(scan * 20);
        expect(run.valueOf(named(`signal.${name}`)), `${turnout} between its positions`).toBe(0);
      }
    },
  );
  test('at power-up every signal shows stop until the inputs have settled, whatever stands where', () => {
    const run = new Interpreter(compileProgram(compileSystem(smallValley()).program));
    for (let ms = 0; ms < 200; ms += 20) {
      run.scan(ms);
      for (const name in TABLE) expect(run.valueOf(named(`signal.${name}`))).toBe(0);
    }
  });
});
