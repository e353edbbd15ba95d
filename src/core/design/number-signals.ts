import type { TenthUm } from '../measure';
import { type LayoutDocument, signalsOf } from '../survey';
import { type Drawing, xOf } from '../track';

/** How signals are numbered: by the place they stand at and the track they stand on. */
export interface Numbering {
  /** The first number of a track, which may be 0. */
  firstTrack: number;
  /** Tracks are counted from the back of the room, which is drawn on top, or from the front. */
  from: 'back' | 'front';
  /** The number of the first area along the line. */
  firstPlace: number;
}

export interface NewNumber {
  id: string;
  before: string;
  after: string;
}

/** An arrow for the direction in which trains read it, as it is drawn. */
const READ = { up: '→', down: '←' };

/**
 * The number of every signal by place and track, such as 4.2→: of the area it stands in, or of the one that is nearest, counted along the
 * line; and of its row. Signals that would be called alike get a letter. Empty where there is no area.
 */
export function numberSignals(
  document: LayoutDocument,
  drawing: Drawing,
  { firstTrack, from, firstPlace }: Numbering,
): NewNumber[] {
  const x = (line: string, at: TenthUm) => xOf(drawing.lines.get(line)!, at);
  const areas = document.areas
    .filter(({ line }) => drawing.lines.has(line))
    .map(({ id, line, from: a, to: b }) => {
      const [one, other] = [x(line, a.tenthUm), x(line, b.tenthUm)];
      return { id, low: Math.min(one, other), high: Math.max(one, other) };
    })
    .sort((a, b) => a.low - b.low || (a.id < b.id ? -1 : 1));
  if (areas.length === 0) return [];
  const signals = signalsOf(document).filter(({ line }) => drawing.lines.has(line));
  const rows = rowsOf(document, drawing, from);
  const placed = signals.map(({ id, name, line, at, governs }) => {
    const own = x(line, at.tenthUm);
    const off = areas.map(({ low, high }) => Math.max(low - own, own - high, 0));
    const place = firstPlace + off.indexOf(Math.min(...off));
    const track = firstTrack + rows.indexOf(drawing.lines.get(line)!.row);
    return { id, before: name, own, stem: `${place}.${track}`, arrow: READ[governs] };
  });
  placed.sort((a, b) => a.own - b.own || (a.id < b.id ? -1 : 1));
  return placed.map(({ id, before, stem, arrow }) => {
    const alike = placed.filter((one) => one.stem === stem && one.arrow === arrow);
    const nth = alike.findIndex((one) => one.id === id);
    return { id, before, after: `${stem}${alike.length > 1 ? letter(nth) : ''}${arrow}` };
  });
}

/** The rows of all tracks, in the order in which they are counted. */
function rowsOf({ lines }: LayoutDocument, drawing: Drawing, from: Numbering['from']): number[] {
  const rows = [...new Set(lines.flatMap(({ id }) => drawing.lines.get(id)?.row ?? []))].sort((a, b) => a - b);
  return from === 'front' ? rows.reverse() : rows;
}

/** The name of every line by its row, such as Track 2; lines of one row get a letter, in order along it. */
export function numberTracks(
  document: LayoutDocument,
  drawing: Drawing,
  { firstTrack, from }: Pick<Numbering, 'firstTrack' | 'from'>,
): NewNumber[] {
  return rowsOf(document, drawing, from).flatMap((row, nth) => {
    const own = document.lines
      .filter(({ id }) => drawing.lines.get(id)?.row === row)
      .sort((a, b) => xOf(drawing.lines.get(a.id)!, 0) - xOf(drawing.lines.get(b.id)!, 0) || (a.id < b.id ? -1 : 1));
    return own.map(({ id, name }, i) => ({
      id,
      before: name,
      after: `Track ${firstTrack + nth}${own.length > 1 ? letter(i) : ''}`,
    }));
  });
}

/** a … z, then aa. */
const letter = (n: number): string =>
  (n < 26 ? '' : letter(Math.floor(n / 26) - 1)) + String.fromCharCode(97 + (n % 26));
