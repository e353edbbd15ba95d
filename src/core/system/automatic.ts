import { PATTERNS } from '../patterns';
import type { System } from './system';

/** Automatic working of a signal or of points: how people switch it off, and where they give it a pulse by hand. */
export interface Automatic {
  /** The signal, or the motor, and its name. */
  id: string;
  name: string;
  at: 'signal' | 'points';
  /** Which of several it is there. */
  what: string;
  /** What works it so, and what is lost while that is switched off. */
  pattern: string;
  lost: string;
  /** Where the rules have the switch, and the pulse, if it waits for any. */
  off: number;
  pulse: number | undefined;
  /** While this is on, a pulse does nothing. */
  refusedWhile: number | undefined;
}

const KINDS = [
  { at: 'signal', off: 'switched off', pulse: 'start button' },
  { at: 'points', off: 'points switched off', pulse: 'swap button' },
] as const;

/** All automatic working of a System, in the order of its rules. */
export const automaticIn = (system: System): Automatic[] =>
  KINDS.flatMap(({ at, off, pulse }) =>
    system.terminals.ofKind(off).map(({ kind, of, which, slot, name }): Automatic => {
      const { id, name: called } = system.thing(kind, of)!;
      const pattern = system.program.declarations.find((one) => one.name === name)?.why?.pattern ?? '';
      const { off: lost = '' } = PATTERNS.find((one) => one.id === pattern) ?? {};
      return {
        id,
        name: called,
        at,
        what: which,
        pattern,
        lost,
        off: slot,
        pulse: system.terminals.find(pulse, of, which)?.slot,
        refusedWhile: at === 'points' ? system.terminals.find('leaving', of)?.slot : undefined,
      };
    }),
  );
