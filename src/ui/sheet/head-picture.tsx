import { type Aspect, type AspectSystem, headsOf } from '@/core/kinds';
import { Lamp } from './signal-head';

const LAMP = 12;

/** A signal as it stands: its heads one above the other on the mast, with what is lit of an aspect. */
export function HeadPicture({
  system,
  aspect,
  height = 92,
}: {
  system: AspectSystem;
  aspect: Aspect;
  height?: number;
}) {
  const heads = Array.from({ length: headsOf(system) }, (_, head) =>
    system.lamps.map((lamp, i) => ({ lamp, i })).filter(({ lamp }) => (lamp.head ?? 0) === head),
  );
  const tops = heads.map((_, h) => heads.slice(0, h).reduce((y, lamps) => y + lamps.length * LAMP + 8, 0));
  const foot = tops.at(-1)! + heads.at(-1)!.length * LAMP + 4;
  const whole = foot + 14;
  return (
    <svg
      viewBox={`0 0 28 ${whole}`}
      width={(28 * height) / whole}
      height={height}
      role="img"
      aria-label={`${aspect.id}: ${inWords(system, aspect)}`}
    >
      <path d={`M14 4V${whole - 1}M7 ${whole - 1}H21`} stroke="var(--ink)" strokeWidth="1.6" />
      {heads.map((lamps, h) => (
        <g key={h} transform={`translate(0 ${tops[h]})`}>
          <rect
            x="5"
            y="1"
            width="18"
            height={lamps.length * LAMP + 4}
            rx="4"
            fill="var(--raised)"
            stroke="var(--edge)"
          />
          {lamps.map(({ lamp, i }, row) => (
            <Lamp
              key={i}
              {...lamp}
              lit={aspect.lit.includes(i)}
              flashes={aspect.flashing?.includes(i)}
              x={14}
              y={3 + LAMP / 2 + row * LAMP}
            />
          ))}
        </g>
      ))}
    </svg>
  );
}

/** What is lit, in words: “upper square, lower circle flashing”. */
function inWords(system: AspectSystem, { lit, flashing }: Aspect): string {
  const several = headsOf(system) > 1;
  return lit
    .map((i) => {
      const { shape, colour, head = 0 } = system.lamps[i]!;
      const where = several ? `${['top', 'second', 'third', 'fourth'][head]} ` : '';
      return `${where}${colour} ${shape}${flashing?.includes(i) ? ' flashing' : ''}`;
    })
    .join(', ');
}
