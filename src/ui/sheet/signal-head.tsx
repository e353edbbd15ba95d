import type { ReactNode } from 'react';
import { type Aspect, type AspectSystem, headsOf, type LampKind } from '@/core/kinds';

const LAMP = 12;
/** The places for lamps on the sheet: one for each lamp of a single head, one for each of several heads. */
const placesOf = (system: AspectSystem): number => {
  const heads = headsOf(system);
  return heads > 1 ? heads : system.lamps.length;
};
export const headWidth = (system: AspectSystem): number => placesOf(system) * LAMP + 4;
export const HEAD_HEIGHT = 14;

/** The lamps of a head that are lit; none where nothing is known. */
export const litLamps = (system: AspectSystem, shows: string | undefined): readonly number[] =>
  aspectOf(system, shows)?.lit ?? [];
export const aspectOf = ({ aspects }: AspectSystem, shows: string | undefined): Aspect | undefined =>
  aspects.find(({ id }) => id === shows);

/** One lamp. Outline: can show. Filled: shows. A dashed ring: flashes. */
export function Lamp(props: LampKind & { lit: boolean | undefined; flashes?: boolean; x: number; y: number }) {
  const { shape, colour, lit, flashes, x, y } = props;
  const paint =
    lit === undefined
      ? { fill: 'none', stroke: colour === 'white' ? 'var(--ink2)' : `var(--${colour})`, strokeWidth: 1.5 }
      : lit
        ? { fill: `var(--${colour})`, stroke: 'var(--ink)', strokeWidth: 1.1 }
        : { fill: 'none', stroke: 'var(--edge)', strokeWidth: 1 };
  const r = lit === false ? 2.4 : 4;
  return (
    <>
      {SHAPES[shape](x, y, r, paint)}
      {lit && flashes && (
        <circle cx={x} cy={y} r={5.6} fill="none" stroke="var(--ink)" strokeWidth="1.2" strokeDasharray="2 1.5" />
      )}
    </>
  );
}

const SHAPES: Record<LampKind['shape'], (x: number, y: number, r: number, paint: object) => ReactNode> = {
  square: (x, y, r, paint) => <rect x={x - r} y={y - r} width={2 * r} height={2 * r} {...paint} />,
  triangle: (x, y, r, paint) => (
    <path d={`M${x} ${y - r - 0.6}L${x + r + 0.6} ${y + r - 0.4}H${x - r - 0.6}Z`} strokeLinejoin="round" {...paint} />
  ),
  circle: (x, y, r, paint) => <circle cx={x} cy={y} r={r} {...paint} />,
  bar: (x, y, r, paint) => <rect x={x - r - 0.6} y={y - 1.8} width={2 * r + 1.2} height={3.6} {...paint} />,
  slant: (x, y, r, paint) => (
    <rect x={x - r - 0.6} y={y - 1.8} width={2 * r + 1.2} height={3.6} transform={`rotate(-45 ${x} ${y})`} {...paint} />
  ),
  diamond: (x, y, r, paint) => (
    <path d={`M${x} ${y - r - 0.8}L${x + r + 0.8} ${y}L${x} ${y + r + 0.8}L${x - r - 0.8} ${y}Z`} {...paint} />
  ),
};

/** What an aspect looks like, beside its name in a list. */
export function AspectLamps({
  system,
  aspect,
  width = LAMP + 4,
}: {
  system: AspectSystem;
  aspect: Aspect | undefined;
  /** Of the whole picture, with the first lamp in the middle of it. */
  width?: number;
}) {
  const lit = aspect?.lit ?? [];
  const own = lit.length * LAMP;
  return (
    <svg className="shrink-0" width={Math.max(width, own + 4)} height="16" aria-hidden="true">
      {lit.map((lamp, i) => (
        <Lamp
          key={lamp}
          {...system.lamps[lamp]!}
          lit
          flashes={aspect?.flashing?.includes(lamp)}
          x={Math.max(width, own + 4) / 2 - own / 2 + LAMP / 2 + i * LAMP}
          y={8}
        />
      ))}
    </svg>
  );
}

/**
 * A signal: mast at the rail, head on the approach side, an arrow past the mast in the direction it is read.
 * `drop` is the distance of the head from the rail, negative above it.
 */
export function SignalHead(props: {
  x: number;
  y: number;
  rightwards: boolean;
  drop: number;
  system: AspectSystem;
  shows: string | undefined;
  name: string;
  selected: boolean;
  held?: boolean;
  tentative: boolean;
}) {
  const { x, y, rightwards, drop, system, shows, name, selected, held, tentative } = props;
  const side = rightwards ? 1 : -1;
  const cy = y + drop;
  const width = headWidth(system);
  const lit = litLamps(system, shows);
  const flashing = aspectOf(system, shows)?.flashing;
  const left = rightwards ? x - 5 - width : x + 5;
  const nameX = rightwards ? left - 4 : left + width + 4;
  return (
    <>
      <path
        d={`M${x} ${y}V${cy}H${x - side * 5}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.5"
        pointerEvents="none"
      />
      <path d={`M${x + side * 3} ${cy - 4}L${x + side * 9} ${cy}L${x + side * 3} ${cy + 4}Z`} fill="var(--ink)" />
      <rect
        x={left}
        y={cy - HEAD_HEIGHT / 2}
        width={width}
        height={HEAD_HEIGHT}
        rx="4"
        fill={selected ? 'var(--accent-tint)' : 'var(--raised)'}
        stroke={selected ? 'var(--accent)' : 'var(--edge)'}
        strokeWidth={selected ? 2 : 1.1}
        strokeDasharray={tentative ? '3 2' : undefined}
      />
      {system.lamps.map((lamp, i) => {
        const { head = 0 } = lamp;
        const several = headsOf(system) > 1;
        const place = several ? head : i;
        const isFirst = !several || system.lamps.findIndex((other) => (other.head ?? 0) === head) === i;
        if (!isFirst && !lit.includes(i)) return null;
        return (
          <Lamp
            key={`${lamp.head} ${lamp.shape} ${i}`}
            {...lamp}
            lit={shows === undefined ? undefined : lit.includes(i)}
            flashes={flashing?.includes(i)}
            x={rightwards ? left + width - 2 - LAMP / 2 - place * LAMP : left + 2 + LAMP / 2 + place * LAMP}
            y={cy}
          />
        );
      })}
      <text x={nameX} y={cy + 4} textAnchor={rightwards ? 'end' : 'start'} fontWeight={selected ? 700 : 600}>
        {name}
        {held ? ' held' : ''}
      </text>
    </>
  );
}
