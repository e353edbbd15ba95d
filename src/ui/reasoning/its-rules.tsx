'use client';
import { useState } from 'react';
import { Fold } from '@/ui/parts/fold';
import { RuleText } from './rule-text';
import { RuleWindow } from './rule-window';

/** The rules of a thing as text, and the way to change them. */
export function ItsRules({ id, name }: { id: string; name: string }) {
  const [open, setOpen] = useState(false);
  return (
    <Fold title="Its rule as text">
      <RuleText about={id} />
      <button type="button" className="button mt-2" onClick={() => setOpen(true)}>
        Look at its rules, and change them
      </button>
      {open && <RuleWindow id={id} name={name} onClose={() => setOpen(false)} />}
    </Fold>
  );
}
