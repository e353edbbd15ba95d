import type { DocumentSlice } from './document';

/** What is chosen on the sheet. */
export interface SelectionSlice {
  /** The id of a thing of the document, or of a block. */
  selected?: string;
  /** A second thing, to which distance and running time are measured from the selected one. */
  measured?: string;
  /** While a tool is chosen: takes a place that is pointed at on the track, where nothing is selected then. */
  place?: (place: { line: string; at: number }) => void;
  /** The place or the stretch that is being typed, marked on the track. */
  pointed?: { line: string; at: number; to?: number };
  select(id: string | undefined): void;
}

type Seen = SelectionSlice & Pick<DocumentSlice, 'problem'>;

export const selectionSlice = (set: (part: Partial<Seen>) => void): SelectionSlice => ({
  select(id) {
    set({ selected: id, measured: undefined, problem: undefined });
  },
});
