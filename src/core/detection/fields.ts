import { sensorKind } from '../kinds';
import { fromMm, mmOf } from '../measure';
import type { LayoutDocument } from '../survey';
import { type Consist, noticedInSections, partsOf } from './consist';
import { type Division, type Piece, pieceAt } from './division';

/** Track that is watched for one thing that trains have: a whole section, or the surroundings of a place. */
export interface Field {
  /** By its id. */
  notices: string;
  /** The section that it is, if it is a whole one. */
  section?: number;
  /** The stretches of track that it is, in mm of each line. */
  on: { piece: number; from: number; to: number }[];
  /** Ids of the sensors that watch it. */
  sensors: string[];
  blocks: number[];
  /** What watches it needs track voltage: it notices nothing while that section has no power. */
  fedBy?: number;
}

/** All that is watched on a layout. A sensor is on while something of what its field notices is in the field. */
export interface Fields {
  all: Field[];
  /** The field of each sensor, in the order of the document’s list. */
  ofSensor: number[];
  /** What any of them notices. */
  notices: string[];
  /** By what is noticed and the piece of track: the fields there, in mm of the line. */
  at: Map<string, { field: number; from: number; to: number }[][]>;
}

/**
 * Every section is a field for whatever the sensors of sections notice, watched or not, so that the same things happen where
 * none watches; a place is one for its own sensor.
 */
export function fieldsOf(document: Pick<LayoutDocument, 'sensors'>, division: Division): Fields {
  const { pieces, sections } = division;
  const ofSections = noticedInSections(document);
  const all: Field[] = ofSections.flatMap((notices) =>
    sections.map(({ index, blocks }) => ({ notices, section: index, on: [], sensors: [], blocks, fedBy: index })),
  );
  const wholePiece = ({ index, from, to }: Piece) => ({ piece: index, from: mmOf(from), to: mmOf(to) });
  for (const [n] of ofSections.entries())
    for (const piece of pieces) all[n * sections.length + piece.section]!.on.push(wholePiece(piece));
  const ofSensor = document.sensors.map(({ id, kind, anchor }) => {
    const {
      reachMm,
      notices: { id: notices },
    } = sensorKind(kind);
    const piece = pieceAt(division, anchor.line, anchor.at.tenthUm, 'up');
    if (reachMm === 'section') {
      const field = ofSections.indexOf(notices) * sections.length + piece.section;
      all[field]!.sensors.push(id);
      return field;
    }
    const [low, high] = [anchor.at.tenthUm - fromMm(reachMm), anchor.at.tenthUm + fromMm(reachMm)];
    const touched = pieces.filter(({ edge, from, to }) => edge === piece.edge && from < high && to > low);
    const on = touched.map(({ index, from, to }) => ({
      piece: index,
      from: mmOf(Math.max(low, from)),
      to: mmOf(Math.min(high, to)),
    }));
    all.push({ notices, on, sensors: [id], blocks: [...new Set(touched.map(({ block }) => block))] });
    return all.length - 1;
  });
  const notices = [...new Set(all.map((field) => field.notices))].sort();
  const at: Fields['at'] = new Map(notices.map((notice) => [notice, pieces.map(() => [])]));
  all.forEach((field, index) => {
    for (const { piece, from, to } of field.on) at.get(field.notices)![piece]!.push({ field: index, from, to });
  });
  return { all, ofSensor, notices, at };
}

/** Track of which it is known what is watched. */
type Watched = Pick<Division, 'pieces'> & { fields: Fields };

/** A piece of track on a train’s way, in the train’s own running distance. */
interface OnTheWay {
  piece: number;
  exit: 0 | 1;
  from: number;
}

/**
 * The physics of every sensor, written once; the plant and the proof both ask here. Tells of each part of a train that its layout’s
 * sensors notice, by number, and each field on a way: the part is in the field from where the nose has run as far as `comes`, until
 * it has run as far as `gone`. Parts are numbered the same whatever the way.
 */
export function eachCrossing(
  { fields, pieces }: Watched,
  { parts }: Consist,
  way: readonly OnTheWay[],
  tell: (part: number, field: number, comes: number, gone: number) => void,
): void {
  let first = 0;
  for (const notice of fields.notices) {
    const own = partsOf({ parts }, notice);
    const at = fields.at.get(notice)!;
    for (const { piece, exit, from } of way) {
      const { from: start, to: end } = pieces[piece]!;
      for (const field of at[piece]!) {
        const near = from + (exit === 1 ? field.from - mmOf(start) : mmOf(end) - field.to);
        const far = from + (exit === 1 ? field.to - mmOf(start) : mmOf(end) - field.from);
        for (let i = 0; i < own.length; i++) tell(first + i, field.field, near + own[i]!.from, far + own[i]!.to);
      }
    }
    first += own.length;
  }
}

/** How many parts of a train its layout’s sensors notice. */
export const partsNoticed = ({ fields }: Watched, { parts }: Consist): number =>
  fields.notices.reduce((sum, notice) => sum + partsOf({ parts }, notice).length, 0);
