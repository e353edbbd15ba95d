/** What is only an idea is drawn in pencil, what is cut, drilled or laid in ink. */
export const inkOf = ({ certainty }: { certainty: 'tentative' | 'fixed' }, ink = 'var(--ink)'): string =>
  certainty === 'tentative' ? 'var(--ink3)' : ink;

/** The same for what is filled or has a colour of its own. */
export const PENCIL = 0.6;
