import { boolean, type Schema } from 'yup';
import {
  amount,
  certainty,
  choice,
  fixedOn,
  id,
  LONGEST_NAME,
  lengthSchema,
  patterns,
  placeSchema,
  record,
  settings,
  text,
} from './schema-parts';

const spot = { id: id(), line: id(), at: lengthSchema, certainty: certainty(), fixedOn: fixedOn() };
const span = { ...spot, to: lengthSchema };

/**
 * Everything that sits at a distance on a line: what each kind is called, what its ids begin with, its fields, and whether no stretch of track
 * can have two of it.
 */
export const FEATURES = {
  gap: {
    title: 'Gap',
    prefix: 'g',
    schema: record({ ...spot, kind: choice('gap'), rail: choice('left', 'right', 'both') }),
  },
  mark: { title: 'Block mark', prefix: 'm', schema: record({ ...spot, kind: choice('mark') }) },
  signal: {
    title: 'Signal',
    prefix: 's',
    schema: record({
      ...spot,
      kind: choice('signal'),
      name: text(LONGEST_NAME.thing),
      governs: choice('up', 'down'),
      /** Its aspect system: one that comes with Roblik, or one of the document. */
      system: id(),
      /** What it shows when the wire of its command is broken or its relay is dead, where that is known. */
      broken: choice('stop', 'clear').optional().default(undefined),
      /** What the section before it has when the relay that cuts it off is dead, where that is known. */
      relay: choice('off', 'fed').optional().default(undefined),
      patterns: patterns(),
      settings: settings(),
    }),
  },
  feeder: {
    title: 'Feeder',
    prefix: 'x',
    schema: record({
      ...spot,
      kind: choice('feeder'),
      name: text(LONGEST_NAME.thing),
      /** What it is led from, where there are several: all that one booster feeds is its district. */
      booster: id().optional().default(undefined),
      /** Something between the booster and the track turns the two poles round when a train needs it. */
      reverses: boolean().typeError('must be true or false').optional().default(undefined),
    }),
  },
  stopMark: {
    title: 'Stop mark',
    prefix: 'x',
    schema: record({ ...spot, kind: choice('stopMark'), facing: choice('up', 'down') }),
  },
  buffer: { title: 'Buffer', prefix: 'x', schema: record({ ...spot, kind: choice('buffer') }) },
  edge: { title: 'Edge of the layout', prefix: 'x', schema: record({ ...spot, kind: choice('edge') }) },
  liftOut: {
    title: 'Lift-out joint',
    prefix: 'x',
    schema: record({
      ...spot,
      kind: choice('liftOut'),
      /** A contact of it cuts the power on either side while it is out. */
      guarded: boolean().typeError('must be true or false').optional().default(undefined),
    }),
  },
  limit: {
    title: 'Limit of authority',
    prefix: 'x',
    schema: record({ ...spot, kind: choice('limit'), name: text(60) }),
  },
  landmark: { title: 'Landmark', prefix: 'x', schema: record({ ...spot, kind: choice('landmark'), name: text(60) }) },
  levelCrossing: {
    title: 'Level crossing',
    prefix: 'x',
    oneAtATime: true,
    schema: record({ ...span, kind: choice('levelCrossing'), name: text(60) }),
  },
  platform: { title: 'Platform', prefix: 'x', schema: record({ ...span, kind: choice('platform'), name: text(60) }) },
  hidden: {
    title: 'Hidden stretch',
    prefix: 'x',
    oneAtATime: true,
    schema: record({ ...span, kind: choice('hidden') }),
  },
  curve: {
    title: 'Curve',
    prefix: 'x',
    oneAtATime: true,
    schema: record({ ...span, kind: choice('curve'), radius: lengthSchema, hand: choice('left', 'right') }),
  },
  taped: {
    title: 'Taped again',
    prefix: 'x',
    /** How long the stretch is by another tape than the distances of its line. */
    schema: record({ ...span, kind: choice('taped'), taped: lengthSchema }),
  },
  tapedAcross: {
    title: 'Taped across lines',
    prefix: 'x',
    /** The same from a place to one on another line, along the shortest way over the points between. */
    schema: record({ ...spot, kind: choice('tapedAcross'), far: placeSchema, taped: lengthSchema }),
  },
  gradient: {
    title: 'Gradient',
    prefix: 'x',
    oneAtATime: true,
    schema: record({ ...span, kind: choice('gradient'), percent: amount(-15, 15) }),
  },
} as const satisfies Record<string, { title: string; prefix: string; schema: Schema; oneAtATime?: true }>;

export type FeatureKind = keyof typeof FEATURES;
export const FEATURE_KINDS = Object.keys(FEATURES) as FeatureKind[];
