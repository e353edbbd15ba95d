import type { System, Terminal } from '../system';

/**
 * The inputs by which the rules hear that a train has come into a block that no detector watches throughout: that somebody says so, or where a
 * timer tells of it, the spots that set it off.
 */
export function cameIn({ partition, terminals, sensors }: System, block: number): Terminal[] {
  const inferred = partition.inferred.get(block);
  const found =
    inferred?.by === 'time'
      ? inferred.setOff.map(({ id }) => terminals.find('detector', numberOf(sensors, id)))
      : [terminals.find('said occupied', block)];
  return found.filter((terminal) => terminal !== undefined);
}

const numberOf = (sensors: System['sensors'], id: string): number => sensors.findIndex((sensor) => sensor.id === id);
