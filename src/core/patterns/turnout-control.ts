import { blocksOn } from '../detection';
import { and, type Expr, name, not, or } from '../logic';
import type { TurnoutPosition } from '../survey';
import { trackFrom } from '../track';
import * as names from './names';
import { RuleBook, type Scheme } from './scheme';

/**
 * Turnouts thrown by hand, refused while a vehicle may stand on the blades or foul a leg, and while a train is cleared
 * over them. A command is remembered, so that a turnout is driven to where it was last sent.
 */
export function turnoutRules(scheme: Scheme): RuleBook {
  const book = new RuleBook('turnout control');
  const { motors } = scheme.partition.graph;
  const groups = groupsOf(scheme);
  for (const { index, id: about, name: called, lies } of motors) {
    book.input(names.points(called), 'position', { about, yes: `${called} lies {}`, no: '' });
    for (const position of ['straight', 'diverging'] as const) {
      book.input(names.ask(called, position), 'bool', {
        about,
        yes: `${called} is asked to lie ${position}`,
        no: `${called} is not asked to lie ${position}`,
      });
    }
    const group = groups[index]!;
    const over = group.flatMap((member) => clearedOver(scheme, member));
    book.rule(
      names.cleared(called),
      'bool',
      { op: 'TOF', in: or(...over), ms: scheme.releaseMs, starts: true },
      {
        about,
        yes: `A train is cleared over ${called}, or was a moment ago`,
        no: `No train is cleared over ${called}`,
      },
    );
    const foul = [...new Set(group.flatMap((member) => foulingBlocks(scheme, member)))].sort((a, b) => a - b);
    const standing = foul.map((block) => name(names.occupied(scheme.partition.blocks[block]!.name)));
    book.rule(names.locked(called), 'bool', or(...standing, name(names.cleared(called))), {
      about,
      yes: `${called} is locked`,
      no: `${called} may be thrown`,
    });
    const asked = (position: TurnoutPosition): Expr =>
      and(
        or(...group.map((member) => name(names.ask(motors[member]!.name, position)))),
        not(name(names.locked(called))),
      );
    book.output(
      names.drive(called),
      'bool',
      { op: 'RS', set: asked('diverging'), reset: asked('straight'), starts: lies === 'diverging' },
      { about, yes: `${called} is driven to diverging`, no: `${called} is driven to straight` },
    );
  }
  return book;
}

/** The motors that throw together with each, itself included, however long the chain that names them. */
function groupsOf(scheme: Scheme): number[][] {
  const { motors } = scheme.partition.graph;
  const groups = motors.map((_, index) => new Set([index]));
  motors.forEach(({ throwsWith }, index) => {
    const other = throwsWith === undefined ? -1 : motors.findIndex(({ id }) => id === throwsWith);
    if (other < 0 || groups[index] === groups[other]) return;
    for (const member of groups[other]!) groups[index]!.add(member);
    for (const member of groups[index]!) groups[member] = groups[index]!;
  });
  return groups.map((group) => [...group].sort((a, b) => a - b));
}

/** Blocks in which a vehicle could stand on the blades or within the clearance of either leg. */
export function foulingBlocks(scheme: Scheme, motor: number): number[] {
  const { partition } = scheme;
  const { graph } = partition;
  const { kind, ports, clearance } = graph.points[graph.motors[motor]!.points]!;
  const fouling = new Set(kind.fouls.flat(2));
  const near = ports.flatMap((leg, port) => trackFrom(graph, leg, fouling.has(kind.ports[port]!) ? clearance : 1));
  return [...new Set(near.flatMap((s) => blocksOn(partition, s.edge, s.from, s.to)))];
}

/** A way over the turnout is cleared and a train in rear of its signal may be about to take it. */
function clearedOver(scheme: Scheme, index: number): Expr[] {
  const bySignal = new Map<number, Expr[]>();
  for (const { reading, to } of scheme.waysOver[index]!) {
    bySignal.set(reading.index, [...(bySignal.get(reading.index) ?? []), name(names.go(reading.signal.name, to))]);
  }
  return [...bySignal].map(([signal, ways]) => {
    const rear = scheme.partition.blocks[scheme.readings[signal]!.rear]!;
    return and(or(...ways), name(names.occupied(rear.name)));
  });
}
