/** What bounds what: sections (one detector each) and blocks (one train each), and what a detector sees of a train. */
export { type Consist, consistOf, senseCurrent, turnedRound } from './consist';
export { detectionFindings, middleOf } from './detection-findings';
export {
  type Block,
  blocksOn,
  cameInBy,
  divideTrack,
  onwardPieces,
  type Partition,
  type Piece,
  pieceAt,
  turnoutBeyond,
  withinBlock,
} from './partition';
export { resistorAxles, takenOff } from './resistor-axles';
