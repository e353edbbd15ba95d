/** Lengths, speeds and scales: how people type them, how they are stored, and the arithmetic of motion. */
export {
  CAUTION_SHARE,
  DELAY_DEVIATION,
  fastest,
  SCAN_S,
  SIGHT_BEYOND_BRAKING_MM,
  SPEED_DEVIATION,
  STOP_SHORT_MM,
} from './driving';
export { guideGrams } from './guide-weight';
export {
  brakingDistanceMm,
  mostBrakingMm,
  runTimeS,
  standToStandS,
  stoppingDistanceMm,
  stoppingTimeS,
} from './kinematics';
export {
  cm,
  fromMm,
  isTypedIn,
  mmOf,
  readLength,
  type ShownUnit,
  showLength,
  showNumber,
  TENTH_UM_PER_CM,
  TENTH_UM_PER_FOOT,
  TENTH_UM_PER_INCH,
  TENTH_UM_PER_METRE,
  TENTH_UM_PER_MM,
  type TenthUm,
  type TypedLength,
} from './length';
export { showMoney, showWire, wireSoldBy } from './money';
export { isScale, OWN_LIMITS, OWN_SCALE, SCALE_IDS, SCALES, type ScaleId, scaleOf, scaleRatio } from './scale';
export { layoutSpeedMmPerS, readSpeed, scaleSpeedKmh, showSpeed } from './speed';
export { STEPS } from './steps';
export { type StoppingNeed, type StoppingTerm, stoppingNeed } from './stopping-need';
export { apartAfter, clearanceOf, crossingAngle, throwInside, throwOutside } from './track-geometry';
export { readWeight, showWeight } from './weight';
