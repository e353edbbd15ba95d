import { memo } from 'react';
import { showLength } from '@/core/measure';
import { FEATURES, type Feature, type FeatureKind, type LayoutDocument } from '@/core/survey';
import { Pickable } from './pickable';
import type { SheetGeometry } from './sheet-geometry';

/** Gaps, marks and signals have layers of their own. */
const ELSEWHERE: ReadonlySet<FeatureKind> = new Set(['gap', 'mark', 'signal']);

/** What is drawn along the lines, and picked there. */
export interface AlongTheLines {
  document: LayoutDocument;
  geometry: SheetGeometry;
  selected: string | undefined;
  onSelect?: (id: string) => void;
}

/** Everything else that sits at a distance: each small, and each to be picked. */
export const PlacedThings = memo(function PlacedThings({ document, geometry, selected, onSelect }: AlongTheLines) {
  return document.features.map((feature) => {
    if (ELSEWHERE.has(feature.kind)) return null;
    const what = FEATURES[feature.kind].title;
    const { x, y } = geometry.at(feature.line, feature.at.tenthUm);
    const end = 'to' in feature ? geometry.at(feature.line, feature.to.tenthUm) : { x, y };
    if (!geometry.isNear(x, end.x)) return null;
    const colour = selected === feature.id ? 'var(--accent)' : 'var(--edge)';
    const name = 'name' in feature ? ` ${feature.name}` : '';
    const label = `${what}${name} at ${showLength(feature.at.tenthUm, document.shownUnit)}`;
    return (
      <Pickable key={feature.id} thing={feature.id} label={label} onPick={onSelect && (() => onSelect(feature.id))}>
        <rect
          x={Math.min(x, end.x) - 4}
          y={y - 16}
          width={Math.abs(end.x - x) + 8}
          height="9"
          fill="transparent"
          pointerEvents="all"
        />
        <title>{label}</title>
        <Sign feature={feature} x={x} y={y} endX={end.x} colour={colour} />
      </Pickable>
    );
  });
});

function Sign({
  feature,
  x,
  y,
  endX,
  colour,
}: {
  feature: Feature;
  x: number;
  y: number;
  endX: number;
  colour: string;
}) {
  switch (feature.kind) {
    case 'buffer':
      return <path d={`M${x} ${y - 8}V${y + 8}M${x + 3.5} ${y - 8}V${y + 8}`} stroke="var(--ink)" strokeWidth="2" />;
    case 'platform':
      return (
        <rect x={Math.min(x, endX)} y={y - 13} width={Math.abs(endX - x)} height="4" fill={colour} opacity=".55" />
      );
    case 'levelCrossing':
      return <path d={`M${x} ${y - 9}V${y + 9}M${x + 4} ${y - 9}V${y + 9}`} stroke={colour} strokeWidth="1.4" />;
    case 'hidden':
      return null;
    default:
      return <path d={`M${x} ${y - 14}V${y - 5}M${x - 3} ${y - 14}H${x + 3}`} stroke={colour} strokeWidth="1.6" />;
  }
}
