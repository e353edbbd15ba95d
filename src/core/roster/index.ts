/** The roster of vehicles as a table: what each column says of a vehicle, as it is typed, pasted, saved and read again. */
export { readAxles, writeAxles } from './axles-text';
export { ROSTER_COLUMNS, type RosterColumn, weightSays } from './columns';
export type { CellReading, RosterContext } from './context';
export { type SaidTrain, vehiclesSaid } from './new-train';
export { likelyLength, newVehicle } from './new-vehicle';
export { type RosterReading, readRoster, writeRoster } from './table-text';
