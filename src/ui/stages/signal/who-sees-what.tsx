'use client';
import { useState } from 'react';
import { PanelSection } from '@/ui/reasoning/panel';
import { MatrixWindow } from './matrix-window';

/** The way to the table of every train’s place against every signal. */
export function WhoSeesWhat() {
  const [open, setOpen] = useState(false);
  return (
    <PanelSection title="Every place against every signal">
      <p className="text-ink2">What each signal shows to a train that comes to it, while another stands in a block.</p>
      <button type="button" className="button mt-2" onClick={() => setOpen(true)}>
        Show the table
      </button>
      {open && <MatrixWindow onClose={() => setOpen(false)} />}
    </PanelSection>
  );
}
