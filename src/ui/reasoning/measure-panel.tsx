'use client';
import { useMemo } from 'react';
import { layoutSpeedMmPerS, mmOf, showLength, showNumber, showSpeed, standToStandS } from '@/core/measure';
import { compileTrack, measureBetween } from '@/core/track';
import { placeOf } from '@/ui/sheet/selection-place';
import { shownDocument } from '@/ui/state/design';
import { useWorkbench } from '@/ui/state/store';
import { PanelSection, PanelTitle } from './panel';
import { subjectOf } from './selection';

/** The way between two things along the track, and how long each train takes for it. */
export function MeasurePanel({ from, to }: { from: string; to: string }) {
  const document = useWorkbench(shownDocument);
  const blocks = useWorkbench((s) => s.design?.blocks);
  const way = useMemo(() => {
    const [a, b] = [placeOf(document, blocks ?? [], from), placeOf(document, blocks ?? [], to)];
    return a && b ? measureBetween(compileTrack(document), a, b) : undefined;
  }, [document, blocks, from, to]);
  const [one, two] = [subjectOf(document, blocks, from), subjectOf(document, blocks, to)];
  if (!way)
    return (
      <>
        <PanelTitle>
          {one} to {two}
        </PanelTitle>
        <p className="text-ink2">
          No train gets from one to the other without turning back, or one of them has no place.
        </p>
      </>
    );
  const mm = mmOf(way.length);
  return (
    <>
      <PanelTitle>
        {one} to {two}: {showLength(way.length, document.shownUnit)}
      </PanelTitle>
      <p className="text-ink2">
        The shortest way along the track
        {way.turnouts.length > 0 ? `, over ${way.turnouts.join(', ')}` : ', over no points'}. Blocks are measured to
        their middle.
      </p>
      <PanelSection title="Running time">
        {document.trains.length === 0 && <p className="text-ink2">Add a train to see how long it takes.</p>}
        <ul>
          {document.trains.map((train) => {
            const top = layoutSpeedMmPerS(train.topSpeedKmh, document.scale);
            const through = mm / top;
            const stand = standToStandS(mm, top, train.accelerationMmPerS2, train.brakingMmPerS2);
            return (
              <li key={train.id} className="border-b border-hair py-1.5">
                <p className="font-medium">{train.name}</p>
                <p>
                  {showNumber(through, 1)} s passing through at {showSpeed(train.topSpeedKmh, document.shownUnit)}
                </p>
                <p className="font-mono text-[0.72rem] text-ink2">
                  {showNumber(mm, 0)} mm ÷ {showNumber(top, 1)} mm/s
                </p>
                <p>{showNumber(stand, 1)} s from a stand to a stand</p>
                <p className="font-mono text-[0.72rem] text-ink2">
                  up {train.accelerationMmPerS2}, down {train.brakingMmPerS2} mm/s²
                  {train.measured.includes('braking') ? ', measured' : ', assumed'}
                </p>
              </li>
            );
          })}
        </ul>
      </PanelSection>
    </>
  );
}
