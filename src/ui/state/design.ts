import type { DesignView, Trial } from '@/core/design';
import type { LayoutDocument } from '@/core/survey';
import type { Proved } from './verdict-line';

/** A design with the document it was computed from: the two are shown together or not at all. */
export interface Designed extends DesignView {
  document: LayoutDocument;
}

/** What is computed from the document, and what is tried with it by hand. */
export interface DesignSlice {
  /** The newest design there is; of another document than the present one, it is about to be replaced. */
  design?: Designed;
  /** The newest proof; of another document than the present one it is out of date. */
  proved?: Proved;
  trial: Trial;
  /** The rule program's names as they stand in the trial. */
  trialValues: Record<string, number>;
}
/** It begins with the trains where they stand. */
export const FIRST_TRIAL: Trial = { trains: true, occupied: [], points: {} };

/**
 * The document that the sheet and everything derived show: the design’s own, so that no two edits are ever mixed. A design of
 * an empty layout says nothing, so there the present document is shown at once.
 */
export const shownDocument = ({
  design,
  document,
}: Pick<DesignSlice, 'design'> & { document: LayoutDocument }): LayoutDocument =>
  design && design.document.lines.length > 0 ? design.document : document;
