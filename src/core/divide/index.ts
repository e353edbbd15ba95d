/** Where to cut the track: the fewest gaps that let every train move, each with its reason. */
export { divideEdit } from './divide-edit';
export { type GivenUp, type ProposedCut, type Suggestion, suggestGaps } from './suggest-gaps';
export { type CutReason, type DivideWishes, openAreas, usualWishes } from './wishes';
