import { VEHICLES } from '@/core/kinds';
import { mmOf, scaleRatio } from '@/core/measure';
import type { LayoutDocument, Vehicle } from '@/core/survey';

/** In life, in mm; common practice, no source. */
const HIGH = 4000;
const WHEEL = 950;

/** How high a vehicle is drawn, in mm on the layout. */
export const heightOf = (scale: LayoutDocument['scale']): number => HIGH / scaleRatio(scale);

/** One vehicle to scale, in mm, its front to the left; an axle that feeds something is filled, a plastic one is dashed. */
export function VehicleShape({
  vehicle: { kind, length, axles, magnetAt },
  scale,
  front = 0,
  backwards = false,
}: {
  vehicle: Pick<Vehicle, 'kind' | 'length' | 'axles' | 'magnetAt'>;
  scale: LayoutDocument['scale'];
  /** Which side its front is on. */
  front?: number;
  /** Its outline is mirrored; its axles are given as they stand. */
  backwards?: boolean;
}) {
  const long = mmOf(length.tenthUm);
  const high = heightOf(scale);
  const wheel = WHEEL / scaleRatio(scale) / 2;
  const floor = high - 1.6 * wheel;
  const outline = VEHICLES[kind].outline
    .map(([along, up]) => `${front + long * (backwards ? 1 - along : along)} ${floor * (1 - up)}`)
    .join('L');
  return (
    <g>
      <path d={`M${outline}Z`} className="fill-raised stroke-ink2" vectorEffect="non-scaling-stroke" />
      {axles.map(({ at, feeds, plastic }, i) => (
        <circle
          key={i}
          cx={front + mmOf(at.tenthUm)}
          cy={high - wheel}
          r={wheel}
          className={feeds === 'nothing' ? 'fill-paper stroke-ink' : 'fill-accent stroke-ink'}
          strokeDasharray={plastic ? '2 2' : undefined}
          vectorEffect="non-scaling-stroke"
        />
      ))}
      {magnetAt && (
        <rect
          x={front + mmOf(magnetAt.tenthUm) - wheel}
          y={floor}
          width={2 * wheel}
          height={0.5 * wheel}
          className="fill-accent"
        />
      )}
    </g>
  );
}
