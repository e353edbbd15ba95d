import type { LayoutDocument } from '../survey';

/** What reading and writing a roster needs to know of the layout: its scale and its unit. */
export type RosterContext = Pick<LayoutDocument, 'scale' | 'shownUnit'>;

/** What a cell says, or what is wrong with it. */
export type CellReading<V> = { ok: true; value: V } | { ok: false; problem: string };
