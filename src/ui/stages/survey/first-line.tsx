'use client';
import { type FormEvent, useState } from 'react';
import type { ShownUnit, TypedLength } from '@/core/measure';
import { CheckBox } from '@/ui/parts/check-box';
import { LengthField } from '@/ui/parts/length-field';
import { layoutTicks } from '@/ui/sheet/ruler-steps';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** The empty layout: one sentence and one field. */
export function FirstLine() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [length, setLength] = useState<TypedLength>();
  const [circuit, setCircuit] = useState(false);
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (length?.tenthUm) store.getState().edit({ do: 'add line', name: 'Main', length, circuit });
  };
  return (
    <div className="flex flex-1 flex-col items-center bg-sheet">
      <BareRuler unit={document.shownUnit} />
      <form onSubmit={add} className="mt-24 w-96 rounded-lg border border-line bg-raised p-5">
        <p className="mb-3 text-[1.05rem] font-semibold">How long is your line? Start at one end of the tape.</p>
        <LengthField label="Length" unit={document.shownUnit} scale={document.scale} autoFocus onChange={setLength} />
        <div className="mt-2">
          <CheckBox checked={circuit} onChange={setCircuit}>
            Its two ends meet: it is a circuit
          </CheckBox>
        </div>
        <button type="submit" className="button button-main mt-4" disabled={!length?.tenthUm}>
          Draw it
        </button>
      </form>
    </div>
  );
}

const RULER_PX = 900;
const RULER_SPAN = { cm: 3e7, inch: 120 * 254_000 };

/** The ruler before there is anything to measure. */
function BareRuler({ unit }: { unit: ShownUnit }) {
  const scale = RULER_PX / RULER_SPAN[unit];
  const ruler = layoutTicks(0, RULER_SPAN[unit], scale, unit);
  return (
    <svg width={RULER_PX + 60} height="60" className="drawing mt-6 max-w-full" aria-hidden="true">
      <text x="28" y="30" textAnchor="end" fontWeight="650">
        {ruler.unit}
      </text>
      {ruler.ticks.map((tick) => (
        <g key={tick.at}>
          <path d={`M${40 + tick.at * scale} 36v${tick.label ? 10 : 5}`} stroke="var(--edge)" />
          {tick.label && (
            <text x={40 + tick.at * scale} y="30" textAnchor="middle">
              {tick.label}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
