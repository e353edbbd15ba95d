import { consistOf, unseenStretches, vehiclesOf } from '@/core/detection';
import { fromMm, mmOf, showLength } from '@/core/measure';
import type { LayoutDocument, Train } from '@/core/survey';
import { heightOf, VehicleShape } from './vehicle-shape';

/** Unseen stretches shorter than this share of the train are those between the axles of one vehicle, and not told. */
const TOLD_SHARE = 0.08;

/** Stretches that meet at one axle are drawn this far from it. */
const APART_MM = 3;
/** A long train is scrolled rather than drawn smaller than this. */
const LEAST_PX_A_MM = 0.4;

/** A train to scale, its nose to the left, with the stretches that no detector of sections sees marked beneath it. */
export function TrainStrip({ document, train }: { document: LayoutDocument; train: Train }) {
  const consist = consistOf(document, train);
  const { lengthMm } = consist;
  const high = heightOf(document.scale);
  const told = unseenStretches(document, consist).filter(({ from, to }) => to - from > TOLD_SHARE * lengthMm);
  const says = (mm: number) => showLength(fromMm(mm), document.shownUnit);
  let front = 0;
  return (
    <figure className="m-0">
      <div className="overflow-x-auto" role="group" aria-label={`${train.name}, to be scrolled`} tabIndex={0}>
        <svg
          role="img"
          aria-label={`${train.name} to scale: ${says(lengthMm)}, nose to the left`}
          viewBox={`-2 -2 ${lengthMm + 4} ${high * 1.45}`}
          className="block max-h-24 w-full"
          style={{ minWidth: lengthMm * LEAST_PX_A_MM }}
          preserveAspectRatio="xMidYMid meet"
        >
          {vehiclesOf(document, train).map((vehicle, place) => {
            const mine = front;
            front += mmOf(vehicle.length.tenthUm);
            return (
              <VehicleShape
                key={place}
                vehicle={vehicle}
                scale={document.scale}
                front={mine}
                backwards={train.turned?.includes(place)}
              />
            );
          })}
          {told.map(({ from, to }) => (
            <rect
              key={from}
              x={from}
              y={high * 1.12}
              width={Math.max(1, to - from - 2 * APART_MM)}
              height={high * 0.16}
              className="fill-warn"
            >
              <title>{`${says(to - from)} unseen`}</title>
            </rect>
          ))}
        </svg>
      </div>
      <figcaption className="text-ink3">
        {told.length === 0
          ? 'Filled axles are seen; no long stretch is unseen.'
          : `Filled axles are seen. Unseen, from its nose: ${told
              .slice(0, 6)
              .map(({ from, to }) => `${says(to - from)}${to === lengthMm ? ' at the tail' : ''}`)
              .join(', ')}${told.length > 6 ? ' …' : ''}.`}
      </figcaption>
    </figure>
  );
}
