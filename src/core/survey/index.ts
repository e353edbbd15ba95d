/**
 * The layout document: lines with distances, and what sits on them. Read `schema.ts` first, then `lists/`, then `edit.ts`.
 * A document is data that was taped and decided; everything else in core is computed from it.
 */
export { compareDocuments, type Difference, type DifferencePlace } from './compare';
export {
  applyChange,
  applyEdit,
  type Change,
  type Edit,
  type EditResult,
  replaceDocument,
  type Step,
} from './edit';
export type { LeadsTo } from './edit-points';
export type { FeatureChange } from './edit-several';
export type { Wiring } from './edit-signals';
export { FEATURE_KINDS, FEATURES, type FeatureKind } from './feature-kinds';
export type { AxlePlace } from './fit-axles';
export { type FixedThing, fixedSince, fixedThatMoves } from './fixed';
export { idsForNames, namesById, withNames } from './ids-for-names';
export { kindWords, LIST_NAMES, LISTS, type ListName, type Thing, thingsOf } from './lists';
export type { Area } from './lists/areas';
export type { OwnAspectSystem } from './lists/aspect-systems';
export type { BlockName } from './lists/blocks';
export type { Booster } from './lists/boosters';
export type { Crossing } from './lists/crossings';
export type { Feature, FeatureOf } from './lists/features';
export type { Join } from './lists/joins';
export type { Line } from './lists/lines';
export type { Movement } from './lists/movements';
export type { OwnRule } from './lists/rules';
export { MOST_TURNS, type Sensor } from './lists/sensors';
export type { ThrowRule } from './lists/throw-rules';
export { MOST_VEHICLES, RUNNING, type Train } from './lists/trains';
export type { Turnout } from './lists/turnouts';
export { type Axle, type Vehicle, vehicleSchema } from './lists/vehicles';
export { mergeDocuments, separateIds } from './merge';
export { DIRECTIONS, DOCUMENT_VERSION, migrateDocument } from './migrate-document';
export { asTyped, freshId, newDocument } from './new-document';
export { overlapFindings } from './overlap-findings';
export { giveOwnVehicles, sharedVehicles } from './own-vehicles';
export { type Span, spanOf } from './place-of';
export { type DocumentReading, readDocument, readDocumentText, writeDocumentText } from './read-document';
export { type Fault, referenceFaults } from './reference-faults';
export { remembered } from './remembered';
export { deletionOf } from './remove';
export { callThing, placeThing } from './say-thing';
export {
  DOCUMENT_FORMAT,
  type Dropouts,
  documentSchema,
  type Electrics,
  type Facing,
  type Gap,
  isKind,
  type LayoutDocument,
  type LineEnd,
  type Mark,
  type Modules,
  type Place,
  PRICED,
  type Priced,
  type Prices,
  type Signal,
  signalsOf,
  type TurnoutPosition,
  USUAL_DROPOUTS,
  USUAL_ELECTRICS,
  USUAL_MODULES,
  USUAL_PRICES,
} from './schema';
/** What the fields of a schema are made of. */
export * as fields from './schema-parts';
export { facing as facingSchema, LONGEST_NAME, lengthSchema, type Setting, text as textSchema } from './schema-parts';
export { readSensorInput, type SensorInput, saySensorInput } from './sensor-input';
export { readSpeedLimit, saySpeedLimit } from './speed-limit';
export { systemOf, systemsFor } from './system-of';
