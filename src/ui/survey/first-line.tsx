'use client';
import { type FormEvent, useState } from 'react';
import type { TypedLength } from '@/core/measure';
import { LengthField } from '@/ui/parts/length-field';
import { useWorkbench, useWorkbenchStore } from '@/ui/workbench/store';

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
    <div className="flex flex-1 items-center justify-center bg-sheet">
      <form onSubmit={add} className="w-96 rounded-lg border border-line bg-raised p-5">
        <p className="mb-3 text-[1.05rem] font-semibold">How long is your line? Start at one end of the tape.</p>
        <LengthField label="Length" unit={document.shownUnit} scale={document.scale} autoFocus onChange={setLength} />
        <label className="mt-2 flex items-center gap-2">
          <input type="checkbox" checked={circuit} onChange={(e) => setCircuit(e.target.checked)} />
          Its two ends meet: it is a circuit
        </label>
        <button type="submit" className="button button-main mt-4" disabled={!length?.tenthUm}>
          Draw it
        </button>
      </form>
    </div>
  );
}
