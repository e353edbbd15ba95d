import type { Finding } from '../findings';
import { assumedPosition, holdingBlocks, isDriven, isPositionAssumed, isWatched, type Scheme } from '../patterns';
import { waysRun } from '../signals';
import type { Edit } from '../survey';
import type { Motor } from '../track';

/** Points that nothing holds as it should, and points of which nothing tells how they lie. */
export const lockFindings = (scheme: Scheme): Finding<Edit>[] => [
  ...heldByNothing(scheme),
  ...scheme.partition.graph.motors.flatMap((motor) => [...thrownByHand(scheme, motor), ...assumed(scheme, motor)]),
];

/** A lock of points that people throw is one for the eyes. */
function thrownByHand(scheme: Scheme, motor: Motor): Finding<Edit>[] {
  if (isDriven(scheme, motor) || !isWatched(scheme, motor)) return [];
  return [
    {
      id: `thrown-by-hand ${motor.id}`,
      kind: 'points that nothing holds',
      severity: 'note',
      subject: scheme.partition.graph.points[motor.points]!.id,
      says: `${motor.name} is thrown by hand: its lock says when nobody may throw it, and holds nothing.`,
      figures: [],
      advice: 'Show its lock beside it, by a lamp on the panel, and look before you throw it.',
      fixes: [],
    },
  ];
}

/** Signals clear over points that may not lie as they count as lying. */
function assumed(scheme: Scheme, motor: Motor): Finding<Edit>[] {
  if (!isPositionAssumed(scheme, motor)) return [];
  const { id } = scheme.partition.graph.points[motor.points]!;
  const isRelied = scheme.routesOver[motor.index]!.length > 0;
  const driven = isDriven(scheme, motor);
  const over = isRelied ? ' Signals clear over it by where it was sent last.' : '';
  return [
    {
      id: `position-assumed ${motor.id}`,
      kind: 'points whose position is assumed',
      severity: !isRelied ? 'note' : driven ? 'check' : 'unsafe',
      subject: id,
      says: driven
        ? `No contact tells how ${motor.name} lies: if its motor sticks, or one of two that throw together does not follow, nothing notices it.${over}`
        : `No contact tells how ${motor.name} lies, and a hand throws it: how it lies nobody knows but who has thrown it.${over}`,
      figures: [],
      advice: 'Let a contact that the blades themselves work tell how it lies.',
      fixes: [
        {
          says: `Let a contact tell how ${motor.name} lies`,
          edit: { do: 'use pattern', id, pattern: assumedPosition.id, on: false },
        },
      ],
    },
  ];
}

/** Points that follow their button at any time, since nothing tells of a train near them. Where none can come, that is as it should be. */
function heldByNothing(scheme: Scheme): Finding<Edit>[] {
  const { document, partition } = scheme;
  const isRun = waysRun(document, partition);
  return partition.graph.motors.flatMap((motor): Finding<Edit>[] => {
    if (isWatched(scheme, motor)) return [];
    const blocks = holdingBlocks(scheme, motor).map((block) => partition.blocks[block]!);
    const comes =
      document.trains.length > 0 &&
      blocks.some((block) => block.pieces.some((piece) => isRun(piece, 0) || isRun(piece, 1)));
    const places = blocks.map(({ name }) => name).join(' and ');
    return [
      {
        id: `held-by-nothing ${motor.id}`,
        kind: 'points that nothing holds',
        severity: comes ? 'unsafe' : 'note',
        subject: partition.graph.points[motor.points]!.id,
        says: comes
          ? `${motor.name} moves whenever it is asked to, even under a train: no detector sees a train in ${places}.`
          : `${motor.name} follows its button alone: nothing watches ${places}, and no train of the roster can come there.`,
        figures: [],
        ...(comes && {
          advice: `Let a detector watch ${places}, or take the motor away and throw it by hand, with an eye on it.`,
        }),
        fixes: [],
      },
    ];
  });
}
