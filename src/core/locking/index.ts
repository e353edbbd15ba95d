/** Routes beside each other: which must not be cleared at once, and what comes to the side of each. Geometry alone; what the rules make of it is read off the program. */

export { arrivalFindings, roomBehind, waitsForArrival } from './arrival-findings';
export { automaticFindings } from './automatic-findings';
export { flankFindings } from './flank-findings';
export { lockFindings } from './lock-findings';
export {
  type ConflictReason,
  type RouteConflict,
  routeConflicts,
  routesIn,
  type Stretch,
  stretchesOf,
} from './route-conflicts';
