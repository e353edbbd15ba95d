import { NOTHING, sensorKind } from '../kinds';
import type { System } from '../system';
import { faultKind } from './kind';

const [FREE, OCCUPIED] = [0, 1];

/** What notices something can fail to; a timer or a virtual end notices nothing. */
const notices = ({ sensors }: System, of: number): boolean => sensorKind(sensors[of]!.kind).notices !== NOTHING;

/** What an input reads when its wire is broken. */
function broken({ sensors }: System, of: number): number | undefined {
  const reads = sensors[of]!.broken;
  return reads && (reads === 'occupied' ? OCCUPIED : FREE);
}

export const detectorDead = faultKind({
  title: 'A detector is dead, or its wire breaks',
  says: (name) => `detector ${name} is dead`,
  at: ['detector'],
  strikes: notices,
  puts: broken,
  compared: true,
});

export const detectorStuck = faultKind({
  title: 'A detector is stuck',
  says: (name) => `detector ${name} is stuck: it says occupied, whatever is there`,
  at: ['detector'],
  strikes: notices,
  puts: () => OCCUPIED,
  compared: true,
});

/** No wiring makes it safe. Common practice, no source. */
export const detectorBlind = faultKind({
  title: 'A detector notices nothing',
  says: (name) => `detector ${name} notices nothing`,
  at: ['detector'],
  strikes: notices,
  puts: () => FREE,
});

const takesRoomLight = ({ sensors }: System, of: number): boolean =>
  sensorKind(sensors[of]!.kind).takesRoomLight === true;

/** A lamp is lit, or the sun comes round. Common practice, no source. */
export const roomLight = faultKind({
  title: 'The light in the room changes',
  says: (name) => `light falls into ${name} and every other optical spot: they say occupied, whatever is there`,
  at: ['detector'],
  strikes: takesRoomLight,
  together: (system) => [...system.sensors.keys()].filter((of) => takesRoomLight(system, of)),
  puts: () => OCCUPIED,
  compared: true,
});

const moduleOf = ({ sensors }: System, of: number): string | undefined => sensors[of]!.input?.module;

const inModule = {
  at: ['detector'],
  strikes: (system: System, of: number) => notices(system, of) && moduleOf(system, of) !== undefined,
  together: (system: System, of: number) =>
    [...system.sensors.keys()].filter((other) => moduleOf(system, other) === moduleOf(system, of)),
} as const;

export const moduleLost = faultKind({
  ...inModule,
  title: 'A module is lost',
  says: (name) => `the module with detector ${name} is lost`,
  puts: broken,
  compared: true,
});

/** Whoever waits for the next word keeps the last one. Common practice, no source. */
export const linkDrops = faultKind({
  ...inModule,
  title: 'The radio link of a module drops out',
  says: (name) => `the radio link of the module with detector ${name} has dropped out: it keeps what was said last`,
  puts: () => 'as it was',
});
