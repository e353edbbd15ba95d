'use client';
import { useState } from 'react';
import { PanelSection } from '@/ui/reasoning/panel';
import { FailWindow } from './fail-window';

/** The way to the table of what comes of each fault. */
export function WhenItFails() {
  const [open, setOpen] = useState(false);
  return (
    <PanelSection title="When something fails">
      <p className="text-ink2">Power-up, a lamp out, a dead detector, a broken wire: what each signal shows then.</p>
      <button type="button" className="button mt-2" onClick={() => setOpen(true)}>
        Look at every fault
      </button>
      {open && <FailWindow onClose={() => setOpen(false)} />}
    </PanelSection>
  );
}
