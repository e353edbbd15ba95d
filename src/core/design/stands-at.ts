import { consistOf, eachCrossing, type Partition, partsNoticed, pieceAt } from '../detection';
import { fromMm, mmOf, type TenthUm } from '../measure';
import { layTape, type TapeEntry } from '../plant';
import type { Facing, LayoutDocument, Train } from '../survey';

interface OnLine {
  line: string;
  from: TenthUm;
  to: TenthUm;
}

/** A train that stands somewhere, and what every sensor makes of it. */
export interface StandsAt {
  /** All track under it, and that of it in blocks which read free, nose first. */
  on: OnLine[];
  hidden: OnLine[];
  /** Ids of the sensors that notice it now; one that keeps “occupied” for a while may still say so of where it was. */
  sensors: string[];
  /** By name: the blocks that read occupied, and those in which a part of it stands and that read free all the same. */
  occupied: string[];
  free: string[];
  /** Ids of points whose blades lie in a block that reads free though a part of it stands there: nothing keeps them from being thrown under it. */
  points: string[];
}

/** Undefined where the track behind its nose is too short for it. Points lie as they were surveyed. `dead`: the sections under it have no power. */
export function standsAt(
  document: LayoutDocument,
  partition: Partition,
  train: Train,
  place: { line: string; at: TenthUm; facing: Facing },
  dead = false,
  consist = consistOf(document, train),
): StandsAt | undefined {
  const { graph, pieces, blocks, fields } = partition;
  const up = place.facing === 'up';
  const nose = pieceAt(partition, place.line, place.at, up ? 'down' : 'up');
  const lies = (motor: number) => graph.motors[motor]!.lies;
  const tape = layTape(partition, nose, up ? 1 : 0, mmOf(place.at), consist.lengthMm, lies);
  if (!tape) return undefined;
  const detected = new Set<number>();
  if (partsNoticed(partition, consist) > 0)
    eachCrossing(partition, consist, tape, (_, field, comes, gone) => {
      if (comes <= 0 && gone > 0 && !(dead && fields.all[field]!.fedBy !== undefined)) detected.add(field);
    });
  const seen = new Set(
    [...detected].flatMap((field) => (fields.all[field]!.sensors.length > 0 ? (fields.all[field]!.section ?? []) : [])),
  );
  const onLine = ({ piece, exit, from, to }: TapeEntry): OnLine => {
    const { line, from: low, to: high } = pieces[piece]!;
    const [near, far] = [fromMm(Math.max(from, -consist.lengthMm) - from), fromMm(Math.min(to, 0) - from)];
    return exit === 1 ? { line, from: low + near, to: low + far } : { line, from: high - far, to: high - near };
  };
  const under = tape.filter(({ from, to }) => from < 0 && to > -consist.lengthMm).reverse();
  const isHidden = ({ piece }: TapeEntry) => !seen.has(pieces[piece]!.section);
  const blocksOf = (entries: readonly TapeEntry[]) => [
    ...new Set(entries.map(({ piece }) => blocks[pieces[piece]!.block]!)),
  ];
  const hidden = under.filter(isHidden);
  return {
    on: under.map(onLine),
    hidden: hidden.map(onLine),
    sensors: [...detected].sort((a, b) => a - b).flatMap((field) => fields.all[field]!.sensors),
    occupied: blocksOf(under.filter((entry) => !isHidden(entry))).map(({ name }) => name),
    free: blocksOf(hidden).map(({ name }) => name),
    points: blocksOf(hidden).flatMap((block) => block.points.map((node) => graph.points[node]!.id)),
  };
}

/** The worst of all places on a line for a train: where most of it stands in blocks that read free. Places a step apart are looked at. */
export function worstOn(
  document: LayoutDocument,
  partition: Partition,
  train: Train,
  line: string,
  facing: Facing,
  step: TenthUm,
): { at: TenthUm; hidden: TenthUm } | undefined {
  const length = document.lines.find(({ id }) => id === line)?.length.tenthUm ?? 0;
  const consist = consistOf(document, train);
  let worst: { at: TenthUm; hidden: TenthUm } | undefined;
  for (let at = step; at < length; at += step) {
    const found = standsAt(document, partition, train, { line, at, facing }, false, consist);
    if (!found) continue;
    const hidden = found.hidden.reduce((sum, { from, to }) => sum + to - from, 0);
    if (!worst || hidden > worst.hidden) worst = { at, hidden };
  }
  return worst;
}
