import { NOWHERE, POWER_LEVELS, promisesFree, sensorKind } from '../../kinds';
import { conflictsOf, standsOn } from '../../signals';
import type { ProofModel } from '../model/model';
import type { ProofTrain, Said } from '../model/proof-train';
import { NO_STOP } from './promela-text';
import { column, type Tables, table } from './tables';

const lieOf = (position: 'straight' | 'diverging'): number => (position === 'straight' ? 0 : 1);

type Rows = <T>(of: (train: ProofTrain, placement: number) => T[]) => T[][];

/**
 * What the model’s C functions look up: for every train each of its placements, one row after the other, and last a row for one that is off the track; and
 * what belongs to signals, sensors and motors.
 */
export function plantTables(model: ProofModel): Tables {
  const { system, trains, motors } = model;
  const { powers } = model.rules.wiring;
  const { routes } = model.ofSignals.overATrain;
  const conflicts = conflictsOf(system.readings);
  const momentary = system.terminals.all.flatMap(({ momentary, slot }) => (momentary ? [slot] : []));
  const rows: Rows = (of) =>
    trains.flatMap((train) => [...train.placements.map((_, placement) => of(train, placement)), []]);
  const tables: Tables = { declared: [], joined: [] };
  firstRows(tables, trains);
  placementTables(tables, model, rows);
  advanceTables(tables, trains, rows);
  turnTables(tables, trains);
  routeTables(tables, model, rows);
  column(tables, 'momentary', momentary);
  column(tables, 'previous_slot', model.rules.previous);
  wiringTables(tables, model);
  tables.declared.push(
    `enum { TRAINS = ${trains.length}, SENSORS = ${system.sensors.length}, MOTORS = ${motors.length}, POWERS = ${powers.length}, ROUTES = ${routes.length} };`,
    `enum { CONFLICTS = ${conflicts.length}, MOMENTARY = ${momentary.length}, PREVIOUS = ${model.rules.previous.length} };`,
  );
  return tables;
}

/** The first row of each train, and its row off the track, counted from there. */
function firstRows(tables: Tables, trains: readonly ProofTrain[]): void {
  const base: number[] = [];
  let from = 0;
  for (const { placements } of trains) {
    base.push(from);
    from += placements.length + 1;
  }
  column(tables, 'base', base);
  const off = trains.map(({ placements }) => placements.length);
  column(tables, 'base_off', off);
}

/** What a train covers where it stands, what sees it there, and what its driver has before him. */
function placementTables(tables: Tables, { system }: ProofModel, rows: Rows): void {
  const { partition, sensors, trafficSections } = system;
  const sensorsIn = partition.fields.all.map((_, field) =>
    sensors.flatMap((__, s) => (partition.fields.ofSensor[s] === field ? [s] : [])),
  );
  const each = <T>(of: (placement: ProofTrain['placements'][number]) => T[]) =>
    rows(({ placements }, p) => of(placements[p]!));
  const seen = each(({ detected }) => detected.flatMap((field) => sensorsIn[field]!));
  const courses = rows(({ footprints }, p) =>
    footprints[p]!.courses.flatMap(({ trafficSection, closed, back, first, last }) => [
      trafficSection,
      closed ? 1 : 0,
      back ? 1 : 0,
      first,
      last,
    ]),
  );
  const ground = rows(({ grounds }, p) =>
    grounds[p]!.flatMap(({ piece, low, high, up }) => [piece, ...low, ...high, up ? 1 : 0]),
  );
  table(tables, 'seen', seen);
  const over = each((placement) => placement.over);
  table(tables, 'over', over);
  const blocks = rows(({ footprints }, p) => footprints[p]!.blocks);
  table(tables, 'blocks', blocks);
  table(tables, 'courses', courses);
  const zones = each((placement) => placement.zones);
  table(tables, 'zones', zones);
  const throughout = each(({ zonesThroughout }) => zonesThroughout);
  table(tables, 'throughout', throughout);
  table(tables, 'ground', ground, 'double');
  const pieces = each(({ tape }) => tape.map(({ piece }) => piece));
  table(tables, 'pieces', pieces);
  const held = each((placement) => placement.blocks);
  table(tables, 'held', held);
  /** Blocks that it is in, wherever in the placement it stands. */
  const surely = each(({ blocks: all, heldIn }) => all.filter((block) => heldIn.every((one) => one.includes(block))));
  table(tables, 'surely', surely);
  column(tables, 'section_of', trafficSections.ofBlock);
  /** Things before a driver: the signal, how many points decide that it comes, and for each its motor and how that lies. */
  const ahead = each(({ before }) =>
    before.flatMap(({ signal, over: decide }) => [
      signal,
      decide.length,
      ...decide.flatMap(({ motor, position }) => [motor, position]),
    ]),
  );
  table(tables, 'ahead', ahead);
  const counts = each(({ before }) => [before.length]).map(([count = 0]) => count);
  column(tables, 'ahead_count', counts);
}

/** Each step that a train can take, numbered over all placements: where it leads and what it meets. */
function advanceTables(tables: Tables, trains: readonly ProofTrain[], rows: Rows): void {
  const ways = rows(({ placements }, p) => placements[p]!.advances.map((_, way) => way));
  table(tables, 'advance', ways);
  const advances = trains.flatMap(({ placements }) => placements.flatMap((placement) => placement.advances));
  type Advance = (typeof advances)[number];
  const number = (name: string, of: (advance: Advance) => number) => column(tables, name, advances.map(of));
  const list = (name: string, of: (advance: Advance) => number[]) => table(tables, name, advances.map(of));
  number('leads_to', ({ to }) => to);
  number('is_seen', ({ seen }) => (seen ? 1 : 0));
  number('off_the_end', ({ offTheEnd }) => (offTheEnd ? 1 : 0));
  list('gates', ({ gates }) => gates);
  list('wants_power', ({ fedBy = [] }) => [...fedBy]);
  list('passes', ({ passes }) => passes);
  list('onto', ({ turnouts }) => turnouts.flatMap(({ motor, position, facing }) => [motor, position, facing ? 1 : 0]));
  list('carry', ({ carry }) => carry);
}

/** Each way of turning back: where it leads, then how many things a person says, and for each the section, the input and whether it is said in any case. */
function turnTables(tables: Tables, trains: readonly ProofTrain[]): void {
  const turns = trains.flatMap((train) => [
    ...train.placements.map(({ turns: own }, p) =>
      own.map(({ to }, choice) => ({ to, told: train.tellings[p]![choice]! })),
    ),
    [],
  ]);
  const choices = turns.map((own) => own.map((_, choice) => choice));
  table(tables, 'turn', choices);
  const leads = turns.flat().map(({ to }) => to);
  column(tables, 'turns_to', leads);
  const saidOf = (told: readonly Said[]) =>
    told.flatMap(({ trafficSection, slot, always }) => [trafficSection, slot, always ? 1 : 0]);
  const said = turns.flat().map(({ told }) => saidOf(told));
  table(tables, 'turn_says', said);
  const atStart = trains.map(({ toldAtStart }) => saidOf(toldAtStart));
  table(tables, 'start_says', atStart);
}

/** Routes with who stands on them, and which of them are in one another’s way. */
function routeTables(tables: Tables, model: ProofModel, rows: Rows): void {
  const { routes } = model.ofSignals.overATrain;
  const frees = model.rules.wiring.frees.map(({ block, slot, inside, taken }) => [block, slot, inside, taken]);
  table(tables, 'free', frees);
  const stood = rows(({ placements }, p) =>
    routes.flatMap((route, r) => (placements[p]!.heldIn.some((held) => standsOn(route, held)) ? [r] : [])),
  );
  table(tables, 'stood', stood);
  const signals = routes.map(({ signal }) => signal);
  column(tables, 'route_signal', signals);
  const pairs = (lies: readonly { motor: number; position: 'straight' | 'diverging' }[]) =>
    lies.flatMap(({ motor, position }) => [motor, lieOf(position)]);
  const lies = routes.map((route) => pairs(route.lies));
  table(tables, 'route_lies', lies);
  const conflicts = conflictsOf(model.system.readings).map(({ one, two, lies: both }) => [one, two, ...pairs(both)]);
  table(tables, 'conflict', conflicts);
}

/** Where in the program what belongs to signals, sensors, motors and power is read or written. */
function wiringTables(tables: Tables, { system, rules }: ProofModel): void {
  const { aspects, sensors } = system;
  const { wiring } = rules;
  const { powers } = wiring;
  column(tables, 'aspect_slot', wiring.aspects);
  const stops = aspects.map(({ stopsIn }) => (stopsIn === NOWHERE ? NO_STOP : stopsIn + 1));
  column(tables, 'stops_in', stops);
  const promises = aspects.map((aspect) => (promisesFree(aspect) ? 1 : 0));
  column(tables, 'promises', promises);
  column(tables, 'detector_slot', wiring.detects);
  const fedBy = sensors.map((_, s) => powers.findIndex(({ detects }) => detects.includes(s)));
  column(tables, 'fed_by', fedBy);
  const pulses = sensors.map(({ kind }) => (sensorKind(kind).pulses ? 1 : 0));
  column(tables, 'pulses', pulses);
  column(tables, 'contact_slot', wiring.points);
  column(tables, 'drive_slot', wiring.drives);
  const slots = powers.map(({ slot }) => slot);
  column(tables, 'power_slot', slots);
  const feeds = POWER_LEVELS.map((level) => (level.feeds ? 1 : 0));
  column(tables, 'feeds', feeds);
}
