import { mmOf, TENTH_UM_PER_MM } from '@/core/measure';
import type { Drawing } from '@/core/track';
import { RULER_HEIGHT } from './ruler-steps';
import { GUTTER, RIGHT_PAD, SheetGeometry } from './sheet-geometry';

/** CSS pixels to a millimetre, exactly. */
export const PX_PER_MM = 96 / 25.4;
/** Length along the line on one sheet of A4 or Letter, lying, with room for any printer’s edge. */
export const PAGE_MM = 240;
const PITCH = 74;

/** A drawing on paper at a ratio, or at the one with which it fits on one page; sizes in CSS pixels. */
export function onPaper(drawing: Drawing, asked: number | 'fit') {
  const long = drawing.to - drawing.from;
  const ratio = asked === 'fit' ? mmOf(long) / (PAGE_MM - (GUTTER + RIGHT_PAD) / PX_PER_MM) : asked;
  const scale = PX_PER_MM / (ratio * TENTH_UM_PER_MM);
  const geometry = new SheetGeometry(drawing, { from: drawing.from, scale }, RULER_HEIGHT + 46, PITCH);
  const width = Math.ceil(GUTTER + RIGHT_PAD + long * scale);
  /** The width is rounded up to a whole pixel. */
  const pages = Math.max(1, Math.ceil((width - 1) / (PAGE_MM * PX_PER_MM)));
  return { ratio, geometry, width, height: geometry.bottom + 90, pages };
}
