import type { Stretch } from '@/core/locking';
import type { DocumentSlice } from './document';

export interface Pointed {
  line: string;
  at: number;
  to?: number;
  besides?: readonly { line: string; from: number; to: number }[];
  /** What of it is in danger, or dangerous. */
  danger?: readonly { line: string; from: number; to: number }[];
  /** What is written there in place of its distance. */
  says?: string;
}

/** Routes that are spoken of: the track of one, of another beside it, and where the two cannot both be. */
export interface PointedRoutes {
  route: readonly Stretch[];
  other?: readonly Stretch[];
  conflict?: readonly Stretch[];
}

/** What is chosen on the sheet. */
export interface SelectionSlice {
  /** The id of a thing of the document, or of a block. */
  selected?: string;
  /** Other things chosen with it, to be changed together. */
  also: readonly string[];
  /** A second thing, to which distance and running time are measured from the selected one. */
  measured?: string;
  /** While a tool is chosen: takes a place that is pointed at on the track, where nothing is selected then. */
  place?: (place: { line: string; at: number }) => void;
  /** The place or the stretch that is being typed or spoken of, marked on the track with what else belongs to it. */
  pointed?: Pointed;
  /** Routes that are pointed at in a table, marked on the track. */
  routes?: PointedRoutes;
  /** Where gaps are suggested, marked on the track as long as that is looked at. */
  proposed?: readonly { line: string; at: number }[];
  select(id: string | undefined): void;
  /** Chooses a thing together with those that are chosen, or no longer. */
  choose(id: string): void;
}

type Seen = SelectionSlice & Pick<DocumentSlice, 'problem' | 'sure'>;

export const selectionSlice = (set: (part: Partial<Seen>) => void, get: () => Seen): SelectionSlice => ({
  also: [],
  select(id) {
    const sure = id === get().selected ? get().sure : [];
    set({ selected: id, also: [], measured: undefined, problem: undefined, sure });
  },
  choose(id) {
    const { selected, also } = get();
    const all = selected === undefined ? [] : [selected, ...also];
    const [first, ...others] = all.includes(id) ? all.filter((one) => one !== id) : [...all, id];
    set({ selected: first, also: others, measured: undefined, problem: undefined });
  },
});
