import {
  type FlagId,
  INPUTS,
  type InputKind,
  type InputKindId,
  OUTPUTS,
  type OutputKind,
  type OutputKindId,
} from '../kinds';
import type { Compiled, Program, Role } from '../logic';

export type TerminalKind = InputKindId | OutputKindId | FlagId;

/** A value of the rule program that means something outside of it: an input, an output, or a flag that rules work out for others to ask for. */
export interface Terminal {
  kind: TerminalKind;
  role: Role;
  /** The number of the thing that it belongs to, in the list of such things. */
  of: number;
  /** Which of several it is there: the position that a request asks for, the side that a direction is said of. */
  which: string;
  /** Its name in the program, and its place among the values. */
  name: string;
  slot: number;
  /** 'bool', or the name of an enumeration. */
  type: string;
  /** True for one scan each time it is worked. */
  momentary: boolean;
  /** The value to be taken in case of doubt; undefined where neither is safer than the other. */
  restrictive: number | undefined;
}

const keyOf = (kind: string, of: number, which: string): string => `${kind} ${of} ${which}`;

/** All terminals of a compiled program, in the order of its declarations, found by what they belong to. */
export class Terminals {
  readonly all: readonly Terminal[];
  private readonly byKey: ReadonlyMap<string, Terminal>;
  private readonly byKind = new Map<TerminalKind, Terminal[]>();

  constructor(program: Program, compiled: Compiled) {
    this.all = program.declarations.flatMap(({ name, role, type, terminal }): Terminal[] => {
      if (!terminal) return [];
      const kind = terminal.kind as TerminalKind;
      const input: InputKind | undefined = role === 'input' ? INPUTS[kind as InputKindId] : undefined;
      return [
        {
          kind,
          role,
          of: terminal.of,
          which: terminal.which ?? '',
          name,
          slot: compiled.slots.get(name)!,
          type,
          momentary: input?.momentary ?? false,
          restrictive: role === 'output' ? restrictiveOf(kind as OutputKindId) : input?.restrictive,
        },
      ];
    });
    this.byKey = new Map(this.all.map((one) => [keyOf(one.kind, one.of, one.which), one]));
    for (const one of this.all) {
      const known = this.byKind.get(one.kind);
      if (known) known.push(one);
      else this.byKind.set(one.kind, [one]);
    }
  }

  ofKind(kind: TerminalKind): readonly Terminal[] {
    return this.byKind.get(kind) ?? [];
  }
  find(kind: TerminalKind, of: number, which = ''): Terminal | undefined {
    return this.byKey.get(keyOf(kind, of, which));
  }
  /** What the rules make of an output, whatever becomes of it on its way out. */
  wanted(kind: OutputKindId, of: number): Terminal | undefined {
    return this.find('wanted', of, kind) ?? this.find(kind, of);
  }
  /** Its place among the values. Throws a RangeError where the program has no such terminal. */
  slot(kind: TerminalKind, of: number, which = ''): number {
    const found = this.find(kind, of, which);
    if (!found) throw new RangeError(`The program has no ${kind} of number ${of}${which && `, ${which}`}.`);
    return found.slot;
  }
}

/** Outputs list their values with the most restrictive first; where the order is the thing's own, 0 is it too. A drive has none. */
function restrictiveOf(kind: OutputKindId): number | undefined {
  const output: OutputKind = OUTPUTS[kind];
  return kind === 'drive' || output.forPeople ? undefined : 0;
}
