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
  const boxes = [...taken];
  for (const label of labels) {
    const choice = label.choices.findIndex((box) => boxes.every((other) => !overlaps(box, other)));
    if (choice < 0) continue;
    boxes.push(label.choices[choice]!);
    placed.set(label.id, choice);
  }
  return placed;
}

/** A close enough width of text at drawing size. */
export const textWidth = (text: string, perLetter = 6.4): number => text.length * perLetter + 2;
