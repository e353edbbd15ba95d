import type { Fix } from '../findings';
import { SENSOR_KIND_IDS, type SensorKindId, sensorKind } from '../kinds';
import { fromMm } from '../measure';
import { asTyped, type Edit, type LayoutDocument, type Sensor } from '../survey';
import type { Block } from './division';
import { onwardPieces } from './onward-pieces';
import type { Partition } from './partition';
import { endsOf } from './spot-pairs';

/** So far to either side of a boundary the spots of a pair are proposed. */
const FROM_BOUNDARY = fromMm(20);

/** The kind of spot of which a pair at each end tells by which was left last, and so finds back by itself after a train that it missed. */
export const KIND_IN_PAIRS: SensorKindId = SENSOR_KIND_IDS.find((id) => {
  const { inPairs } = sensorKind(id);
  return inPairs !== undefined && inPairs.counts === undefined;
})!;

/**
 * A pair of spots at each end of a block in the place of what tells of it, as one step. None where points lie beyond an end, or there is no room
 * for them.
 */
export function pairsInstead(
  document: LayoutDocument,
  partition: Partition,
  block: Block,
  sensor: Sensor,
): Fix<Edit>[] {
  const kind = KIND_IN_PAIRS;
  const spots = endsOf(partition, block).map(({ piece: within, end }) => {
    const piece = partition.pieces[within]!;
    const [beyond, ...more] = onwardPieces(partition, piece, end);
    if (!beyond || more.length > 0) return [];
    const short = [piece, beyond.piece].some(({ from, to }) => to - from < 2 * FROM_BOUNDARY);
    const away = ({ from, to }: typeof piece, at: 0 | 1) => (at === 0 ? from + FROM_BOUNDARY : to - FROM_BOUNDARY);
    const places = [
      { line: piece.line, at: away(piece, end) },
      { line: beyond.piece.line, at: away(beyond.piece, beyond.enters) },
    ];
    return short ? [] : places;
  });
  if (spots.length === 0 || spots.some((places) => places.length === 0)) return [];
  const edits: Parameters<typeof withAll>[0] = [{ do: 'delete', id: sensor.id }];
  for (const { line, at } of spots.flat())
    edits.push({ do: 'add sensor', line, at: asTyped(at, document.shownUnit), kind });
  const says = `Put two ${sensorKind(kind).title.toLowerCase()}s at each end of ${block.name} in the place of ${sensor.name}`;
  return [{ says, edit: withAll(edits, says) }];
}

type Edits = Extract<Edit, { do: 'one after another' }>['edits'];
const withAll = (edits: Edits[number][], says: string): Edit => ({ do: 'one after another', edits, says });
