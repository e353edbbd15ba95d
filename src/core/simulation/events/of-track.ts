import { POWER_LEVELS } from '../../kinds';
import { names } from '../../patterns';
import type { PlantEvent } from '../../plant';
import type { EventKind } from './kind';
import { trainName } from './of-trains';

type Of<K extends PlantEvent['kind']> = EventKind<Extract<PlantEvent, { kind: K }>>;

export const sensor: Of<'sensor'> = {
  code: 0,
  group: 'detectors',
  says({ system }, { field, on }) {
    const { partition } = system;
    const { section, sensors, blocks } = partition.fields.all[field]!;
    const called =
      section === undefined
        ? sensors.map((id) => system.sensors.find((s) => s.id === id)!.name)
        : blocks.map((b) => partition.blocks[b]!.name);
    return `${called.join(' and ')} ${on ? 'sees a train' : 'sees nothing any more'}`;
  },
};

export const points: Of<'points'> = {
  code: 1,
  group: 'turnouts',
  says: (run, { motor, position }) =>
    position === 'between' ? undefined : `${run.motors[motor]!.name} lies ${position}`,
};

export const pointsMovedUnder: Of<'points moved under'> = {
  code: 6,
  group: 'turnouts',
  says: (run, { train, motor }) => `${run.motors[motor]!.name} moves under ${trainName(run, train)}`,
};

export const power: Of<'power'> = {
  code: 13,
  group: 'aspects',
  says: ({ system: { partition } }, { section, level }) =>
    `${names.headOf(partition, partition.sections[section]!).name} ${POWER_LEVELS[level]!.says}`,
};
