import type { FieldError } from 'react-hook-form';

/** What a schema says of a field, as a sentence about it: the schemas leave out its name. */
export const problemOf = (error: FieldError | undefined, what: string): string | undefined =>
  error?.message === undefined ? undefined : /^[a-z]/.test(error.message) ? `${what} ${error.message}.` : error.message;
