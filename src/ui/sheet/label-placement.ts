export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

export interface Label {
  id: string;
  /** Where it may stand, best first. */
  choices: Box[];
}

const overlaps = (a: Box, b: Box) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/**
 * Gives each label the first of its places that is free, in the order given: the important ones first. A label that fits
 * nowhere gets no place and is left out until the sheet is zoomed in; labels never overlap.
 */
export function placeLabels(labels: Label[], taken: Box[] = []): Map<string, number> {
  const placed = new Map<string, number>();
  const boxes = new TakenBoxes();
  for (const box of taken) boxes.take(box);
  for (const label of labels) {
    const choice = label.choices.findIndex((box) => boxes.isFree(box));
    if (choice < 0) continue;
    boxes.take(label.choices[choice]!);
    placed.set(label.id, choice);
  }
  return placed;
}

const COLUMN = 64;

/** Boxes that are taken, kept by the columns of the drawing that they reach into, so that few are looked at for each new one. */
export class TakenBoxes {
  private readonly columns = new Map<number, Box[]>();

  private *under({ x, width }: Box): Generator<number> {
    for (let column = Math.floor(x / COLUMN); column <= Math.floor((x + width) / COLUMN); column++) yield column;
  }
  take(box: Box): void {
    for (const column of this.under(box)) {
      const own = this.columns.get(column);
      if (own) own.push(box);
      else this.columns.set(column, [box]);
    }
  }
  isFree(box: Box): boolean {
    for (const column of this.under(box))
      if (this.columns.get(column)?.some((other) => overlaps(box, other))) return false;
    return true;
  }
  /** How much of a box is taken, in square pixels. */
  takenOf(box: Box): number {
    const others = new Set([...this.under(box)].flatMap((column) => this.columns.get(column) ?? []));
    let area = 0;
    for (const other of others) {
      const width = Math.min(box.x + box.width, other.x + other.width) - Math.max(box.x, other.x);
      const height = Math.min(box.y + box.height, other.y + other.height) - Math.max(box.y, other.y);
      if (width > 0 && height > 0) area += width * height;
    }
    return area;
  }
  clear(): void {
    this.columns.clear();
  }
}

/** A close enough width of text at drawing size. */
export const textWidth = (text: string, perLetter = 6.4): number => text.length * perLetter + 2;
