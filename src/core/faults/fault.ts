import type { System, Terminal } from '../system';
import { FAULT_IDS, FAULTS, type FaultId } from './fault-list';
import type { FaultKind } from './kind';

/** One thing that fails in one way: by its id, which is the same after a change of the layout. */
export interface Fault {
  fault: FaultId;
  thing: string;
}

const kindOf = (fault: FaultId): FaultKind => FAULTS[fault];

/** The things of a System that a fault can strike, by number, with what people call them. */
export function thingsStruck(system: System, fault: FaultId): { of: number; id: string; name: string }[] {
  const { at, strikes } = kindOf(fault);
  return system.terminals.ofKind(at[0]).flatMap(({ kind, of }) => {
    const thing = system.thing(kind, of);
    return thing && (strikes?.(system, of) ?? true) ? [{ of, id: thing.id, name: thing.name }] : [];
  });
}

/** Whether a thing fails so; undefined where nobody has said how it is wired, as far as that decides. */
export const isKnown = (system: System, fault: FaultId, of: number): boolean =>
  (kindOf(fault).together?.(system, of) ?? [of]).every((one) => kindOf(fault).puts(system, one, 0) !== undefined);

/** A fault, and the things that it can strike. */
export interface FaultGroup {
  fault: FaultId;
  things: { id: string; name: string }[];
}

/** What a System can fail by: each fault with each thing that it can strike, and of which it is known what comes of it. */
export const faultsOf = (system: System): FaultGroup[] =>
  FAULT_IDS.flatMap((fault) => {
    const things = thingsStruck(system, fault).filter(({ of }) => isKnown(system, fault, of));
    return things.length > 0 ? [{ fault, things: things.map(({ id, name }) => ({ id, name })) }] : [];
  });

/** A way in which something can fail, and whether it is known what comes of it, or nobody has said how it is wired. */
export interface FaultChoice {
  fault: FaultId;
  known: boolean;
}
/** In which ways a thing can fail. */
export const faultsAbout = (system: System, thing: string): FaultChoice[] =>
  FAULT_IDS.flatMap((fault) => {
    const struck = thingsStruck(system, fault).find(({ id }) => id === thing);
    return struck ? [{ fault, known: isKnown(system, fault, struck.of) }] : [];
  });

/** A thing that fails, and its terminals that have another value while it does. */
export interface Struck {
  of: number;
  terminals: { terminal: Terminal; puts(was: number): number | 'as it was' }[];
}

/** The terminals that have another value while a fault lasts, and what each has then. Undefined where it strikes nothing, or it is not known. */
export function struckBy(system: System, { fault, thing }: Fault): Struck | undefined {
  const kind = kindOf(fault);
  const struck = thingsStruck(system, fault).find(({ id }) => id === thing);
  if (!struck || !isKnown(system, fault, struck.of)) return undefined;
  const terminals = (kind.together?.(system, struck.of) ?? [struck.of]).flatMap((of) =>
    kind.at.flatMap((at) => {
      const terminal = system.terminals.find(at, of);
      return terminal ? [{ terminal, puts: (was: number) => kind.puts(system, of, was) ?? was }] : [];
    }),
  );
  return { of: struck.of, terminals };
}

/** What is so while a fault lasts, or that it is over, in a sentence without its full stop. */
export function sayFault(system: System, { fault, thing }: Fault, on: boolean): string {
  const name = thingsStruck(system, fault).find(({ id }) => id === thing)?.name ?? thing;
  const says = kindOf(fault).says(name);
  return on ? `${says.charAt(0).toUpperCase()}${says.slice(1)}` : `No longer: ${says}`;
}

/** The faults that are part of a System (`withFault`), and where among the values it is that one lasts. */
export const faultsIn = (system: System): { slot: number; fault: Fault }[] =>
  system.terminals.ofKind('fault').flatMap(({ slot, of, which }) => {
    const fault = which as FaultId;
    const thing = system.thing(kindOf(fault).at[0], of);
    return thing ? [{ slot, fault: { fault, thing: thing.id } }] : [];
  });
