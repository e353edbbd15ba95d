import { and, name, not, or, previous } from '../logic';
import { rises } from './ahead';
import * as names from './names';
import { hasLeft, isTaken, pulseAt, twoRoadPattern } from './two-road-pattern';

/**
 * The loop in which one train waits to be overtaken. Who comes while it is empty goes in and waits; the next one goes by on the straight road, and as
 * it leaves lets go the one that waited. Common practice, no source.
 */
export const overtakingLoop = twoRoadPattern({
  id: 'overtaking loop',
  says: 'A train that comes while its diverging road is empty waits there until the next one has gone by on the straight road',
  remembers(scheme, { motor, straight, diverging }, book) {
    const [by, out] = [names.departure(motor, 'by'), names.departure(motor, 'diverging')];
    book.rule(
      by,
      'bool',
      {
        op: 'RS',
        set: or(...straight.blocks.map((block) => rises(names.occupied(scheme.partition.blocks[block]!)))),
        reset: and(previous(by), or(...hasLeft(scheme, straight))),
        starts: false,
      },
      {
        about: motor.id,
        yes: `A train is on the straight road of ${motor.name}`,
        no: `No train is on the straight road of ${motor.name}`,
      },
    );
    const overtaken = and(
      not(name(names.off(motor))),
      previous(by),
      or(...hasLeft(scheme, straight)),
      isTaken(scheme, diverging),
    );
    book.flag(
      ['departure', motor.index, 'diverging'],
      out,
      'bool',
      {
        op: 'RS',
        set: or(overtaken, pulseAt(motor)),
        reset: and(previous(out), not(previous(by)), or(...hasLeft(scheme, diverging))),
        starts: false,
      },
      {
        about: motor.id,
        fact: 'always',
        yes: `The train in the diverging road of ${motor.name} was overtaken, and has not left`,
        no: `No train in the diverging road of ${motor.name} was overtaken`,
      },
    );
  },
  enters: (scheme, { diverging }, position) =>
    position === 'straight' ? isTaken(scheme, diverging) : not(isTaken(scheme, diverging)),
  leaves: (_, { motor }, position) =>
    position === 'straight'
      ? not(name(names.departure(motor, 'diverging')))
      : name(names.departure(motor, 'diverging')),
  sayLeaves: ({ motor }, position) =>
    position === 'straight'
      ? `nobody leaves the diverging road of ${motor.name}`
      : `a train has gone by the one in the diverging road of ${motor.name}`,
});
