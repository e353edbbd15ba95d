import { expect, test } from 'vitest';
import { compileProgram } from '@/core/logic';
import { CHOOSABLE } from '@/core/patterns';
import { applyEdit, type Edit, type LayoutDocument, signalsOf, systemsFor } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { learningOval } from '@/demo/learning-oval';
import { ondrelValley } from '@/demo/ondrel-valley';
import { passingLoop } from '@/demo/passing-loop';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { fork } from './fork';
import { Draw } from './random-line';
import { ofSweep } from './sweep';

const EDITS = ofSweep(10_000);
/** Edits in a row on one layout. */
const IN_A_ROW = 50;

function randomEdit(d: LayoutDocument, draw: Draw): Edit | undefined {
  const signals = signalsOf(d);
  if (signals.length === 0) return undefined;
  const signal = draw.pick(signals);
  const things = [...signals, ...d.turnouts, ...d.sensors];
  switch (draw.below(7)) {
    case 0:
    case 1: {
      const at = CHOOSABLE.filter((one) => one.at === 'signal');
      return { do: 'use pattern', id: signal.id, pattern: draw.pick(at).id, on: draw.below(4) > 0 };
    }
    case 2:
      return { do: 'signal by', ids: [signal.id], system: draw.pick(systemsFor(d)).id };
    case 3:
      return { do: 'delete', id: draw.pick(things).id };
    case 4: {
      const length = d.lines.find(({ id }) => id === signal.line)!.length.tenthUm;
      const tenthUm = Math.round((draw.below(1000) / 1000) * length);
      return { do: 'move', id: signal.id, at: { tenthUm, typed: '' } };
    }
    case 5: {
      const { line, at } = signal;
      return { do: 'add signal', line, at, governs: signal.governs === 'up' ? 'down' : 'up' };
    }
    default: {
      const [admits, empty] = [
        draw.pick(['operator', 'automatic', 'on sight'] as const),
        draw.pick(['stop', 'caution'] as const),
      ];
      const { line } = signal;
      const { length } = d.lines.find(({ id }) => id === line)!;
      const area = { name: `A${draw.below(1e6)}`, line, from: { tenthUm: 0, typed: '0' }, to: length, purpose: '' };
      return {
        do: 'add area',
        area: { ...area, admits, whenEmpty: empty, speedKmh: undefined, comesIn: undefined, leavesOut: undefined },
      };
    }
  }
}

test(`${EDITS} random edits of signals, their systems and patterns: the rules compile after every one, or the edit is refused in words`, {
  timeout: 900_000,
}, () => {
  let [done, refused] = [0, 0];
  for (let seed = 1; done + refused < EDITS; seed++) {
    const draw = new Draw(seed);
    const from = [
      ondrelValley,
      learningOval,
      () => fork('speed-signals'),
      () => passingLoop(['up', 'down']),
      () => randomLayout(seed),
    ];
    let d = structuredClone(draw.pick(from)());
    for (let n = 0; n < IN_A_ROW; n++) {
      const edit = randomEdit(d, draw);
      if (!edit) break;
      const result = applyEdit(d, edit);
      if (!result.ok) {
        expect(result.problem.length).toBeGreaterThan(5);
        refused += 1;
        continue;
      }
      d = result.change.document;
      expect(
        () => compileProgram(compileSystem(d).program),
        `seed ${seed}, edit ${n}: ${JSON.stringify(edit)}`,
      ).not.toThrow();
      done += 1;
    }
  }
  expect(done).toBeGreaterThan(EDITS / 2);
});
