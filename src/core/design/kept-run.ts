import type { Recording } from '../simulation';
import type { LayoutDocument } from '../survey';

/** A run that was kept, with the layout as it was then and the trace it left. */
export interface KeptRun extends Recording {
  name: string;
  document: LayoutDocument;
  hash: string;
}

/** What a list of kept runs says of each. */
export interface KeptRunRow extends Omit<Recording, 'commands'> {
  id: string;
  name: string;
  hash: string;
  /** When it was kept, ISO 8601. */
  at: string;
}
