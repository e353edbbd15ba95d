import { fromMm, STOP_SHORT_MM, type TenthUm } from '../measure';
import type { FewestAxles, SeenLimits } from './fewest-axles';
import type { Partition } from './partition';
import { seenAcross, watchedFrom } from './watched-ways';

/** How well every train must be seen, and what asks for it. */
export interface SeenEverywhere extends SeenLimits {
  /** The block, or the points, that bound the longest stretch that may be unseen. */
  blindBy: { says: string; id: string } | undefined;
  /** The points that bound the tail; the stop short of a signal does where there are none nearer. */
  tailBy: { says: string; id: string } | undefined;
}

/** The answer to it: the fewest axles, and under what limits. */
export interface SeeEverywhere extends FewestAxles {
  limits: SeenEverywhere;
}

/**
 * What no train may exceed: an unseen stretch longer than a watched block, or than the watched way over points, can stand there while all
 * reads free; so can a tail longer than the track beside the blades, or than what the next driver stops short by.
 */
export function seenLimits(partition: Partition): SeenEverywhere {
  const { graph, blocks, sections } = partition;
  const least = <T extends { room: TenthUm }>(all: readonly T[]): T | undefined =>
    all.reduce<T | undefined>((best, one) => (best && best.room <= one.room ? best : one), undefined);
  const across = graph.points.map((node) => ({
    room: seenAcross(partition, node),
    by: { says: `the way over ${node.name}`, id: node.id },
  }));
  const watched = blocks
    .filter(({ section, points }) => sections[section]!.sensors.length > 0 && points.length === 0)
    .map(({ length, name, id }) => ({ room: length, by: { says: `block ${name}`, id: id as string } }));
  const beside = graph.points.map((node) => ({
    room: Math.min(...node.ports.map((leg) => watchedFrom(partition, leg))),
    by: { says: `the track beside ${node.name}`, id: node.id },
  }));
  const [blind, tail] = [least([...across, ...watched]), least(beside)];
  const short = fromMm(STOP_SHORT_MM);
  const nearer = tail && tail.room < short;
  return {
    /** Just as long is too long: one axle leaves as the next comes in. */
    blind: blind ? blind.room - 1 : Number.MAX_SAFE_INTEGER,
    blindBy: blind?.by,
    tail: nearer ? tail.room : short,
    tailBy: nearer ? tail.by : undefined,
  };
}
