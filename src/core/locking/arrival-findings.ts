import { type Consist, consistOf, unseenOf, watchedFrom } from '../detection';
import type { Finding } from '../findings';
import { fromMm, showLength, type TenthUm } from '../measure';
import { type Arrival, arrivalsOf, type Scheme } from '../patterns';
import type { Edit, Train } from '../survey';
import { edgeAt, type Motor, onwardFrom, type PointsNode, trackFrom } from '../track';

/** Of points that are held until a train has arrived: routes on which nothing tells of it, and trains that have not cleared the points when it does. */
export function arrivalFindings(scheme: Scheme): Finding<Edit>[] {
  const { document } = scheme;
  const trains = document.trains.map((train) => ({ train, consist: consistOf(document, train) }));
  return arrivalsOf(scheme).flatMap((arrival) =>
    arrival.mark ? trainsTooLong(scheme, arrival, trains) : [withoutMark(scheme, arrival)],
  );
}

const called = ({ route: { reading, to } }: Arrival) => `${reading.signal.name} to ${to}`;
const idOf = ({ route: { reading, id } }: Arrival) => `${reading.signal.id} ${id}`;

function withoutMark({ partition }: Scheme, arrival: Arrival): Finding<Edit> {
  const { route, motors } = arrival;
  const last = route.route.blocks.at(-1);
  const where = last ? ` in ${partition.blocks[last.block]!.name}` : '';
  const names = motors.map(({ name }) => name).join(' and ');
  return {
    id: `arrival-unseen ${idOf(arrival)}`,
    kind: 'arrival that nothing tells',
    severity: 'check',
    subject: partition.graph.points[motors[0]!.points]!.id,
    says: `${names} should stay locked until a train has arrived, but on the way from ${called(arrival)} nothing tells of that: no spot stands${where}. There ${names} ${motors.length === 1 ? 'is' : 'are'} held without it.`,
    figures: [],
    advice: `Place a spot at the stop mark${where}, in Detect.`,
    fixes: [],
  };
}

/** The nose of a train is on the mark; its tail may still lie over the points, or foul them. */
function trainsTooLong(
  scheme: Scheme,
  arrival: Arrival,
  trains: readonly { train: { id: string; name: string }; consist: Consist }[],
): Finding<Edit>[] {
  const { document, partition } = scheme;
  const show = (length: TenthUm) => showLength(length, document.shownUnit);
  return arrival.motors.flatMap((motor): Finding<Edit>[] => {
    const room = roomBehind(scheme, arrival, motor);
    const watched = Math.min(...partition.graph.points[motor.points]!.ports.map((leg) => watchedFrom(partition, leg)));
    const long = trains.filter(({ consist }) => fromMm(consist.lengthMm) > room && isHidden(scheme, consist, watched));
    if (long.length === 0) return [];
    const longest = long.reduce((a, b) => (b.consist.lengthMm > a.consist.lengthMm ? b : a));
    const mark = arrival.mark!.name;
    return [
      {
        id: `arrival-long ${motor.id} ${idOf(arrival)}`,
        kind: 'train longer than from stop mark to clearance point',
        severity: 'unsafe',
        subject: partition.graph.points[motor.points]!.id,
        says: `With its nose at ${mark}, ${long.map(({ train }) => train.name).join(' and ')} ${long.length === 1 ? 'has' : 'have'} not cleared ${motor.name} on the way from ${called(arrival)}: its lock lets go while a car that nothing sees can stand there.`,
        figures: [
          { name: `from ${mark} back to the clearance point`, value: show(room) },
          { name: longest.train.name, value: show(fromMm(longest.consist.lengthMm)) },
        ],
        advice: `Move ${mark} on by ${show(fromMm(longest.consist.lengthMm) - room)} or more, or let its detectors see every car of the train.`,
        fixes: [],
      },
    ];
  });
}

/** Whether a part of a train that no detector sees reaches from points to where the track beside them is no longer watched: else its detectors hold them anyway. */
function isHidden({ document }: Scheme, consist: Consist, watched: TenthUm): boolean {
  const { all, blindMm } = unseenOf(document, consist);
  return all || fromMm(blindMm) > watched;
}

/** Whether some points, by their id, stay locked until a train has arrived clear of them, whichever way it takes over them, and it does not begin there. */
export function waitsForArrival(scheme: Scheme, points: string, train: Train): boolean {
  const { document, partition, routesOver } = scheme;
  const node = partition.graph.points.find(({ id }) => id === points);
  if (!node || mayBeginAt(scheme, node, train)) return false;
  const length = fromMm(consistOf(document, train).lengthMm);
  const arrivals = arrivalsOf(scheme);
  return node.motors.every((index) => {
    const motor = partition.graph.motors[index]!;
    const routes = routesOver[index]!;
    return (
      routes.length > 0 &&
      routes.every((route) => {
        const arrival = arrivals.find((one) => one.route === route && one.motors.includes(motor));
        return arrival?.mark !== undefined && roomBehind(scheme, arrival, motor) >= length;
      })
    );
  });
}

/** When power comes on nobody was cleared over points, so that nothing holds them for a train that stands there already, or may: behind it the track can branch. */
function mayBeginAt({ document, partition: { graph } }: Scheme, node: PointsNode, train: Train): boolean {
  const { start } = train;
  if (!start) return false;
  const length = fromMm(consistOf(document, train).lengthMm);
  const up = start.facing === 'up';
  const nose = start.at.tenthUm;
  const own = edgeAt(graph, start.line, nose, up ? 'down' : 'up');
  const rest = length - (up ? nose - own.from : own.to - nose);
  const here = up
    ? { edge: own.index, from: Math.max(own.from, nose - length), to: nose }
    : { edge: own.index, from: nose, to: Math.min(own.to, nose + length) };
  const behind = rest > 0 ? onwardFrom(graph, own.index, up ? 0 : 1) : [];
  const body = [here, ...behind.flatMap(({ edge, enters }) => trackFrom(graph, { edge, end: enters }, rest))];
  const near = node.ports.flatMap((port) => trackFrom(graph, port, Math.max(1, node.clearance)));
  return body.some((part) => near.some(({ edge, from, to }) => edge === part.edge && from < part.to && to > part.from));
}

/** From the stop mark of a route back to the clearance point of a motor on it; below zero where the mark lies within the clearance. */
export function roomBehind({ partition }: Scheme, { route: { route }, mark }: Arrival, motor: Motor): TenthUm {
  const { pieces, graph } = partition;
  const node = graph.points[motor.points]!;
  const { line, at } = mark!.anchor;
  /** From the points on; they lie between two pieces of the route, or before its first. */
  let since: TenthUm | undefined;
  let room: TenthUm = 0;
  let clearance: TenthUm = 0;
  for (const { piece, enters } of route.track) {
    const { edge, from, to, line: own } = pieces[piece]!;
    const end = enters === 0 ? from : to;
    const port = node.ports.findIndex((leg) => {
      const whole = graph.edges[leg.edge]!;
      return leg.edge === edge && leg.end === enters && end === (leg.end === 0 ? whole.from : whole.to);
    });
    if (port >= 0) {
      since = 0;
      /** The stem fouls nothing: there it is enough to have left the points. */
      clearance = node.kind.fouls.flat(2).includes(node.kind.ports[port]!) ? node.clearance : 0;
    }
    const isLast = own === line && at.tenthUm >= from && at.tenthUm <= to;
    if (since !== undefined) {
      if (isLast) room = since + Math.abs(at.tenthUm - end);
      since += to - from;
    }
  }
  return room - clearance;
}
