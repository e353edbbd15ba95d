import { useWorkbench } from '@/ui/state/store';
import type { SheetGeometry } from './sheet-geometry';

/** The track of a route that is pointed at, of another beside it, and where the two cannot both be. */
export function PointedRoutes({ geometry }: { geometry: SheetGeometry }) {
  const routes = useWorkbench((s) => s.routes);
  if (!routes) return null;
  const { route, other = [], conflict = [] } = routes;
  const bands = [
    { stretches: route, stroke: 'var(--accent)', width: 14, opacity: 0.4 },
    { stretches: other, stroke: 'var(--warn)', width: 14, opacity: 0.4 },
    { stretches: conflict, stroke: 'var(--fail)', width: 7, opacity: 0.75 },
  ];
  return (
    <g pointerEvents="none" data-routes>
      {bands.flatMap(({ stretches, stroke, width, opacity }) =>
        stretches
          .filter(({ line }) => geometry.drawing.lines.has(line))
          .map(({ line, from, to }) => (
            <path
              key={`${stroke} ${line} ${from}`}
              d={geometry.path(line, from, to)}
              fill="none"
              stroke={stroke}
              strokeWidth={width}
              strokeLinejoin="round"
              opacity={opacity}
            />
          )),
      )}
    </g>
  );
}
