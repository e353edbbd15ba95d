import { describe, expect, test } from 'vitest';
import { checkDesign, tryByHand } from '@/core/design';
import { compileProgram, decidingFacts, type Expr, Interpreter, type Program, when } from '@/core/logic';
import type { LayoutDocument } from '@/core/survey';
import { learningOval } from '@/demo/learning-oval';
import { smallValley } from '@/demo/small-valley';
import { blockIds } from './block-ids';
import { Draw } from './random-line';
import { ruleNamed } from './rule-named';

const INPUTS = ['a', 'b', 'c', 'd', 'e', 'f', 'm'];
const LEVELS = ['low', 'middle', 'high'];

/** Rules without memory over six booleans and one enumeration, the last of which is asked about. */
function plainProgram(draw: Draw): Program {
  const rules = 1 + draw.below(6);
  const expr = (depth: number, before: number): Expr => {
    if (depth === 0 || draw.chance(0.15)) {
      if (before > 0 && draw.chance(0.5)) return { op: 'name', name: `r${draw.below(before)}` };
      if (draw.chance(0.2))
        return { op: 'is', left: { op: 'name', name: 'm' }, right: { op: 'value', value: draw.pick(LEVELS) } };
      return { op: 'name', name: draw.pick(INPUTS.slice(0, 6)) };
    }
    const sub = () => expr(depth - 1, before);
    const kind = draw.below(4);
    if (kind === 0) return { op: 'not', of: sub() };
    if (kind === 1) return when(sub(), sub(), sub());
    return { op: kind === 2 ? 'and' : 'or', of: Array.from({ length: 2 + draw.below(3) }, sub) };
  };
  return {
    scanMs: 20,
    enums: { level: LEVELS },
    declarations: [
      ...INPUTS.map((name) => ({ name, type: name === 'm' ? 'level' : 'bool', role: 'input' as const })),
      ...Array.from({ length: rules }, (_, i) => ({
        name: `r${i}`,
        type: 'bool',
        role: 'rule' as const,
        expr: expr(2, i),
      })),
    ],
  };
}

const SIZES = INPUTS.map((name) => (name === 'm' ? 3 : 2));
const ROWS = SIZES.reduce((product, size) => product * size, 1);
const rowValues = (row: number): number[] => {
  let rest = row;
  return SIZES.map((size) => {
    const value = rest % size;
    rest = Math.floor(rest / size);
    return value;
  });
};

/** What the interpreter makes of every combination of inputs: for each, the value of every name. */
function everyRow(program: Program): Record<string, number>[] {
  const compiled = compileProgram(program);
  const interpreter = new Interpreter(compiled);
  return Array.from({ length: ROWS }, (_, row) => {
    for (const [i, value] of rowValues(row).entries()) interpreter.setInput(compiled.slots.get(INPUTS[i]!)!, value);
    interpreter.scan(row * 20);
    return Object.fromEntries(compiled.names.map((name, i) => [name, interpreter.values[i]!]));
  });
}

/** Whether the inputs named, as they are in a row, force a name to its value in that row, by looking at every other row. */
const forces = (rows: Record<string, number>[], row: number, name: string, inputs: readonly string[]): boolean =>
  rows.every((other) => inputs.some((i) => other[i] !== rows[row]![i]) || other[name] === rows[row]![name]);

function fewest(rows: Record<string, number>[], row: number, name: string): number {
  let least = INPUTS.length;
  for (let set = 0; set < 1 << INPUTS.length; set++) {
    const inputs = INPUTS.filter((_, i) => (set >> i) & 1);
    if (inputs.length < least && forces(rows, row, name, inputs)) least = inputs.length;
  }
  return least;
}

describe('the facts that force a value', () => {
  test('on 150 small programs: they force it, and no fewer do, by brute force', () => {
    const sizes = new Set<number>();
    for (let seed = 1; seed <= 150; seed++) {
      const draw = new Draw(seed);
      const program = plainProgram(draw);
      const rows = everyRow(program);
      const asked = program.declarations.at(-1)!.name;
      for (let times = 0; times < 4; times++) {
        const row = draw.below(ROWS);
        const found = decidingFacts(program, asked, (name) => rows[row]![name])!.map(({ name }) => name);
        expect({ seed, row, found, forced: forces(rows, row, asked, found) }).toMatchObject({ forced: true });
        expect({ seed, row, found, size: found.length }).toMatchObject({ size: fewest(rows, row, asked) });
        sizes.add(found.length);
      }
    }
    expect(sizes.size).toBeGreaterThan(3);
  });

  const said = (d: LayoutDocument, name: string, occupied: string[], points: Record<string, 'diverging'> = {}) => {
    const design = checkDesign(d);
    const values = tryByHand(design, { occupied: blockIds(design, occupied), points });
    return decidingFacts(design.system.program, ruleNamed(design.system.program, name), (n) => values[n])?.map(
      ({ says }) => says,
    );
  };
  test('a signal at stop before a train: that train, and nothing else', () => {
    expect(said(learningOval(), 'signal.S1', ['B1'])).toEqual(['B1 is occupied']);
  });
  test('a signal at caution: the way is free, and the next block is not', () => {
    expect(said(learningOval(), 'signal.S1', ['B2'])).toEqual([
      'The route from S1 to S2 is set and free',
      'S1 is not held by hand',
      'The inputs have settled since power-up',
      'S2 must show stop',
    ]);
  });
  test('one way is taken and the other not set: one fact for each', () => {
    expect(said(smallValley(), 'signal.FE', ['MF', 'FM'])!.sort()).toEqual(['FM is occupied', 'T7 lies straight']);
  });
  test('several reasons at once: the shortest is told', () => {
    expect(said(smallValley(), 'signal.FE', ['FM'])).toEqual(['No train asks for FE']);
  });
  test('a memory is not forced by what is so now', () => {
    expect(said(smallValley(), 'seen.M1', [])).toBeUndefined();
  });
});
