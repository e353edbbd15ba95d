import { formatISO } from 'date-fns';

/** The day it is here, as year-month-day. */
export const today = (): string => formatISO(new Date(), { representation: 'date' });
