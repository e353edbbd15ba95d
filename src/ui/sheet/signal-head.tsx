import type { ReactNode } from 'react';
import type { AspectSystem, LampKind } from '@/core/kinds';

const LAMP = 12;
export const headWidth = ({ lamps }: AspectSystem): number => lamps.length * LAMP + 4;
export const HEAD_HEIGHT = 14;

/** The lamps of a head that are lit; none where nothing is known. */
export const litLamps = ({ aspects }: AspectSystem, shows: string | undefined): readonly number[] =>
  aspects.find(({ id }) => id === shows)?.lit ?? [];

/** One lamp. Outline: can show. Filled: shows. */
export function Lamp({ shape, colour, lit, x, y }: LampKind & { lit: boolean | undefined; x: number; y: number }) {
  const paint =
    lit === undefined
      ? { fill: 'none', stroke: `var(--${colour})`, strokeWidth: 1.5 }
      : lit
        ? { fill: `var(--${colour})`, stroke: 'var(--ink)', strokeWidth: 1.1 }
        : { fill: 'none', stroke: 'var(--edge)', strokeWidth: 1 };
  const r = lit === false ? 2.4 : 4;
  return SHAPES[shape](x, y, r, paint);
}

const SHAPES: Record<LampKind['shape'], (x: number, y: number, r: number, paint: object) => ReactNode> = {
  square: (x, y, r, paint) => <rect x={x - r} y={y - r} width={2 * r} height={2 * r} {...paint} />,
  triangle: (x, y, r, paint) => (
    <path d={`M${x} ${y - r - 0.6}L${x + r + 0.6} ${y + r - 0.4}H${x - r - 0.6}Z`} strokeLinejoin="round" {...paint} />
  ),
  circle: (x, y, r, paint) => <circle cx={x} cy={y} r={r} {...paint} />,
  diamond: (x, y, r, paint) => (
    <path d={`M${x} ${y - r - 0.8}L${x + r + 0.8} ${y}L${x} ${y + r + 0.8}L${x - r - 0.8} ${y}Z`} {...paint} />
  ),
};

/** What an aspect looks like, beside its name in a list. */
export function AspectLamps({
  system,
  lit,
  width = LAMP + 4,
}: {
  system: AspectSystem;
  lit: readonly number[];
  /** Of the whole picture, with the first lamp in the middle of it. */
  width?: number;
}) {
  return (
    <svg width={Math.max(width, lit.length * LAMP + 4)} height="16" aria-hidden="true">
      {lit.map((lamp, i) => (
        <Lamp key={lamp} {...system.lamps[lamp]!} lit x={width / 2 + i * LAMP} y={8} />
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
      {system.lamps.map((lamp, i) => (
        <Lamp
          key={lamp.shape}
          {...lamp}
          lit={shows === undefined ? undefined : lit.includes(i)}
          x={rightwards ? left + width - 2 - LAMP / 2 - i * LAMP : left + 2 + LAMP / 2 + i * LAMP}
          y={cy}
        />
      ))}
      <text x={nameX} y={cy + 4} textAnchor={rightwards ? 'end' : 'start'} fontWeight={selected ? 700 : 600}>
        {name}
        {held ? ' held' : ''}
      </text>
    </>
  );
}
