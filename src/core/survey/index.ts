/**
 * The layout document: lines with distances, and what sits on them. Read `schema.ts` first, then `edit.ts`.
 * A document is data that was taped and decided; everything else in core is computed from it.
 */
export { compareDocuments, type Difference, type DifferencePlace } from './compare';
export * from './edit';
export * from './merge';
export * from './migrate-document';
export * from './new-document';
export * from './read-document';
export * from './schema';
