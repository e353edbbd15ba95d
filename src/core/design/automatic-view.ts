import type { Automatic, System } from '../system';

/** Automatic working of a thing, for a screen. */
export type AutomaticView = Pick<Automatic, 'id' | 'name' | 'what' | 'pattern' | 'lost'> & {
  /** People can give it a pulse. */
  pulsed: boolean;
};

/** What works by itself at one of these things, by id. */
export const automaticAt = ({ automatic }: System, ids: readonly string[]): AutomaticView[] =>
  automatic
    .filter(({ id }) => ids.includes(id))
    .map(({ id, name, what, pattern, lost, pulse }) => ({
      id,
      name,
      what,
      pattern,
      lost,
      pulsed: pulse !== undefined,
    }));
