import { type Declaration, type Expr, is, name, type Program, previous, renamed, value, when } from '../logic';
import type { System, Terminal } from '../system';
import { type Fault, sayFault, struckBy } from './fault';

/**
 * A System in which a fault can strike at any moment: an input of kind “fault” is on while it lasts, and what the rules read, or what goes out,
 * has another value then. All else keeps its place among the values. Throws a RangeError where the fault strikes nothing.
 */
export function withFault(system: System, fault: Fault): System {
  const found = struckBy(system, fault);
  if (!found) throw new RangeError(`Nothing of this layout fails so: ${fault.fault}, ${fault.thing}.`);
  const { of: struckThing, terminals: struck } = found;
  return system.withProgram((program) => {
    const on = `fault.${fault.thing}`;
    const behind = new Map(struck.map(({ terminal }) => [terminal.name, `faulty.${terminal.name}`]));
    const input: Declaration = {
      name: on,
      type: 'bool',
      role: 'input',
      why: { pattern: '', about: fault.thing, yes: sayFault(system, fault, true), no: sayFault(system, fault, false) },
      terminal: { kind: 'fault', of: struckThing, which: fault.fault },
    };
    const masks = struck.map(({ terminal, puts }): Declaration => {
      const faulty = behind.get(terminal.name)!;
      const expr = when(name(on), whileItLasts(program, terminal, puts, faulty), name(terminal.name));
      const { type, role, of, kind, which } = terminal;
      const isInput = role === 'input';
      return {
        name: faulty,
        type,
        role: isInput ? 'rule' : role,
        expr,
        why: { pattern: '', about: fault.thing, yes: '', no: '' },
        ...(!isInput && { terminal: { kind, of, ...(which && { which }) } }),
      };
    });
    const inputs = new Set(struck.flatMap(({ terminal }) => (terminal.role === 'input' ? [terminal.name] : [])));
    const read = (one: string) => (inputs.has(one) ? behind.get(one)! : one);
    const declarations = program.declarations.map((one): Declaration => {
      const expr = one.expr && renamed(one.expr, read);
      if (!behind.has(one.name) || one.role === 'input') return { ...one, ...(expr && { expr }) };
      const wanted = { kind: 'wanted', of: one.terminal!.of, which: one.terminal!.kind };
      return { ...one, role: 'rule', expr: expr!, terminal: wanted };
    });
    return { ...program, declarations: [...declarations, input, ...masks] };
  });
}

/** What a terminal has while a fault lasts, of what it would have. */
function whileItLasts(
  { enums }: Program,
  { type, name: own }: Terminal,
  puts: (was: number) => number | 'as it was',
  faulty: string,
): Expr {
  const values = enums[type];
  const constant = (v: number): Expr => (values ? value(values[v]!) : { op: v === 1 ? 'true' : 'false' });
  const all = Array.from({ length: values?.length ?? 2 }, (_, v) => puts(v));
  if (all.includes('as it was')) return previous(faulty);
  const numbers = all as number[];
  if (numbers.every((v) => v === numbers[0])) return constant(numbers[0]!);
  const test = (v: number): Expr =>
    values ? is(name(own), values[v]!) : v === 1 ? name(own) : { op: 'not', of: name(own) };
  return numbers.reduce<Expr>(
    (otherwise, v, was) => (v === was ? otherwise : when(test(was), constant(v), otherwise)),
    name(own),
  );
}
