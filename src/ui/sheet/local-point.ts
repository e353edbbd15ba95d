import type { Point } from './sheet-geometry';

/** Where an event lies on a drawing, in its own pixels, however large everything is shown. */
export function localPoint(event: { clientX: number; clientY: number }, svg: SVGSVGElement): Point {
  const box = svg.getBoundingClientRect();
  const ratio = svg.clientWidth / box.width;
  return { x: (event.clientX - box.left) * ratio, y: (event.clientY - box.top) * ratio };
}
