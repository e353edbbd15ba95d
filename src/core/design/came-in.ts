import type { System, Terminal } from '../system';

/**
 * The inputs by which the rules hear that a train has come into a block that no detector watches throughout: that somebody says so, or where a
 * timer tells of it, the spots that set it off.
 */
export function cameIn({ partition, terminals, sensors }: System, block: number): Terminal[] {
  const inferred = partition.inferred.get(block);
  if (inferred?.by === 'time')
    return inferred.setOff.flatMap(({ id }) => {
      const spot = terminals.find(
        'detector',
        sensors.findIndex((sensor) => sensor.id === id),
      );
      return spot ?? [];
    });
  return [terminals.find('said occupied', block) ?? []].flat();
}
