import { boolean, type InferType } from 'yup';
import { ABILITIES, FEEDS, VEHICLE_KIND_IDS } from '../../kinds';
import { amount, choice, id, LONGEST_NAME, lengthSchema, list, record, text } from '../schema-parts';
import type { ListKind } from './kind';

const maybe = () => boolean().typeError('must be true or false').optional().default(undefined);
const axleSchema = record({
  /** From the leading end of the vehicle. */
  at: lengthSchema,
  /** What takes current through it. */
  feeds: choice(...FEEDS),
  /** Its wheels are of plastic, so that it joins no rails. */
  plastic: maybe(),
});
export const vehicleSchema = record({
  id: id(),
  name: text(LONGEST_NAME.train),
  kind: choice(...VEHICLE_KIND_IDS),
  /** Over couplers. */
  length: lengthSchema,
  axles: list(axleSchema, 24),
  grams: amount(0, 20_000),
  magnetAt: lengthSchema.optional().default(undefined),
  /** No resistor axle can be fitted to it. */
  takesNone: maybe(),
  /** The tightest curve that it runs through. */
  leastRadius: lengthSchema.optional().default(undefined),
  /** What its decoder can do; undefined where it has none. */
  decoder: list(choice(...ABILITIES), ABILITIES.length)
    .optional()
    .default(undefined),
});
export type Vehicle = InferType<typeof vehicleSchema>;
export type Axle = Vehicle['axles'][number];

export const vehicles: ListKind<Vehicle> = {
  title: 'Vehicle',
  prefix: 'v',
  most: 2000,
  schema: vehicleSchema,
  refers: [],
  faults({ name, length, axles }, tell) {
    axles.forEach(({ at }, k) => {
      if (at.tenthUm > length.tenthUm)
        tell(
          `axles[${k}].at`,
          `An axle of “${name}” lies beyond its length.`,
          'Measure it from the leading end of the vehicle.',
        );
    });
    if (length.tenthUm === 0) tell('length', `“${name}” has no length.`, 'Give its length over couplers.');
  },
};
