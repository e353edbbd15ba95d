import { boolean, type InferType } from 'yup';
import { amount, id, LONGEST_NAME, lengthSchema, list, record, text } from '../schema-parts';
import type { ListKind } from './kind';

const axleSchema = record({
  at: lengthSchema,
  /** It draws current: a motor, a lamp or a resistor is fed through it. */
  detectable: boolean().typeError('must be true or false').required('is missing'),
  /** Its wheels are of plastic, so that it joins no rails. */
  plastic: boolean().typeError('must be true or false').optional().default(undefined),
});
export const vehicleSchema = record({
  id: id(),
  name: text(LONGEST_NAME.train),
  length: lengthSchema,
  axles: list(axleSchema, 24),
  grams: amount(0, 20_000),
  magnetAt: lengthSchema.optional().default(undefined),
});
export type Vehicle = InferType<typeof vehicleSchema>;

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
