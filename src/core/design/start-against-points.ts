import { onwardPieces, type Piece, pieceAt } from '../detection';
import type { Finding, Fix } from '../findings';
import type { Scheme } from '../patterns';
import type { Edit, Train } from '../survey';
import type { EdgeEnd } from '../track';

/** Trains that start in the block of points which lie against them, with no signal between. */
export function startsAgainstPoints(scheme: Scheme): Finding<Edit>[] {
  return scheme.document.trains.flatMap((train): Finding<Edit>[] => {
    const met = pointsAgainst(scheme, train);
    if (!met) return [];
    const names = [...new Set(met.map((motor) => scheme.partition.graph.motors[motor]!.name))].join(', ');
    return [
      {
        id: `start-against ${train.id}`,
        kind: 'start before points that lie against it',
        severity: 'unsafe',
        subject: train.id,
        says: `${train.name} starts before ${names} with no signal between, and ${met.length > 1 ? 'they lie' : 'it lies'} against it: it would run through the blades.`,
        figures: [],
        advice: 'Let them lie for it at the start, or give it another place to start.',
        fixes: liesForIt(scheme, met),
      },
    ];
  });
}

/** The motors that lie against a train on the way that its points leave it within its block; undefined where none do. */
function pointsAgainst({ partition, readings }: Scheme, { start }: Train): number[] | undefined {
  if (!start) return undefined;
  const { motors } = partition.graph;
  const isSignalled = (piece: Piece, exit: EdgeEnd, from?: number) =>
    readings.some(
      (one) =>
        one.piece === piece.index &&
        one.exit === exit &&
        (from === undefined || (exit === 1 ? one.signal.at.tenthUm >= from : one.signal.at.tenthUm <= from)),
    );
  let piece = pieceAt(partition, start.line, start.at.tenthUm, start.facing === 'up' ? 'down' : 'up');
  let exit: EdgeEnd = start.facing === 'up' ? 1 : 0;
  if (isSignalled(piece, exit, start.at.tenthUm)) return undefined;
  for (let steps = 0; steps < partition.pieces.length && !piece.bounded[exit]; steps++) {
    const onward = onwardPieces(partition, piece, exit);
    const wrong = onward.map(({ over }) =>
      over.filter(({ motor, position }) => motors[motor]!.lies !== position).map(({ motor }) => motor),
    );
    const open = wrong.findIndex((against) => against.length === 0);
    if (onward.length === 0) return undefined;
    if (open < 0) return wrong[0];
    piece = onward[open]!.piece;
    exit = onward[open]!.enters === 0 ? 1 : 0;
    if (isSignalled(piece, exit)) return undefined;
  }
  return undefined;
}

/** Of a turnout how it lies at the start is part of the layout; of a slip it is set by hand. */
function liesForIt({ document, partition }: Scheme, met: readonly number[]): Fix<Edit>[] {
  const { motors, points } = partition.graph;
  const node = points[motors[met[0]!]!.points]!;
  const turnout = document.turnouts.find(({ id }) => id === node.id);
  if (!turnout || met.some((motor) => motors[motor]!.points !== node.index)) return [];
  const lies = turnout.lies.map((lie, i) =>
    met.includes(node.motors[i]!) ? (lie === 'straight' ? ('diverging' as const) : ('straight' as const)) : lie,
  );
  return [
    {
      says: `${turnout.name} lies for it at the start`,
      edit: { do: 'change turnout', id: turnout.id, change: { lies } },
    },
  ];
}
