'use client';
import { useState } from 'react';
import { signalsOf, systemsFor } from '@/core/survey';
import { OneOf } from '@/ui/parts/one-of';
import { Term } from '@/ui/parts/term';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { AspectsWindow } from './aspects-window';

const SIDES = [
  { value: 'left', says: 'Left of the track' },
  { value: 'right', says: 'Right of the track' },
] as const;

/** The aspect systems in use and the way to all of them, and on which side of the track signals stand. */
export function AspectSystems() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [open, setOpen] = useState(false);
  const signals = signalsOf(document);
  const used = systemsFor(document)
    .map(({ id, system }) => ({ id, system, count: signals.filter((signal) => signal.system === id).length }))
    .filter(({ count }) => count > 0);
  return (
    <PanelSection title="What signals can show">
      {used.map(({ id, system, count }) => (
        <p key={id} className="text-ink2">
          {system.name}: {count} {count === 1 ? 'signal' : 'signals'}
        </p>
      ))}
      {used.length === 0 && (
        <p className="text-ink2">
          No signal yet. An <Term word="aspect">aspect</Term> is what a signal shows; a system is all that it can show.
        </p>
      )}
      <button type="button" className="button mt-2" onClick={() => setOpen(true)}>
        Aspect systems and cards
      </button>
      <p className="mt-3 mb-1 text-ink2">They stand, seen by the driver</p>
      <div className="flex">
        <OneOf
          joined
          label="Side of the track on which signals stand"
          value={document.signalSide}
          options={SIDES}
          onChange={(side) => store.getState().attempt({ do: 'stand signals', side })}
        />
      </div>
      {open && <AspectsWindow onClose={() => setOpen(false)} />}
    </PanelSection>
  );
}
