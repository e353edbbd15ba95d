import type { BlockView } from '@/core/design';
import { fromMm } from '@/core/measure';
import type { TrainFrame } from '@/core/simulation';
import { textWidth } from './label-placement';
import type { Placed } from './plan-labels';
import type { SheetGeometry } from './sheet-geometry';
import { type Extent, freePart, stepAside, trainExtents } from './step-aside';

/** A train farther than this off the sheet is not drawn; it is in the list beside it. */
const OFF_SHEET_PX = 600;

/** How one train is drawn. */
export interface DrawnTrain {
  id: string;
  name: string;
  /** Its number among all trains, which gives its colour. */
  index: number;
  /** Paths: its body, line by line, and its nose. */
  bodies: string[];
  nose: string;
  /** As much of its name as finds room inside. */
  text?: { says: string; x: number; y: number };
}

/** A plate that stands above the trains, and how far it has stepped aside. */
export interface DrawnPlate {
  block: BlockView;
  plate: NonNullable<ReturnType<Placed['plates']['get']>>;
  shift: number;
}

export interface DrawnTraffic {
  trains: DrawnTrain[];
  plates: DrawnPlate[];
}

export interface Ground {
  width: number;
  geometry: SheetGeometry;
  blocks: readonly BlockView[];
  plates: Placed['plates'];
  occupied: ReadonlySet<string>;
}

/** Trains at their true length, nose pointed, and the plates of the blocks that they are in. */
export function drawTraffic(
  { width, geometry, blocks, plates, occupied }: Ground,
  trains: readonly TrainFrame[] = [],
): DrawnTraffic {
  const extents = trains.map((train) => trainExtents(geometry, train));
  const all = extents.flat();
  const covering: Extent[] = [];
  const named: DrawnPlate[] = [];
  for (const block of blocks) {
    const plate = occupied.has(block.id) ? plates.get(block.id) : undefined;
    if (!plate) continue;
    const at = stepAside(geometry, plate, block, all);
    covering.push(at);
    named.push({ block, plate, shift: (at.from + at.to) / 2 - plate.x });
  }
  const drawn = trains.flatMap((train, index) => {
    const one = drawTrain(geometry, train, index, width);
    if (one) one.text = textIn(train.name, extents[index]!, covering);
    return one ?? [];
  });
  return { trains: drawn, plates: named };
}

function drawTrain(
  geometry: SheetGeometry,
  { id, name, spans }: TrainFrame,
  index: number,
  width: number,
): DrawnTrain | undefined {
  const [first] = spans;
  if (!first) return undefined;
  const nose = geometry.at(first.line, fromMm(first.from));
  const behind = geometry.at(first.line, fromMm(first.to));
  if (Math.max(nose.x, behind.x) < -OFF_SHEET_PX || Math.min(nose.x, behind.x) > width + OFF_SHEET_PX) return undefined;
  const tip = nose.x + (nose.x >= behind.x ? 7 : -7);
  return {
    id,
    name,
    index,
    bodies: spans.map(({ line, from, to }) => geometry.path(line, fromMm(Math.max(0, from)), fromMm(Math.max(0, to)))),
    nose: `M${nose.x} ${nose.y - 6}L${tip} ${nose.y}L${nose.x} ${nose.y + 6}Z`,
  };
}

function textIn(name: string, extents: readonly Extent[], covering: Extent[]): DrawnTrain['text'] {
  let room: Extent | undefined;
  for (const extent of extents) {
    const free = freePart(extent, covering);
    if (!room || free.to - free.from > room.to - room.from) room = free;
  }
  if (!room) return undefined;
  const { from, to, y } = room;
  const words = name.split(' ');
  for (let count = words.length; count > 0; count--) {
    const says = words.slice(0, count).join(' ');
    if (to - from > textWidth(says, 6.2) + 6) return { says, x: (from + to) / 2, y: y + 4 };
  }
  return undefined;
}

/** What must be the same for two drawings to differ in attributes alone. */
export const shapeOf = ({ trains, plates }: DrawnTraffic): string =>
  [
    ...trains.map(({ id, bodies, text }) => `${id} ${bodies.length} ${text?.says ?? ''}`),
    ...plates.map(({ block }) => block.id),
  ].join('\n');

/** The leader of a plate that has been moved from its place. */
export const leaderOf = ({ from, x, y }: DrawnPlate['plate'], shift: number): string | undefined =>
  from && `M${from.x} ${from.y}L${x + shift} ${y}`;

/** Moves what was drawn in the same shape to where it is now. */
export function moveTraffic(layer: SVGGElement, { trains, plates }: DrawnTraffic): void {
  const groups = layer.children;
  trains.forEach(({ bodies, nose, text }, i) => {
    const parts = groups[i]!.querySelectorAll<SVGElement>('[data-part]');
    bodies.forEach((d, k) => {
      parts[k]!.setAttribute('d', d);
    });
    parts[bodies.length]!.setAttribute('d', nose);
    if (!text) return;
    parts[bodies.length + 1]!.setAttribute('x', `${text.x}`);
    parts[bodies.length + 1]!.setAttribute('y', `${text.y}`);
  });
  plates.forEach(({ plate, shift }, i) => {
    const group = groups[trains.length + i]!;
    group.querySelector('g[data-part]')!.setAttribute('transform', `translate(${shift} 0)`);
    if (plate.from) group.querySelector('path[data-part]')!.setAttribute('d', leaderOf(plate, shift)!);
  });
}
