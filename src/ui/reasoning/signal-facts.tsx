'use client';
import { signalPlace } from '@/core/design';
import { showLength } from '@/core/measure';
import type { Signal } from '@/core/survey';
import { Fold } from '@/ui/parts/fold';
import { useWorkbench } from '@/ui/state/store';

/** What is worth knowing of where a signal stands, each with its figures. */
export function SignalFacts({ signal }: { signal: Signal }) {
  const document = useWorkbench((s) => s.document);
  const { points, before, beyond, stopMark, curve, hidden, twin, overlap } = signalPlace(document, signal);
  const says = (length: number) => showLength(length, document.shownUnit);
  return (
    <Fold title="Where it stands">
      <ul className="flex flex-col gap-1">
        {points && (
          <li>
            {says(points.off)} before the blades of {points.name}.
          </li>
        )}
        {stopMark !== undefined && <li>Its stop mark lies {says(stopMark)} before it.</li>}
        {before && (
          <li>
            {before.name} stands {says(before.off)} before it
            {beyond ? `, and ${beyond.name} ${says(beyond.off)} beyond it` : ''}.
          </li>
        )}
        {!before && beyond && (
          <li>
            {beyond.name} stands {says(beyond.off)} beyond it.
          </li>
        )}
        {curve && (
          <li className={curve.sees < curve.needs ? 'text-warn' : ''}>
            In a curve of {says(curve.radius)} it is seen from {says(curve.sees)}, if nothing stands nearer than 6 cm to
            the middle of the track inside; {curve.train} runs {says(curve.needs)} in three seconds. On a bracket to the{' '}
            {curve.hand === 'left' ? 'right' : 'left'} it is seen from farther.
          </li>
        )}
        {hidden && <li className="text-warn">It stands where nobody can see it.</li>}
        {twin && <li>{twin} stands at the same place: make their posts the same height.</li>}
        <li className="text-ink2">
          The prototype keeps 180 m clear beyond a signal, here {says(overlap)}; a model may do without.
        </li>
      </ul>
    </Fold>
  );
}
