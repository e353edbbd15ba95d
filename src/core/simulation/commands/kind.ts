import type { ObjectSchema } from 'yup';
import type { Rehearsal } from '../rehearsal';

/** Something that a person does while trains run: how it is read, what it does, and how it is told. */
export interface CommandKind<Fields extends object> {
  /** Its fields; whoever reads a recording checks them by this. */
  schema: ObjectSchema<Fields>;
  /** Something fails by it, or works again. */
  fails?: true;
  /** Does it at the next tick; a sentence where it cannot be done. */
  carryOut(run: Rehearsal, fields: Fields): string | undefined;
  /** What was done, in a sentence. Things that are gone are called by their ids. */
  says(run: Rehearsal, fields: Fields): string;
}

/** An entry of the table of commands, with the types of its fields taken from its schema. */
export const commandKind = <Fields extends object>(kind: CommandKind<Fields>): CommandKind<Fields> => kind;
