'use client';
import { type FormEvent, useState } from 'react';
import { CheckBox } from '@/ui/parts/check-box';
import { Term } from '@/ui/parts/term';
import { useWorkbenchStore } from '@/ui/state/store';

/** What every selection offers: renaming, tentative or fixed, deleting. */
export function useEdit() {
  const store = useWorkbenchStore();
  return store.getState().edit;
}

export function Rename({ name, onRename }: { name: string; onRename: (name: string) => void }) {
  const [text, setText] = useState(name);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text.trim() && text !== name) onRename(text.trim());
  };
  return (
    <form onSubmit={submit} className="mt-3 flex items-end gap-2">
      <label className="flex grow flex-col gap-1">
        <span className="text-ink2">Name</span>
        <input className="field" value={text} onChange={(e) => setText(e.target.value)} />
      </label>
      <button type="submit" className="button">
        Rename
      </button>
    </form>
  );
}

export function Certainty({ id, certainty }: { id: string; certainty: 'tentative' | 'fixed' }) {
  const edit = useEdit();
  return (
    <div className="mt-2">
      <CheckBox
        checked={certainty === 'fixed'}
        onChange={(fixed) => edit({ do: 'fix', id, certainty: fixed ? 'fixed' : 'tentative' })}
      >
        Fixed; else <Term word="tentative">tentative</Term>
      </CheckBox>
    </div>
  );
}

export function DeleteButton({ id, what }: { id: string; what: string }) {
  const store = useWorkbenchStore();
  return (
    <button
      type="button"
      className="button mt-3"
      onClick={() => {
        if (store.getState().edit({ do: 'delete', id })) store.getState().select(undefined);
      }}
    >
      Delete {what}
    </button>
  );
}
