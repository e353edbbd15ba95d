import type { InferType } from 'yup';
import { choice, id, record, text } from '../schema-parts';
import type { ListKind } from './kind';

/** Of a finding no more than so much is kept. */
export const LONGEST_SAID = 2000;

/** A finding that somebody has looked at and lives with, and why. It counts for that finding as long as this is no graver than it was then. */
export const acceptanceSchema = record({
  id: id(),
  /** The id of the finding: its kind, and the ids of the things that it is about. */
  finding: text(300),
  severity: choice('unsafe', 'check'),
  why: text(300),
  /** What it said then. */
  said: text(LONGEST_SAID),
});
export type Acceptance = InferType<typeof acceptanceSchema>;

export const acceptances: ListKind<Acceptance> = {
  title: 'Accepted finding',
  prefix: 'ac',
  since: 8,
  most: 5000,
  schema: acceptanceSchema,
  refers: [],
  goesWith: ({ finding }, gone) => finding.split(' ').some((word) => gone.has(word)),
  faults({ finding }, tell, { claim }) {
    const first = claim(`accepted ${finding}`);
    if (first) tell('finding', `${finding} is accepted twice.`, `Delete one of them; the first is ${first}.`);
  },
};
