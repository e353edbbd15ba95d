import { least } from 'd3';
import type { DesignView } from '@/core/design';
import { OUTPUTS, type OutputKind, sensorKind } from '@/core/kinds';
import { showLength } from '@/core/measure';
import { CHOOSABLE } from '@/core/patterns';
import { type LayoutDocument, signalsOf, systemOf } from '@/core/survey';
import { type Box, TakenBoxes, textWidth } from './label-placement';
import { RULER_HEIGHT } from './ruler-steps';
import type { SheetGeometry } from './sheet-geometry';
import { HEAD_HEIGHT, headWidth } from './signal-head';

/** Distances of a signal head from the rail, nearest first. */
export const SIGNAL_DROPS = [18, 34];
/** On paper nothing is left out: heads stand farther off, names out on a leader. */
const FARTHER_DROPS = [50, 66, 82];
/** To both sides, below and above. */
const AROUND = [
  [1, 1],
  [1, -1],
  [-1, 1],
  [-1, -1],
] as const;
const LEADERS = [
  [0, 24],
  [26, 24],
  [0, 42],
  [44, 34],
  [0, 58],
  [30, 52],
  [60, 24],
  [70, 46],
].flatMap(([dx, dy]) => AROUND.map(([x, y]): [number, number] => [dx! * x, dy! * y]));
/** With fewer than this share of the heads finding room, all are left out: a chance few would mislead. */
const LEAST_SHARE = 0.6;
/** Heads stay below the rulers. */
const HIGHEST = RULER_HEIGHT + 4;
const TURNOUT_SPOTS: [number, number][] = [
  [0, -12],
  [0, 18],
  [-12, -12],
  [12, -12],
  [-12, 18],
  [12, 18],
];
const FARTHER_TURNOUT_SPOTS = [
  [24, 29],
  [38, 29],
  [10, 42],
  [30, 44],
  [50, 36],
].flatMap(([dx, dy]) => AROUND.map(([x, y]): [number, number] => [dx! * x, dy! * y + 3]));
/** Where a lamp or an indicator may stand, seen from what it belongs to. */
/** Patterns that work an output which is drawn beside its thing. */
const DRAWN = new Set(
  CHOOSABLE.flatMap(({ id, makes }) =>
    Object.keys((OUTPUTS[makes] as OutputKind).marks ?? {}).length > 0 ? [id] : [],
  ),
);
const SHOWN_SPOTS = [0, -16, 16].flatMap((dx) => [-17, 17].map((dy): [number, number] => [dx, dy]));
const PLATE_HEIGHT = 17;
/** Plates slide along their block by these shares of its length when the middle is taken. */
const PLATE_SHIFTS = [0, -0.18, 0.18, -0.3, 0.3];

/** No length is shorter than “5"” with its arrows: not even put into words where there is less room. */
const LEAST_LENGTH_ROOM = 30;

export interface Placed {
  /** Drop of each signal's head; a signal without one is drawn as a bare mast. */
  signals: Map<string, number>;
  /** `from`: where the leader of a name begins that stands farther off. */
  turnouts: Map<string, { x: number; y: number; from?: { x: number; y: number } }>;
  /** Lamps and indicators, by what they belong to. */
  shown: Map<string, { x: number; y: number }>;
  /** `from`: where on the track the leader of a name begins that stands beside it. */
  plates: Map<string, { x: number; y: number; width: number; from?: { x: number; y: number } }>;
  /** Where each block is marked that finds no room for its name. */
  marks: Map<string, { x: number; y: number }>;
  lengths: Map<string, { x: number; y: number; text: string; from: number; to: number }>;
}

/** Whether a signal stands above the rail on the sheet: by its direction and the side signals stand on. */
export function standsAbove(side: LayoutDocument['signalSide'], rightwards: boolean): boolean {
  return rightwards === (side === 'left');
}

/**
 * Finds a place for every label on the sheet such that none overlap: signals first, then plates, turnouts and lengths. `everything`: what
 * finds no room is drawn all the same, as on paper, where nobody can zoom in.
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: labels take their rows one after the other, each below those before it.
export function planLabels(
  document: LayoutDocument,
  design: DesignView | undefined,
  geometry: SheetGeometry,
  lengths: boolean,
  everything = false,
): Placed {
  const placed: Placed = {
    signals: new Map(),
    turnouts: new Map(),
    shown: new Map(),
    plates: new Map(),
    marks: new Map(),
    lengths: new Map(),
  };
  const taken = new TakenBoxes();
  const rails = new TakenBoxes();
  for (const line of document.lines) {
    const [a, b] = geometry.flat(line.id);
    if (geometry.isNear(a.x, b.x))
      rails.take({ x: Math.min(a.x, b.x), y: a.y - 3, width: Math.abs(b.x - a.x), height: 6 });
  }
  const put = <T>(id: string, choices: { box: Box; value: T }[], into: Map<string, T>, onRail = false) => {
    const found = choices.find(({ box }) => taken.isFree(box) && (onRail || rails.isFree(box)));
    const choice =
      found ??
      (everything ? least(choices, ({ box }) => taken.takenOf(box) + (onRail ? 0 : rails.takenOf(box))) : undefined);
    if (!choice) return;
    taken.take(choice.box);
    into.set(id, choice.value);
  };

  const isNear = ({ line, at }: { line: string; at: { tenthUm: number } }) =>
    geometry.isNear(geometry.at(line, at.tenthUm).x);
  const signals = signalsOf(document).filter(isNear);
  const blocks = (design?.blocks ?? []).filter((block) => block.pieces.some((piece) => geometry.hasNear(piece)));
  for (const signal of signals) {
    const { x, y } = geometry.at(signal.line, signal.at.tenthUm);
    const rightwards = (signal.governs === 'up') === geometry.ascends(signal.line);
    const up = standsAbove(document.signalSide, rightwards);
    const width = headWidth(systemOf(document, signal.system)) + textWidth(signal.name, 7.2) + 22;
    const choices = [...SIGNAL_DROPS, ...(everything ? FARTHER_DROPS : [])].map((d) => {
      const drop = up ? -d : d;
      return {
        value: drop,
        box: {
          x: rightwards ? x - width + 11 : x - 11,
          y: y + drop - HEAD_HEIGHT / 2 - 1,
          width,
          height: HEAD_HEIGHT + 2,
        },
      };
    });
    const below = choices.filter((choice) => choice.box.y > HIGHEST);
    put(signal.id, below.length === 0 && everything ? choices.slice(0, 1) : below, placed.signals);
  }
  if (!everything && placed.signals.size < signals.length * LEAST_SHARE) {
    placed.signals.clear();
    taken.clear();
  }
  for (const { kind, anchor } of document.sensors) {
    if (sensorKind(kind).mark === '' || !isNear(anchor)) continue;
    const { x, y } = geometry.at(anchor.line, anchor.at.tenthUm);
    taken.take({ x: x - 9, y: y - 8, width: 18, height: 16 });
  }
  for (const { a, b } of document.crossings)
    for (const { line, at } of [a, b].filter(isNear)) {
      const { x, y } = geometry.at(line, at.tenthUm);
      taken.take({ x: x - 7, y: y - 7, width: 14, height: 14 });
    }
  for (const block of blocks) {
    const width = textWidth(block.name, 6.8) + 10;
    const piece = block.pieces.find(
      (p) => p.line === block.middle.line && block.middle.at >= p.from && block.middle.at <= p.to,
    )!;
    const span = piece.to - piece.from;
    const choices = PLATE_SHIFTS.map((shift) => {
      const { x, y } = geometry.at(piece.line, block.middle.at + shift * span);
      return {
        value: { x, y, width },
        box: { x: x - width / 2, y: y - PLATE_HEIGHT / 2, width, height: PLATE_HEIGHT },
      };
    });
    const [left, right] = [geometry.at(piece.line, piece.from).x, geometry.at(piece.line, piece.to).x];
    const fits = Math.abs(right - left) > width + 6;
    const from = geometry.at(piece.line, block.middle.at);
    const beside = LEADERS.map(([dx, dy]) => ({
      value: { x: from.x + dx, y: from.y + dy, width, from },
      box: { x: from.x + dx - width / 2, y: from.y + dy - PLATE_HEIGHT / 2, width, height: PLATE_HEIGHT },
    }));
    if (fits || everything)
      put(block.id, [...(fits ? choices : []), ...(everything ? beside : [])], placed.plates, true);
    if (!placed.plates.has(block.id)) placed.marks.set(block.id, geometry.at(piece.line, block.middle.at));
  }
  for (const turnout of document.turnouts.filter(isNear)) {
    const { x, y } = geometry.at(turnout.line, turnout.at.tenthUm);
    const width = textWidth(turnout.name);
    const spots = everything ? [...TURNOUT_SPOTS, ...FARTHER_TURNOUT_SPOTS] : TURNOUT_SPOTS;
    const choices = spots.map(([dx, dy], i) => ({
      value: { x: x + dx, y: y + dy, ...(i >= TURNOUT_SPOTS.length && { from: { x, y } }) },
      box: { x: x + dx - width / 2, y: y + dy - 10, width, height: 13 },
    }));
    put(turnout.id, choices, placed.turnouts);
  }
  const working = [
    ...document.sensors.map(({ id, patterns, anchor }) => ({ id, patterns, ...anchor })),
    ...document.turnouts,
    ...document.crossings.map(({ id, patterns, a }) => ({ id, patterns, ...a })),
    ...signalsOf(document),
  ].filter((thing) => thing.patterns?.some((pattern) => DRAWN.has(pattern)) && isNear(thing));
  for (const { id, line, at } of working) {
    const { x, y } = geometry.at(line, at.tenthUm);
    const choices = SHOWN_SPOTS.map(([dx, dy]) => ({
      value: { x: x + dx, y: y + dy },
      box: { x: x + dx - 8, y: y + dy - 8, width: 16, height: 16 },
    }));
    put(id, choices, placed.shown);
  }
  if (!lengths) return placed;
  for (const block of blocks) {
    if (block.turnouts.length > 0) continue;
    const piece = block.pieces.find(
      (p) => p.line === block.middle.line && block.middle.at >= p.from && block.middle.at <= p.to,
    )!;
    const [a, b] = [geometry.at(piece.line, piece.from), geometry.at(piece.line, piece.to)];
    if (Math.abs(b.x - a.x) < LEAST_LENGTH_ROOM) continue;
    const text = showLength(block.length, document.shownUnit);
    const x = (a.x + b.x) / 2;
    const y = geometry.at(piece.line, block.middle.at).y;
    const width = textWidth(text, 6) + 6;
    if (Math.abs(b.x - a.x) < width + 12) continue;
    const aside = everything ? [0, -0.25, 0.25].map((share) => share * (Math.abs(b.x - a.x) - width)) : [0];
    const choices = aside.flatMap((dx) =>
      [36, -30, 48, ...(everything ? [-44, 62, -58] : [])].map((dy) => ({
        value: { x: x + dx, y: y + dy, text, from: Math.min(a.x, b.x), to: Math.max(a.x, b.x) },
        box: { x: x + dx - width / 2, y: y + dy - 8, width, height: 13 },
      })),
    );
    put(block.id, choices, placed.lengths);
  }
  return placed;
}
