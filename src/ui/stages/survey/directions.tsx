'use client';
import { type FormEvent, useState } from 'react';
import { TextField } from '@/ui/parts/text-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** What people here call the two directions of the line. */
export function Directions() {
  const { up, down } = useWorkbench((s) => s.document.directions);
  return <DirectionsForm key={`${up} ${down}`} up={up} down={down} />;
}

function DirectionsForm({ up, down }: { up: string; down: string }) {
  const store = useWorkbenchStore();
  const [names, setNames] = useState({ up, down });
  const save = (event: FormEvent) => {
    event.preventDefault();
    store.getState().edit({ do: 'name directions', ...names });
  };
  const field = (which: 'up' | 'down', label: string) => (
    <TextField
      label={label}
      className="flex-1"
      value={names[which]}
      onChange={(e) => setNames({ ...names, [which]: e.target.value })}
    />
  );
  return (
    <PanelSection title="Directions">
      <form onSubmit={save} className="flex flex-wrap items-end gap-2">
        {field('up', 'To larger distances')}
        {field('down', 'To smaller ones')}
        <button type="submit" className="button" disabled={names.up === up && names.down === down}>
          Name them
        </button>
      </form>
    </PanelSection>
  );
}
