import type { LayoutDocument } from '@/core/survey';

/** The version that another window saved meanwhile. */
export interface Theirs {
  document: LayoutDocument;
  revision: number;
  /** It was saved while a choice was being made, so that it has to be made anew. */
  again?: true;
}

export type Saving = 'opening' | 'saved' | 'waiting' | 'saving' | 'failed' | 'conflict';

/** How far the server has what is here. */
export interface SavingSlice {
  /** The document the server last acknowledged. */
  base: LayoutDocument;
  saving: Saving;
  /** Set while a choice has to be made between two versions. */
  theirs?: Theirs;
  /** The browser refuses to keep edits, so that they live in this page only. */
  unkept: boolean;
  /** Neither the server nor this browser has the layout. */
  missing?: boolean;
}
