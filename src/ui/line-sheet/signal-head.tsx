import type { Aspect } from '@/core/signals';

const LAMP = 12;
const ORDER: Aspect[] = ['stop', 'caution', 'clear'];
export const HEAD_WIDTH = ORDER.length * LAMP + 4;
export const HEAD_HEIGHT = 14;

/** One lamp: a square for stop, a triangle for caution, a circle for clear. Outline: can show. Filled: shows. */
export function Lamp({ aspect, lit, x, y }: { aspect: Aspect; lit: boolean | undefined; x: number; y: number }) {
  const colour = `var(--${aspect})`;
  const paint =
    lit === undefined
      ? { fill: 'none', stroke: colour, strokeWidth: 1.5 }
      : lit
        ? { fill: colour, stroke: 'var(--ink)', strokeWidth: 1.1 }
        : { fill: 'none', stroke: 'var(--edge)', strokeWidth: 1 };
  const r = lit === false ? 2.4 : 4;
  if (aspect === 'stop') return <rect x={x - r} y={y - r} width={2 * r} height={2 * r} {...paint} />;
  if (aspect === 'caution')
    return (
      <path
        d={`M${x} ${y - r - 0.6}L${x + r + 0.6} ${y + r - 0.4}H${x - r - 0.6}Z`}
        strokeLinejoin="round"
        {...paint}
      />
    );
  return <circle cx={x} cy={y} r={r} {...paint} />;
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
  shows: Aspect | undefined;
  name: string;
  selected: boolean;
  held?: boolean;
  tentative: boolean;
}) {
  const { x, y, rightwards, drop, shows, name, selected, held, tentative } = props;
  const side = rightwards ? 1 : -1;
  const cy = y + drop;
  const left = rightwards ? x - 5 - HEAD_WIDTH : x + 5;
  const nameX = rightwards ? left - 4 : left + HEAD_WIDTH + 4;
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
        width={HEAD_WIDTH}
        height={HEAD_HEIGHT}
        rx="4"
        fill={selected ? 'var(--accent-tint)' : 'var(--raised)'}
        stroke={selected ? 'var(--accent)' : 'var(--edge)'}
        strokeWidth={selected ? 2 : 1.1}
        strokeDasharray={tentative ? '3 2' : undefined}
      />
      {ORDER.map((aspect, i) => (
        <Lamp
          key={aspect}
          aspect={aspect}
          lit={shows === undefined ? undefined : shows === aspect}
          x={rightwards ? left + HEAD_WIDTH - 2 - LAMP / 2 - i * LAMP : left + 2 + LAMP / 2 + i * LAMP}
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
