import { FULL_POWER } from '../kinds';
import { cutsOff } from '../patterns';
import type { System } from '../system';
import { faultKind } from './kind';

const OFF = 0;

/** The signal whose relay cuts a section off. */
const cutBy = ({ readings, partition }: System, section: number) =>
  readings.find(({ rear, signal }) => partition.blocks[rear]!.section === section && cutsOff(signal))?.signal;

export const relayDead = faultKind({
  title: 'The relay of the section before it is dead',
  says: (name) => `the relay that cuts off block ${name} is dead`,
  at: ['power'],
  strikes: (system, section) => cutBy(system, section) !== undefined,
  puts(system, section) {
    const relay = cutBy(system, section)?.relay;
    return relay && (relay === 'off' ? OFF : FULL_POWER);
  },
  compared: true,
});

export const relayWelded = faultKind({
  title: 'That relay is welded',
  says: (name) => `the relay that cuts off block ${name} is welded`,
  at: ['power'],
  strikes: (system, section) => cutBy(system, section) !== undefined,
  puts: () => FULL_POWER,
  compared: true,
});
