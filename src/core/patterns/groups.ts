import type { Motor } from '../track';
import { byScheme } from './by-scheme';
import type { Scheme } from './scheme';

/** The motors that throw together with one, itself included, however long the chain that names them. */
export const groupOf = (scheme: Scheme, { index }: Motor): Motor[] => groupsOf(scheme)[index]!;

const groupsOf = byScheme((scheme): Motor[][] => {
  const { motors } = scheme.partition.graph;
  const groups = motors.map((_, index) => new Set([index]));
  motors.forEach(({ throwsWith }, index) => {
    const other = throwsWith === undefined ? -1 : motors.findIndex(({ id }) => id === throwsWith);
    if (other < 0 || groups[index] === groups[other]) return;
    for (const member of groups[other]!) groups[index]!.add(member);
    for (const member of groups[index]!) groups[member] = groups[index]!;
  });
  return groups.map((group) => [...group].sort((a, b) => a - b).map((member) => motors[member]!));
});
