import type { TenthUm } from '../measure';
import { type LayoutDocument, remembered } from '../survey';
import { DrawStraight, READS, type Tracks } from './draw-straight';
import type { Drawing } from './drawing';

/**
 * The straightened drawing, computed from the document alone. x is true on the reference line; a line held at both ends
 * is stretched between them; a line held at one end runs on at true length. Rows are packed nearest to the line they leave.
 */
export const straighten = (document: Tracks & Pick<LayoutDocument, 'features'>): Drawing =>
  straightenTracks(document, JSON.stringify([...nearestToEnds(document)]));

const straightenTracks = remembered(READS, (document, nearest: string) =>
  new DrawStraight(document, new Map(JSON.parse(nearest))).drawing(),
);

/** Of each line the lowest and the highest place at which something stands; all else on it moves nothing of the drawing. */
function nearestToEnds({
  turnouts,
  features,
}: Pick<LayoutDocument, 'turnouts' | 'features'>): Map<string, [TenthUm, TenthUm]> {
  const nearest = new Map<string, [TenthUm, TenthUm]>();
  const count = (line: string, at: TenthUm) => {
    const known = nearest.get(line);
    if (!known) nearest.set(line, [at, at]);
    else if (at < known[0]) known[0] = at;
    else if (at > known[1]) known[1] = at;
  };
  for (const { line, at } of turnouts) count(line, at.tenthUm);
  for (const { kind, line, at } of features)
    if (kind === 'gap' || kind === 'mark' || kind === 'signal') count(line, at.tenthUm);
  return nearest;
}
