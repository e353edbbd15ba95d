'use client';
import { type SpotPlace, spotPlace } from '@/core/design';
import { showLength, showNumber } from '@/core/measure';
import type { Sensor } from '@/core/survey';
import { Fold } from '@/ui/parts/fold';
import { useWorkbench } from '@/ui/state/store';
import { useEdit } from './selection-parts';

const MM_PER_FOOT = 304.8;

/** What is worth knowing of where a spot stands, each with its figures; nothing for what watches a section. */
export function SpotFacts({ sensor }: { sensor: Sensor }) {
  const document = useWorkbench((s) => s.document);
  const edit = useEdit();
  const place = spotPlace(document, sensor);
  if (!place) return null;
  const unit = document.shownUnit;
  const says = (length: number) => showLength(length, unit);
  const { signal, points, curve, pair, gap } = place;
  const full = (mm: number) =>
    unit === 'cm' ? `${showNumber(mm / 1000, 1)} scale m` : `${showNumber(mm / MM_PER_FOOT, 0)} scale feet`;
  return (
    <Fold title="Where it stands" open>
      <ul className="flex flex-col gap-1">
        {signal && (
          <li>
            {says(signal.off)} from signal {signal.name}, {full(signal.fullMm)}.
            <span className="text-ink3">
              {' '}
              Usual is {says(signal.usual[0])} to {says(signal.usual[1])}, which is 40 to 50 scale feet.
            </span>
          </li>
        )}
        {points && <PointsFact points={points} says={says} />}
        {curve && <CurveFact curve={curve} radius={says(curve.radius)} />}
        {pair && (
          <li className={pair.tells ? '' : 'text-warn'}>
            {says(pair.off)} from {pair.name}: the fastest train takes {showNumber(pair.seconds, 2)} s from one to the
            other,{' '}
            {pair.tells
              ? 'so that together they tell its direction.'
              : 'too short for the inputs to tell which came first.'}
          </li>
        )}
        {gap && (
          <li className={sensor.holdMs < gap.holdMs ? 'text-warn' : ''}>
            {gap.train} leaves it nothing to notice for {says(gap.long)} at most: at half its speed a hold of{' '}
            {showNumber(gap.holdMs / 1000, 1)} s rides through that.
            {sensor.holdMs < gap.holdMs && (
              <button
                type="button"
                className="button mt-1 block"
                onClick={() => edit({ do: 'change sensor', id: sensor.id, change: { holdMs: gap.holdMs } })}
              >
                Hold {showNumber(gap.holdMs / 1000, 1)} s
              </button>
            )}
          </li>
        )}
        {Object.keys(place).length === 0 && (
          <li className="text-ink2">Nothing is near it, and no train leaves it a gap.</li>
        )}
      </ul>
    </Fold>
  );
}

function PointsFact({
  points: { name, off, beyondClearance },
  says,
}: {
  points: NonNullable<SpotPlace['points']>;
  says: (length: number) => string;
}) {
  const within = beyondClearance !== undefined && beyondClearance < 0;
  const where =
    beyondClearance === undefined
      ? 'on the side where its tracks are one.'
      : within
        ? 'within its clearance: whoever stands at it may be touched from the other track.'
        : `${says(beyondClearance)} beyond its clearance point.`;
  return (
    <li className={within ? 'text-warn' : ''}>
      {says(off)} from the blades of {name}, {where}
    </li>
  );
}

function CurveFact({ curve, radius }: { curve: NonNullable<SpotPlace['curve']>; radius: string }) {
  const mm = (value: number) => `${showNumber(value, 1)} mm`;
  return (
    <li>
      In a curve of {radius}: stand it farther than {mm(curve.inside.mm)} inside the track of a straight vehicle, for
      the middle of {curve.inside.vehicle}, and {mm(curve.outside.mm)} outside, for the ends of {curve.outside.vehicle}.
      <span className="text-ink3"> R − √(R² − B²/4), and √((R − m)² + L²/4) − R.</span>
    </li>
  );
}
