import type { InferType, Schema } from 'yup';
import type { LayoutDocument } from '../schema';
import { list } from '../schema-parts';
import { type acceptanceSchema, acceptances } from './acceptances';
import { type areaSchema, areas } from './areas';
import { type aspectSystemSchema, aspectSystems } from './aspect-systems';
import { type blockSchema, blocks } from './blocks';
import { type boosterSchema, boosters } from './boosters';
import { type crossingSchema, crossings } from './crossings';
import { type Feature, features } from './features';
import { type joinSchema, joins } from './joins';
import type { ListKind, Thing } from './kind';
import { type lineSchema, lines } from './lines';
import { type movementSchema, movements } from './movements';
import { type ruleSchema, rules } from './rules';
import { type sensorSchema, sensors } from './sensors';
import { type throwRuleSchema, throwRules } from './throw-rules';
import { type trainSchema, trains } from './trains';
import { type turnoutSchema, turnouts } from './turnouts';
import { type vehicleSchema, vehicles } from './vehicles';

/** The things of each list, in the order in which differences are told and files are written. */
export interface Lists {
  lines: InferType<typeof lineSchema>[];
  joins: InferType<typeof joinSchema>[];
  turnouts: InferType<typeof turnoutSchema>[];
  crossings: InferType<typeof crossingSchema>[];
  boosters: InferType<typeof boosterSchema>[];
  features: Feature[];
  blocks: InferType<typeof blockSchema>[];
  sensors: InferType<typeof sensorSchema>[];
  areas: InferType<typeof areaSchema>[];
  vehicles: InferType<typeof vehicleSchema>[];
  trains: InferType<typeof trainSchema>[];
  movements: InferType<typeof movementSchema>[];
  aspectSystems: InferType<typeof aspectSystemSchema>[];
  rules: InferType<typeof ruleSchema>[];
  acceptances: InferType<typeof acceptanceSchema>[];
  throwRules: InferType<typeof throwRuleSchema>[];
}
export type ListName = keyof Lists;

/** Every list of the document. Reading, ids, comparing, merging, deleting and finding go through this table. */
const TABLE: { [K in ListName]: ListKind<Lists[K][number]> } = {
  lines,
  joins,
  turnouts,
  crossings,
  boosters,
  features,
  blocks,
  sensors,
  areas,
  vehicles,
  trains,
  movements,
  aspectSystems,
  rules,
  acceptances,
  throwRules,
};
export const LISTS = TABLE as unknown as Record<ListName, ListKind>;
export const LIST_NAMES = Object.keys(TABLE) as ListName[];

/** The schemas of all lists, for the schema of the document. */
export const listSchemas = Object.fromEntries(
  LIST_NAMES.map((name) => [name, list(LISTS[name].schema, LISTS[name].most)]),
) as unknown as Record<ListName, Schema>;

export const thingsOf = (document: LayoutDocument, name: ListName): Thing[] => document[name] as unknown as Thing[];

/** What a thing is called by its kind: “Block mark”. */
export const kindWords = (name: ListName, thing: Thing): string => LISTS[name].titleOf?.(thing) ?? LISTS[name].title;
export type { ListKind, Reference, Thing } from './kind';
