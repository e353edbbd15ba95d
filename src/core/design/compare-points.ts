import { consistOf, turnedRound, unseenOf, watchedFrom } from '../detection';
import { type DivideWishes, divideEdit, suggestGaps } from '../divide';
import { fromMm } from '../measure';
import { compileScheme, holdingBlocks } from '../patterns';
import { applyEdit, isKind, type LayoutDocument } from '../survey';

/** What comes of one way of dividing the track at points. */
export interface PointsDivision {
  turnoutsIn: LayoutDocument['turnoutsIn'];
  /** There is no division with these wishes. */
  impossible: boolean;
  /** Gaps and sections that there then are, and places for the longest train. */
  gaps: number;
  sections: number;
  places: number;
  /** Names of points that a block holds in which a train has room to stand: while one waits there, they cannot be thrown, not for that train either. */
  waiting: string[];
  /** Names of points that can move under an end of a train that nothing sees. */
  loose: string[];
}

/** Points that are part of blocks beside points with sections of their own, as the track would be divided anew: fixed gaps stay in both. */
export function comparePoints(document: LayoutDocument, wishes: DivideWishes): PointsDivision[] {
  return (['blocks', 'routes'] as const).map((turnoutsIn): PointsDivision => {
    const suggestion = suggestGaps(document, { ...wishes, keep: 'fixed', held: [], points: turnoutsIn });
    const { places } = suggestion;
    const done = applyEdit(document, divideEdit(document, suggestion, true));
    if (suggestion.impossible || !done.ok)
      return { turnoutsIn, impossible: true, gaps: 0, sections: 0, places, waiting: [], loose: [] };
    const divided = done.change.document;
    const scheme = compileScheme(divided);
    const { partition } = scheme;
    const { graph, blocks } = partition;
    const trains = divided.trains.map((train) => consistOf(divided, train));
    const unseen = Math.max(
      0,
      ...trains.flatMap((consist) => [consist, turnedRound(consist)]).map((one) => unseenOf(divided, one).tailMm),
    );
    const roomy = (motor: number) =>
      holdingBlocks(scheme, graph.motors[motor]!).some((block) => blocks[block]!.length >= wishes.shortest);
    const ends = (ports: (typeof graph.points)[number]['ports']) =>
      Math.min(...ports.map((leg) => watchedFrom(partition, leg)));
    return {
      turnoutsIn,
      impossible: false,
      gaps: divided.features.filter(isKind('gap')).length,
      sections: partition.sections.length,
      places,
      waiting: graph.points.filter(({ motors }) => motors.some(roomy)).map(({ name }) => name),
      loose: graph.points.filter(({ ports }) => fromMm(unseen) > ends(ports)).map(({ name }) => name),
    };
  });
}
