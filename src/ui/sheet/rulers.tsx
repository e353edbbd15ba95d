import { memo, useId } from 'react';
import { ADMISSIONS } from '@/core/kinds';
import type { LayoutDocument } from '@/core/survey';
import { textWidth } from './label-placement';
import { layoutTicks, RULER_HEIGHT, scaleTicks, type Tick } from './ruler-steps';
import { bandOf, GUTTER, RIGHT_PAD, type SheetGeometry } from './sheet-geometry';

/** An area without signals is hatched so far to either side of its track. */
const HATCHED_PX = 26;

/** The areas that find room for their names over the ruler, those of its own line first. */
function namedAreas({ areas, referenceLine }: LayoutDocument, geometry: SheetGeometry): ReadonlySet<string> {
  const taken: [number, number][] = [];
  const own = areas.filter(({ line }) => line === referenceLine);
  const found = [...own, ...areas.filter((area) => !own.includes(area))].filter(({ name, line, from, to }) => {
    const { x, width } = bandOf(geometry, [{ line, from: from.tenthUm, to: to.tenthUm }]);
    const half = textWidth(name) / 2 + 4;
    const [low, high] = [x + width / 2 - half, x + width / 2 + half];
    if (taken.some(([a, b]) => low < b && high > a)) return false;
    taken.push([low, high]);
    return true;
  });
  return new Set(found.map(({ id }) => id));
}

/** Areas, the layout ruler, and the same distances at full size; a hair line down from each figure. */
export const Rulers = memo(function Rulers({
  document,
  geometry,
  width,
  height,
}: {
  document: LayoutDocument;
  geometry: SheetGeometry;
  width: number;
  height: number;
}) {
  const hatch = useId();
  const { view } = geometry;
  const from = geometry.drawing.from;
  const to = Math.min(geometry.drawing.to, geometry.valueAt(width - RIGHT_PAD));
  const first = Math.max(from, geometry.valueAt(GUTTER));
  const layout = layoutTicks(first, to, view.scale, document.shownUnit);
  const full = scaleTicks(first, to, view.scale, document.shownUnit, document.scale);
  const row = (ticks: Tick[], y: number, unit: string, strong: boolean) => (
    <g>
      <text
        x="56"
        y={y}
        textAnchor="end"
        fontSize="11.5"
        fontWeight={strong ? 650 : 400}
        style={strong ? undefined : { fill: 'var(--ink3)' }}
      >
        {unit}
      </text>
      {ticks.map((tick) => {
        const x = geometry.x(tick.at);
        return (
          <g key={tick.at}>
            <path d={`M${x} ${y + 4}v${tick.label ? 7 : 4}`} stroke="var(--edge)" strokeWidth="1" />
            {tick.label && (
              <text
                x={x}
                y={y}
                textAnchor="middle"
                fontSize="11.5"
                style={strong ? undefined : { fill: 'var(--ink3)' }}
              >
                {tick.label}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
  const named = namedAreas(document, geometry);
  return (
    <g>
      <defs>
        <pattern id={hatch} width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V9" stroke="var(--line)" strokeWidth="2" />
        </pattern>
      </defs>
      {layout.ticks
        .filter((t) => t.label)
        .map((tick) => (
          <path key={tick.at} d={`M${geometry.x(tick.at)} ${RULER_HEIGHT}V${height}`} stroke="var(--hair)" />
        ))}
      {document.areas.map((area) => {
        const span = bandOf(geometry, [{ line: area.line, from: area.from.tenthUm, to: area.to.tenthUm }]);
        const middle = span.x + span.width / 2;
        /** Nothing keeps two trains apart there, and that was decided. */
        const open = area.admits && !ADMISSIONS[area.admits].signals;
        const ys = [area.from, area.to].map(({ tenthUm }) => geometry.at(area.line, tenthUm).y);
        const top = Math.min(...ys) - HATCHED_PX;
        return (
          <g key={area.id}>
            {open && (
              <rect
                x={span.x}
                y={top}
                width={span.width}
                height={Math.max(...ys) + HATCHED_PX - top}
                fill={`url(#${hatch})`}
              >
                <title>{`${area.name}: trains come in ${ADMISSIONS[area.admits!].says}`}</title>
              </rect>
            )}
            {named.has(area.id) && (
              <>
                <path
                  d={`M${span.x} 12V20M${span.x} 16H${span.x + span.width}M${span.x + span.width} 12V20`}
                  stroke="var(--edge)"
                  strokeWidth="1"
                  strokeDasharray={open ? '4 3' : undefined}
                />
                <text x={middle} y="20" textAnchor="middle" fontWeight="650" fontSize="12.5">
                  {area.name}
                  <title>{area.purpose}</title>
                </text>
              </>
            )}
          </g>
        );
      })}
      {row(layout.ticks, 37, layout.unit, true)}
      {row(full.ticks, 58, full.unit, false)}
    </g>
  );
});
