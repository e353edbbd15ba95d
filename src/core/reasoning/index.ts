/** A figure or verdict with its derivation: the one form in which every stage explains itself. */
export { countStatements, type Reason } from './reason';
