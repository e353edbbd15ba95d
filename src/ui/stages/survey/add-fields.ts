import { object, string } from 'yup';
import type { SensorKindId } from '@/core/kinds';
import type { TypedLength } from '@/core/measure';
import { type Edit, type Facing, facingSchema, type LeadsTo, LONGEST_NAME, lengthSchema } from '@/core/survey';

/** Everything that the form for adding asks, whatever is added. */
export interface AddFields {
  line: string;
  at?: TypedLength;
  facing: Facing;
  sensor: SensorKindId;
  hand: 'left' | 'right';
  leads: LeadsTo['kind'];
  trackName: string;
  trackLength?: TypedLength;
  /** Where a track that comes back meets its line again. */
  back?: TypedLength;
  clearance?: TypedLength;
}

const place = { line: string().required(), at: lengthSchema, facing: facingSchema() };
export const placeSchema = object(place);
export const turnoutSchema = object({
  ...place,
  trackName: string().max(LONGEST_NAME.track, `must be at most ${LONGEST_NAME.track} characters`),
  trackLength: lengthSchema,
  back: lengthSchema.when('leads', ([leads], schema) =>
    leads === 'dead end' ? schema.optional().default(undefined) : schema,
  ),
  clearance: lengthSchema,
});

/** A turnout with the track that it leads to, from checked fields. */
export function turnoutOf({ leads, trackName, trackLength, back, line, at, facing, hand, clearance }: AddFields): Edit {
  const name = trackName.trim() || (leads === 'back' ? 'Loop' : 'Siding');
  return {
    do: 'add turnout',
    turnout: {
      line,
      at: at!,
      kind: 'turnout',
      facing,
      hand,
      straight: undefined,
      clearance: clearance!,
      motor: 'snap',
      throwMs: undefined,
      spareContacts: 0,
      lies: ['straight'],
      throwsWith: undefined,
      certainty: 'tentative',
    },
    leads:
      leads === 'back'
        ? { kind: leads, name, length: trackLength!, at: back! }
        : { kind: leads, name, length: trackLength! },
  };
}
