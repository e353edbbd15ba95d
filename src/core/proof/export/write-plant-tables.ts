import { NOWHERE, POWER_LEVELS, promisesFree, sensorKind } from '../../kinds';
import { conflictsOf, standsOn } from '../../signals';
import type { ProofModel } from '../model/model';
import type { ProofTrain, Said } from '../model/proof-train';
import { NO_STOP } from './promela-text';
import { column, type Tables, table } from './tables';

const lieOf = (position: 'straight' | 'diverging'): number => (position === 'straight' ? 0 : 1);

/**
 * What the model’s C functions look up: for every train each of its placements, one row after the other, and last a row for one that is off the track; and
 * what belongs to signals, sensors and motors.
 */
export function plantTables(model: ProofModel): Tables {
  const { system, trains, motors } = model;
  const { partition, sensors, aspects, readings, trafficSections } = system;
  const { wiring } = model.rules;
  const { powers } = wiring;
  const rows = <T>(of: (train: ProofTrain, placement: number) => T[]): T[][] =>
    trains.flatMap((train) => [...train.placements.map((_, p) => of(train, p)), []]);
  const base: number[] = [];
  let from = 0;
  for (const { placements } of trains) {
    base.push(from);
    from += placements.length + 1;
  }
  const sensorsIn = partition.fields.all.map((_, field) =>
    sensors.flatMap((__, s) => (partition.fields.ofSensor[s] === field ? [s] : [])),
  );
  const { routes } = model.ofSignals.overATrain;
  const tables: Tables = { declared: [], joined: [] };
  column(tables, 'base', base);
  column(
    tables,
    'base_off',
    trains.map(({ placements }) => placements.length),
  );
  table(
    tables,
    'seen',
    rows(({ placements }, p) => placements[p]!.detected.flatMap((field) => sensorsIn[field]!)),
  );
  table(
    tables,
    'over',
    rows(({ placements }, p) => placements[p]!.over),
  );
  table(
    tables,
    'blocks',
    rows(({ footprints }, p) => footprints[p]!.blocks),
  );
  table(
    tables,
    'courses',
    rows(({ footprints }, p) =>
      footprints[p]!.courses.flatMap((course) => [
        course.trafficSection,
        course.closed ? 1 : 0,
        course.back ? 1 : 0,
        course.first,
        course.last,
      ]),
    ),
  );
  table(
    tables,
    'zones',
    rows(({ placements }, p) => placements[p]!.zones),
  );
  table(
    tables,
    'throughout',
    rows(({ placements }, p) => placements[p]!.zonesThroughout),
  );
  table(
    tables,
    'ground',
    rows(({ grounds }, p) => grounds[p]!.flatMap(({ piece, low, high, up }) => [piece, ...low, ...high, up ? 1 : 0])),
    'double',
  );
  table(
    tables,
    'pieces',
    rows(({ placements }, p) => placements[p]!.tape.map(({ piece }) => piece)),
  );
  table(
    tables,
    'held',
    rows(({ placements }, p) => placements[p]!.blocks),
  );
  column(tables, 'section_of', trafficSections.ofBlock);
  /** Things before a driver: the signal, how many points decide that it comes, and for each its motor and how that lies. */
  table(
    tables,
    'ahead',
    rows(({ placements }, p) =>
      placements[p]!.before.flatMap(({ signal, over }) => [
        signal,
        over.length,
        ...over.flatMap(({ motor, position }) => [motor, position]),
      ]),
    ),
  );
  column(
    tables,
    'ahead_count',
    rows(({ placements }, p) => [placements[p]!.before.length]).map(([count = 0]) => count),
  );
  table(
    tables,
    'advance',
    rows(({ placements }, p) => placements[p]!.advances.map((_, way) => way)),
  );
  const advances = trains.flatMap(({ placements }) => placements.flatMap((placement) => placement.advances));
  column(
    tables,
    'leads_to',
    advances.map(({ to }) => to),
  );
  column(
    tables,
    'is_seen',
    advances.map(({ seen }) => (seen ? 1 : 0)),
  );
  column(
    tables,
    'off_the_end',
    advances.map(({ offTheEnd }) => (offTheEnd ? 1 : 0)),
  );
  table(
    tables,
    'gates',
    advances.map(({ gates }) => gates),
  );
  table(
    tables,
    'passes',
    advances.map(({ passes }) => passes),
  );
  table(
    tables,
    'onto',
    advances.map(({ turnouts }) =>
      turnouts.flatMap(({ motor, position, facing }) => [motor, position, facing ? 1 : 0]),
    ),
  );
  table(
    tables,
    'carry',
    advances.map(({ carry }) => carry),
  );
  /** Each way of turning back: where it leads, then how many things a person says, and for each the section, the input and whether it is said in any case. */
  const turns = trains.flatMap((train) => [
    ...train.placements.map(({ turns: own }, p) =>
      own.map(({ to }, choice) => ({ to, told: train.tellings[p]![choice]! })),
    ),
    [],
  ]);
  table(
    tables,
    'turn',
    turns.map((own) => own.map((_, choice) => choice)),
  );
  column(
    tables,
    'turns_to',
    turns.flat().map(({ to }) => to),
  );
  const saidOf = (told: readonly Said[]) =>
    told.flatMap(({ trafficSection, slot, always }) => [trafficSection, slot, always ? 1 : 0]);
  table(
    tables,
    'turn_says',
    turns.flat().map(({ told }) => saidOf(told)),
  );
  table(
    tables,
    'start_says',
    trains.map(({ toldAtStart }) => saidOf(toldAtStart)),
  );
  table(
    tables,
    'free',
    wiring.frees.map(({ block, slot, inside }) => [block, slot, inside]),
  );
  table(
    tables,
    'stood',
    rows(({ placements }, p) =>
      routes.flatMap((route, r) => (placements[p]!.heldIn.some((held) => standsOn(route, held)) ? [r] : [])),
    ),
  );
  column(
    tables,
    'route_signal',
    routes.map(({ signal }) => signal),
  );
  table(
    tables,
    'route_lies',
    routes.map(({ lies }) => lies.flatMap(({ motor, position }) => [motor, lieOf(position)])),
  );
  table(
    tables,
    'conflict',
    conflictsOf(readings).map(({ one, two, lies }) => [
      one,
      two,
      ...lies.flatMap(({ motor, position }) => [motor, lieOf(position)]),
    ]),
  );
  column(tables, 'aspect_slot', wiring.aspects);
  column(
    tables,
    'stops_in',
    aspects.map(({ stopsIn }) => (stopsIn === NOWHERE ? NO_STOP : stopsIn + 1)),
  );
  column(
    tables,
    'promises',
    aspects.map((aspect) => (promisesFree(aspect) ? 1 : 0)),
  );
  column(tables, 'detector_slot', wiring.detects);
  column(
    tables,
    'fed_by',
    sensors.map((_, s) => powers.findIndex(({ detects }) => detects.includes(s))),
  );
  column(
    tables,
    'pulses',
    sensors.map(({ kind }) => (sensorKind(kind).pulses ? 1 : 0)),
  );
  column(tables, 'contact_slot', wiring.points);
  column(tables, 'drive_slot', wiring.drives);
  column(
    tables,
    'power_slot',
    powers.map(({ slot }) => slot),
  );
  column(
    tables,
    'feeds',
    POWER_LEVELS.map(({ feeds }) => (feeds ? 1 : 0)),
  );
  column(
    tables,
    'momentary',
    system.terminals.all.flatMap(({ momentary, slot }) => (momentary ? [slot] : [])),
  );
  column(tables, 'previous_slot', model.rules.previous);
  tables.declared.push(
    `enum { TRAINS = ${trains.length}, SENSORS = ${sensors.length}, MOTORS = ${motors.length}, POWERS = ${powers.length}, ROUTES = ${routes.length} };`,
    `enum { CONFLICTS = ${conflictsOf(readings).length}, MOMENTARY = ${system.terminals.all.filter(({ momentary }) => momentary).length}, PREVIOUS = ${model.rules.previous.length} };`,
  );
  return tables;
}
