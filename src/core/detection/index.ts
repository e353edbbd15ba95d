/** What bounds what: sections (what one detector sees) and blocks (one train each), and what is noticed of a train where. */
export {
  type Consist,
  consistOf,
  otherWayRound,
  type Part,
  partsOf,
  turnedRound,
  type Unseen,
  unseenOf,
  unseenStretches,
  vehiclesOf,
} from './consist';
export { detectionFindings } from './detection-findings';
export { type District, districtsOf } from './districts';
export { type Block, type BlockId, isBlockId, type Piece, pieceAt, type Section } from './division';
export { type BestAxles, bestAxles, type FewestAxles, fewestAxles, type SeenLimits } from './fewest-axles';
export { eachCrossing, type Field, type Fields, partsNoticed } from './fields';
export { bogiesMm, fitFindings } from './fit-findings';
export { chanceShown, shortestHoldMs } from './hold';
export { INFERRED_BY, type Inferred, type InferredBy, isSaid, spotsOf } from './inferred';
export { inferredFindings } from './inferred-findings';
export { type GivenInputs, giveInputs, inputName, inputOf, shareOut, wireOf } from './inputs';
export { lightCarFindings } from './light-cars';
export { onwardPieces } from './onward-pieces';
export {
  blockOf,
  blocksOn,
  cameInBy,
  divideTrack,
  type Partition,
  pointsBeyond,
  withinBlock,
} from './partition';
export { polarityFindings } from './polarity-findings';
export { powerFindings } from './power-findings';
export { resistorAxles, takenOff } from './resistor-axles';
export { type SeeEverywhere, type SeenEverywhere, seenLimits } from './seen-limits';
export { type Sensitivity, sensitivityFindings, sensitivityOf } from './sensitivity';
export { sharedVehicleFindings } from './shared-vehicles';
export { spotFindings } from './spot-findings';
export type { SpotPair } from './spot-pairs';
export { swingFindings } from './swing-findings';
export { kindForSections, middleOf, watchIt } from './watch-it';
export { seenAcross, watchedFrom } from './watched-ways';
