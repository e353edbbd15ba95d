import type { InferType } from 'yup';
import { SENSOR_KIND_IDS, sensorKind } from '../../kinds';
import {
  amount,
  certainty,
  choice,
  count,
  fixedOn,
  id,
  LONGEST_NAME,
  patterns,
  placeSchema,
  record,
  settings,
  text,
} from '../schema-parts';
import type { ListKind } from './kind';

/** More do not go through a core; our assumption. */
export const MOST_TURNS = 20;

/** The longest name of a module of inputs. */
export const LONGEST_MODULE = 40;

export const sensorSchema = record({
  id: id(),
  name: text(LONGEST_NAME.thing),
  kind: choice(...SENSOR_KIND_IDS),
  anchor: placeSchema,
  /** How long “occupied” is kept after something was noticed last, to hide drop-outs. */
  holdMs: count(0, 60_000),
  /** What one in a feeder notices through one turn, in mA, and how often the feeder is wound through it, where that is known. */
  noticesMa: amount(0.01, 1000).optional().default(undefined),
  turns: count(1, MOST_TURNS).optional().default(undefined),
  /** On which side of the track it stands, looking up the line, where that is known. */
  side: choice('left', 'right').optional().default(undefined),
  /** The input of a module that it is wired to: which module, and the number of the input there. */
  input: record({ module: text(LONGEST_MODULE), number: count(1, 999).optional().default(undefined) })
    .optional()
    .default(undefined),
  /** What its input reads when its wire is broken or it has no supply, where that is known. */
  broken: choice('occupied', 'free').optional().default(undefined),
  patterns: patterns(),
  settings: settings(),
  certainty: certainty(),
  fixedOn: fixedOn(),
});
export type Sensor = InferType<typeof sensorSchema>;

export const sensors: ListKind<Sensor> = {
  title: 'Sensor',
  titleOf: ({ kind }) => sensorKind(kind).title,
  prefix: 'd',
  most: 5000,
  schema: sensorSchema,
  refers: [{ at: 'anchor.line', to: 'lines', whenGone: 'goes too', distances: ['anchor.at'] }],
  longestName: LONGEST_NAME.thing,
  chosen: true,
};
