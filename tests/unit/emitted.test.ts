import { describe, expect, test } from 'vitest';
import { compileProgram, Emitted, emitWasm, Interpreter, layoutOf, startWasm } from '@/core/logic';
import { Rehearsal, replay } from '@/core/simulation';
import { compileSystem } from '@/core/system';
import { smallValley } from '@/demo/small-valley';
import { Draw, randomLine } from './random-line';
import { INPUTS, randomProgram } from './random-program';
import { ofSweep } from './sweep';

const PROGRAMS = ofSweep(100_000);

describe('emitted WebAssembly against the interpreter', () => {
  test(`${PROGRAMS} random programs and inputs: every value of every scan is the same, settled scans skipped or not`, {
    timeout: 1_800_000,
  }, () => {
    let skipped = 0;
    for (let seed = 0; seed < PROGRAMS; seed++) {
      const draw = new Draw(seed);
      const compiled = compileProgram(randomProgram(draw));
      const referee = new Interpreter(compiled, false);
      const emitted = new Emitted(compiled, seed % 2 === 0);
      const lazy = new Interpreter(compiled, true);
      let now = 0;
      for (let change = 0; change < 6; change++) {
        const slot = draw.below(INPUTS.length);
        const value = draw.below(slot === 3 ? 3 : 2);
        for (const each of [referee, emitted, lazy]) each.setInput(slot, value);
        for (let scans = 1 + draw.below(6); scans > 0; scans--, now += 20) {
          referee.scan(now);
          emitted.scan(now);
          lazy.scan(now);
          for (let i = 0; i < compiled.slotCount; i++) {
            if (emitted.values[i] !== referee.values[i] || lazy.values[i] !== referee.values[i])
              expect.fail(
                `program ${seed}, ${compiled.names[i]} at ${now} ms: interpreted ${referee.values[i]}, skipping ${lazy.values[i]}, emitted ${emitted.values[i]}`,
              );
          }
        }
      }
      skipped += emitted.skipped;
    }
    expect(skipped).toBeGreaterThan(PROGRAMS / 2);
  });

  test('a run of the demo has the same trace interpreted or emitted, skipping or not', () => {
    const hashes = [{}, { interpreted: true }, { skipSettled: false }, { interpreted: true, skipSettled: false }].map(
      (options) => {
        const run = new Rehearsal(compileSystem(smallValley()), 3, options);
        for (let i = 0; i < 15_000; i++) run.step();
        return run.traceHash;
      },
    );
    expect(new Set(hashes)).toEqual(new Set([hashes[0]]));
  });
  test('so has one of each of twenty random layouts', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const emitted = replay(compileSystem(randomLine(seed)), seed, 4000, []);
      const referee = new Rehearsal(compileSystem(randomLine(seed)), seed, { interpreted: true, skipSettled: false });
      for (let i = 0; i < 4000; i++) referee.step();
      expect(emitted.traceHash).toBe(referee.traceHash);
    }
  });
});

describe('untimed code, in which a timer ends when it is told to', () => {
  const compiled = compileProgram({
    scanMs: 20,
    enums: {},
    declarations: [
      { name: 'a', type: 'bool', role: 'input' },
      ...(['TON', 'TOF', 'TP'] as const).map((op) => ({
        name: `q.${op}`,
        type: 'bool',
        role: 'rule' as const,
        expr: { op, in: { op: 'name' as const, name: 'a' }, ms: 100, starts: false },
      })),
    ],
  });
  const begin = () => {
    const wasm = startWasm(emitWasm(compiled, { untimed: true }));
    const layout = layoutOf(compiled);
    const words = new Int32Array(wasm.memory.buffer);
    return {
      /** One scan with the input, and the timers that may end; the outputs of TOF, TON and TP. */
      scan(input: number, ...ends: number[]) {
        words[0] = input;
        for (let i = 0; i < 3; i++) words[layout.mayEnd / 4 + i] = ends.includes(i) ? 1 : 0;
        wasm.scan(0);
        return ['q.TOF', 'q.TON', 'q.TP'].map((name) => words[compiled.slots.get(name)!]);
      },
    };
  };
  /** Order of the timers in the code: by name of the rule. */
  const [TOF, TON, TP] = [0, 1, 2] as const;
  test('nothing ends by itself; each ends when it may; a fresh edge starts it anew', () => {
    const run = begin();
    expect(run.scan(0)).toEqual([0, 0, 0]);
    expect(run.scan(1)).toEqual([1, 0, 1]);
    for (let i = 0; i < 50; i++) expect(run.scan(1)).toEqual([1, 0, 1]);
    expect(run.scan(1, TON)).toEqual([1, 1, 1]);
    expect(run.scan(1, TP)).toEqual([1, 1, 0]);
    expect(run.scan(1)).toEqual([1, 1, 0]);
    expect(run.scan(0)).toEqual([1, 0, 0]);
    for (let i = 0; i < 50; i++) expect(run.scan(0)).toEqual([1, 0, 0]);
    expect(run.scan(0, TOF)).toEqual([0, 0, 0]);
    expect(run.scan(1)).toEqual([1, 0, 1]);
  });
});
