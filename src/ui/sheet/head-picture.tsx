import { type Aspect, type AspectSystem, headsOf } from '@/core/kinds';
import { Lamp } from './signal-head';

const LAMP = 12;
const WIDTH = 24;

/** A signal as it stands, with what is lit of an aspect: the lamps of its head, or of several heads the one lamp that each shows. */
export function HeadPicture({ system, aspect, scale = 1.5 }: { system: AspectSystem; aspect: Aspect; scale?: number }) {
  const several = headsOf(system) > 1;
  const heads = Array.from({ length: headsOf(system) }, (_, head) =>
    system.lamps
      .map((lamp, i) => ({ lamp, i }))
      .filter(({ lamp, i }) => (lamp.head ?? 0) === head && (!several || aspect.lit.includes(i))),
  );
  const high = (lamps: number) => Math.max(1, lamps) * LAMP + 4;
  const tops = heads.map((_, h) => heads.slice(0, h).reduce((y, lamps) => y + high(lamps.length) + 3, 0));
  const whole = tops.at(-1)! + high(heads.at(-1)!.length) + 9;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${whole}`}
      width={WIDTH * scale}
      height={whole * scale}
      className="shrink-0"
      role="img"
      aria-label={`${aspect.id}: ${inWords(system, aspect)}`}
    >
      <path d={`M12 2V${whole - 1}M6 ${whole - 1}H18`} stroke="var(--ink)" strokeWidth="1.6" />
      {heads.map((lamps, h) => (
        <g key={h} transform={`translate(0 ${tops[h]})`}>
          <rect
            x="3"
            y="0.8"
            width="18"
            height={high(lamps.length) - 1}
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
              x={12}
              y={2 + LAMP / 2 + row * LAMP}
            />
          ))}
        </g>
      ))}
    </svg>
  );
}

/** What is lit, in words: “top stop square, second clear circle flashing”. */
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
