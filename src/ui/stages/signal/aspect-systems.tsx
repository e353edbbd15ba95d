'use client';
import { useState } from 'react';
import { signalsOf, systemsFor } from '@/core/survey';
import { Term } from '@/ui/parts/term';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench } from '@/ui/state/store';
import { AspectsWindow } from './aspects-window';

/** The schools in use, and the way to all of them. */
export function AspectSystems() {
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
      {open && <AspectsWindow onClose={() => setOpen(false)} />}
    </PanelSection>
  );
}
