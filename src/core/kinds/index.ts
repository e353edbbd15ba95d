/**
 * What a document may name by kind, as plain data that knows no layout: one entry in one place for each kind.
 * Here: aspect systems, outputs, points, sensors, vehicles and ways of letting trains in.
 */
export {
  ADMISSION_IDS,
  ADMISSIONS,
  type Admission,
  type AdmissionId,
  EMPTY_POST_IDS,
  EMPTY_POSTS,
  type EmptyPostId,
} from './admissions';
export {
  ASPECT_SYSTEM_IDS,
  ASPECT_SYSTEMS,
  aspectsOf,
  EARLY_SYSTEM,
  SIGHT_SYSTEM,
  SPEED_SYSTEM,
} from './aspect-systems';
export {
  type Aspect,
  type AspectSystem,
  greyOf,
  headsOf,
  LAMP_COLOURS,
  LAMP_SHAPES,
  type LampKind,
  NOWHERE,
  promisesFree,
  type SpeedLimit,
} from './aspect-systems/kind';
export { lampsOut } from './aspect-systems/lamp-out';
export { FLAGS, type FlagId } from './flags';
export { type Entry, GLOSSARY, type GlossaryWord } from './glossary';
export { INPUTS, type InputKindId } from './inputs';
export type { InputKind } from './inputs/kind';
export { MOTOR_KIND_IDS, MOTORS, type MotorKindId } from './motors';
export { OUTPUTS, type OutputKindId } from './outputs';
export type { MarkShape, OutputKind, PowerLevel } from './outputs/kind';
export { FULL_POWER, POWER_LEVELS, type PowerId } from './outputs/power';
export {
  CROSSING_KIND_IDS,
  CROSSINGS,
  type CrossingKindId,
  LEGS,
  legsOf,
  TURNOUT_KIND_IDS,
  TURNOUTS,
  type TurnoutKindId,
} from './points';
export type { Lie, PointsKind, PointsWay } from './points/kind';
export { NOTICES, SENSOR_KIND_IDS, SENSORS, type SensorKindId, sensorKind } from './sensors';
export type { InPairs, SensorKind } from './sensors/kind';
export { CURRENT, NOTHING, type Notice } from './sensors/notices';
export { TRACK_POWER_IDS, TRACK_POWERS, type TrackPower, type TrackPowerId } from './track-power';
export {
  ABILITIES,
  type Ability,
  FEEDS,
  type Feed,
  VEHICLE_KIND_IDS,
  VEHICLES,
  type VehicleKindId,
} from './vehicles';
export type { VehicleKind } from './vehicles/kind';
