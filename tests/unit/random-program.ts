import { type Declaration, type Expr, type Program, when } from '@/core/logic';
import type { Draw } from './random-line';

const COLOURS = ['low', 'middle', 'high'];
export const INPUTS = ['a', 'b', 'c', 'm'];

/** A program of one to eight rules over three booleans and one enumeration, with every operator of the language. */
export function randomProgram(draw: Draw): Program {
  const declarations: Declaration[] = INPUTS.map((name) => ({
    name,
    type: name === 'm' ? 'level' : 'bool',
    role: 'input',
  }));
  const rules = 1 + draw.below(8);
  const types = Array.from({ length: rules }, () => (draw.chance(0.2) ? 'level' : 'bool'));
  const every = [...INPUTS.map((n) => [n, n === 'm' ? 'level' : 'bool']), ...types.map((t, i) => [`r${i}`, t])] as [
    string,
    string,
  ][];
  const named = (type: string, most: number): Expr | undefined => {
    const fitting = every.slice(0, most).filter(([, t]) => t === type);
    return fitting.length > 0 ? { op: 'name', name: draw.pick(fitting)[0] } : undefined;
  };
  const expr = (type: string, depth: number, most: number): Expr => {
    const sub = (t = type) => expr(t, depth - 1, most);
    if (draw.chance(0.12)) {
      const fitting = every.filter(([, t]) => t === type);
      return { op: 'previous', name: draw.pick(fitting)[0] };
    }
    if (depth === 0 || draw.chance(0.2))
      return named(type, most) ?? (type === 'bool' ? { op: 'true' } : { op: 'value', value: draw.pick(COLOURS) });
    if (type !== 'bool')
      return draw.chance(0.4) ? { op: 'value', value: draw.pick(COLOURS) } : when(sub('bool'), sub(), sub());
    const starts = draw.chance(0.5);
    const ms = 1 + draw.below(130);
    switch (draw.below(9)) {
      case 0:
        return { op: 'not', of: sub() };
      case 1:
        return { op: draw.chance(0.5) ? 'and' : 'or', of: [sub(), sub(), ...(draw.chance(0.3) ? [sub()] : [])] };
      case 2:
        return when(sub(), sub(), sub());
      case 3:
        return { op: draw.chance(0.5) ? 'SR' : 'RS', set: sub(), reset: sub(), starts };
      case 4:
        return { op: draw.pick(['TON', 'TOF', 'TP'] as const), in: sub(), ms, starts };
      case 5:
        return { op: draw.chance(0.5) ? 'R_TRIG' : 'F_TRIG', in: sub(), starts };
      case 6:
        return { op: 'is', left: { op: 'name', name: 'm' }, right: { op: 'value', value: draw.pick(COLOURS) } };
      case 7:
        return { op: 'is', left: sub(), right: sub() };
      default:
        return { op: draw.chance(0.5) ? 'true' : 'false' };
    }
  };
  for (let i = 0; i < rules; i++)
    declarations.push({
      name: `r${i}`,
      type: types[i]!,
      role: i + 1 === rules ? 'output' : 'rule',
      expr: expr(types[i]!, 1 + draw.below(3), INPUTS.length + i),
    });
  return { scanMs: 20, enums: { level: COLOURS }, declarations };
}
