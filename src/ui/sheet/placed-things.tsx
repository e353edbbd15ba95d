import { memo, type ReactNode } from 'react';
import { showLength } from '@/core/measure';
import { FEATURES, type Feature, type FeatureKind, type FeatureOf, type LayoutDocument } from '@/core/survey';
import { PENCIL } from './pencil';
import { Pickable } from './pickable';
import type { SheetGeometry } from './sheet-geometry';

/** Gaps, marks and signals have layers of their own. */
const ELSEWHERE: ReadonlySet<FeatureKind> = new Set(['gap', 'mark', 'signal']);

/** What is drawn along the lines, and picked there. */
export interface AlongTheLines {
  document: LayoutDocument;
  geometry: SheetGeometry;
  chosen: ReadonlySet<string>;
  onSelect?: (id: string) => void;
}

/** Everything else that sits at a distance: each small, and each to be picked. */
export const PlacedThings = memo(function PlacedThings({ document, geometry, chosen, onSelect }: AlongTheLines) {
  return document.features.map((feature) => {
    if (ELSEWHERE.has(feature.kind)) return null;
    const what = FEATURES[feature.kind].title;
    const { x, y } = geometry.at(feature.line, feature.at.tenthUm);
    const end = 'to' in feature ? geometry.at(feature.line, feature.to.tenthUm) : { x, y };
    if (!geometry.isNear(x, end.x)) return null;
    const sign = signOf(feature);
    const colour = chosen.has(feature.id) ? 'var(--accent)' : 'var(--edge)';
    const name = 'name' in feature ? ` ${feature.name}` : '';
    const label = `${what}${name} at ${showLength(feature.at.tenthUm, document.shownUnit)}`;
    return (
      <Pickable key={feature.id} thing={feature.id} label={label} onPick={onSelect && (() => onSelect(feature.id))}>
        <rect
          x={Math.min(x, end.x) - 4}
          y={sign.under ? y + 7 : y - 16}
          width={Math.abs(end.x - x) + 8}
          height="9"
          fill="transparent"
          pointerEvents="all"
        />
        <title>{label}</title>
        <g opacity={feature.certainty === 'tentative' ? PENCIL : undefined}>
          {sign.draw({ x, y, endX: end.x, colour }, feature)}
        </g>
      </Pickable>
    );
  });
});

/** Where a sign is drawn: from one place to another along a row. */
interface Drawn {
  x: number;
  y: number;
  endX: number;
  colour: string;
}

const tick = ({ x, y, colour }: Drawn) => (
  <path d={`M${x} ${y - 14}V${y - 5}M${x - 3} ${y - 14}H${x + 3}`} stroke={colour} strokeWidth="1.6" />
);
/** Beneath the track, so that signals keep the side above. */
const BENEATH = 9;
const DEEP = 6;

interface Sign<F> {
  draw: (drawn: Drawn, feature: F) => ReactNode;
  /** It is drawn beneath the track, and picked there. */
  under?: true;
}

/** How each kind is drawn; a kind that is not here is a tick. */
const SIGNS: { [K in FeatureKind]?: Sign<FeatureOf<K>> } = {
  buffer: {
    draw: ({ x, y }) => (
      <path d={`M${x} ${y - 8}V${y + 8}M${x + 3.5} ${y - 8}V${y + 8}`} stroke="var(--ink)" strokeWidth="2" />
    ),
  },
  platform: {
    draw: ({ x, y, endX, colour }) => (
      <rect x={Math.min(x, endX)} y={y - 13} width={Math.abs(endX - x)} height="4" fill={colour} opacity=".55" />
    ),
  },
  levelCrossing: {
    draw: ({ x, y, colour }) => (
      <path d={`M${x} ${y - 9}V${y + 9}M${x + 4} ${y - 9}V${y + 9}`} stroke={colour} strokeWidth="1.4" />
    ),
  },
  hidden: { draw: () => null },
  /** A bow: it bends to the side to which the track does, looked at to the right. */
  curve: {
    under: true,
    draw: ({ x, y, endX, colour }, { hand }) => {
      const deep = (hand === 'right') === endX > x ? DEEP : -DEEP;
      const at = y + BENEATH + DEEP / 2;
      return (
        <path
          d={`M${x} ${at - deep / 2}Q${(x + endX) / 2} ${at + deep * 1.5} ${endX} ${at - deep / 2}`}
          fill="none"
          stroke={colour}
          strokeWidth="1.8"
        />
      );
    },
  },
  /** A wedge, high where the track is high. */
  gradient: {
    under: true,
    draw: ({ x, y, endX, colour }, { percent }) => {
      const [low, high] = percent >= 0 ? [x, endX] : [endX, x];
      return <path d={`M${low} ${y + BENEATH + DEEP}H${high}V${y + BENEATH - 1}Z`} fill={colour} opacity=".45" />;
    },
  },
  /** A wire that comes up to the rail. */
  feeder: {
    under: true,
    draw: ({ x, y, colour }) => (
      <path
        d={`M${x} ${y + 4}V${y + 12}M${x - 3} ${y + 12}H${x + 3}M${x - 1.5} ${y + 14.5}H${x + 1.5}`}
        stroke={colour}
        strokeWidth="1.6"
      />
    ),
  },
  liftOut: {
    draw: ({ x, y, colour }) => (
      <path d={`M${x - 2} ${y - 9}V${y + 9}M${x + 2} ${y - 9}V${y + 9}`} stroke={colour} strokeDasharray="3 2" />
    ),
  },
  /** Two arrows that measure it. */
  taped: {
    under: true,
    draw: ({ x, y, endX, colour }) => (
      <path
        d={`M${x} ${y + BENEATH}v6M${endX} ${y + BENEATH}v6M${x} ${y + BENEATH + 3}H${endX}`}
        stroke={colour}
        strokeDasharray="4 2"
      />
    ),
  },
};
const TICK: Sign<Feature> = { draw: tick };
const signOf = ({ kind }: Feature) => (SIGNS[kind] ?? TICK) as Sign<Feature>;
