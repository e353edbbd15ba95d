/**
 * A survey in words: what one says while walking along a line with a tape. `phrases.ts` is the table of what can be said, `parts.ts` what each
 * of them is made of, for reading, writing and completing alike.
 */
export { freshIn } from './fresh';
export { type PhraseReading, readPhrase, SAID } from './read-phrase';
export { type BadRow, readSurvey, type SurveyReading, surveyReading, withAdditions } from './read-survey';
export type { Addition, Walk } from './walk';
export { nearest } from './words';
export { writeSurvey } from './write-survey';
