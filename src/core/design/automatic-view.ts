import type { Automatic, System } from '../system';

/** Automatic working of a thing, for a screen. */
export type AutomaticView = Pick<Automatic, 'id' | 'name' | 'what' | 'pattern' | 'lost'> & {
  /** People can give it a pulse. */
  pulsed: boolean;
};

/** Everything of a design that works by itself. */
export const allAutomatic = ({ system }: { system: System }): AutomaticView[] => viewed(system.automatic);

/** What works by itself at one of these things, by id. */
export const automaticAt = ({ automatic }: System, ids: readonly string[]): AutomaticView[] =>
  viewed(automatic.filter(({ id }) => ids.includes(id)));

const viewed = (some: readonly Automatic[]): AutomaticView[] =>
  some.map(({ id, name, what, pattern, lost, pulse }) => ({
    id,
    name,
    what,
    pattern,
    lost,
    pulsed: pulse !== undefined,
  }));
