import { faultKind } from './kind';

export const pointsStay = faultKind({
  title: 'Points do not move',
  says: (name) => `${name} does not move, whatever it is told`,
  at: ['drive'],
  puts: () => 'as it was',
});

/** Straight for diverging and the other way about; between the two it says so. */
export const contactReversed = faultKind({
  title: 'A contact is the wrong way round',
  says: (name) => `the contact of ${name} is the wrong way round`,
  at: ['contact'],
  puts: (_system, _of, was) => (was === 0 ? 1 : was === 1 ? 0 : was),
});
