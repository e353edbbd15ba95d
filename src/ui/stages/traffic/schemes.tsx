'use client';
import dynamic from 'next/dynamic';
import { useState } from 'react';
import { PanelSection } from '@/ui/reasoning/panel';

const SchemesWindow = dynamic(() => import('./schemes-window').then((all) => all.SchemesWindow), { ssr: false });

/** Several ways to protect the same layout, side by side. */
export function Schemes() {
  const [open, setOpen] = useState(false);
  return (
    <PanelSection title="Schemes">
      <p className="text-ink2">
        A scheme is one way to protect this layout. Keep one under a name, change what you like, and compare what each
        takes, costs and leaves open.
      </p>
      <button type="button" className="button button-main mt-2" onClick={() => setOpen(true)}>
        Compare schemes …
      </button>
      {open && <SchemesWindow onClose={() => setOpen(false)} />}
    </PanelSection>
  );
}
