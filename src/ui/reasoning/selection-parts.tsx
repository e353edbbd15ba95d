'use client';
import { useForm } from 'react-hook-form';
import { type Edit, fixedSince } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { problemOf } from '@/ui/parts/problem-of';
import { Term } from '@/ui/parts/term';
import { TextField } from '@/ui/parts/text-field';
import { today } from '@/ui/parts/today';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** What every selection offers: renaming, tentative or fixed, deleting. */
export function useEdit() {
  const store = useWorkbenchStore();
  return store.getState().edit;
}

/** A name and what stands in the way of another, told beside it. */
export function Rename({
  label = 'Name',
  name,
  says = 'Rename',
  renaming,
  onDone,
}: {
  label?: string;
  name: string;
  /** What the button says. */
  says?: string;
  renaming: (name: string) => Edit;
  onDone?: (name: string) => void;
}) {
  const store = useWorkbenchStore();
  const { register, handleSubmit, setError, formState } = useForm({ values: { name } });
  const submit = handleSubmit(({ name: typed }) => {
    const next = typed.trim();
    if (next === name) return;
    const problem = store.getState().attempt(renaming(next));
    if (problem === undefined) onDone?.(next);
    else setError('name', { message: problem });
  });
  return (
    <form onSubmit={submit} className="mt-3 flex items-end gap-2">
      <TextField
        label={label}
        className="grow"
        problem={problemOf(formState.errors.name, 'The name')}
        {...register('name')}
      />
      <button type="submit" className="button self-start mt-[22px]">
        {says}
      </button>
    </form>
  );
}

export function Certainty({ id, certainty }: { id: string; certainty: 'tentative' | 'fixed' }) {
  const edit = useEdit();
  const since = useWorkbench((s) => fixedSince(s.document, id));
  return (
    <div className="mt-2">
      <CheckBox
        checked={certainty === 'fixed'}
        onChange={(fixed) => edit({ do: 'fix', id, certainty: fixed ? 'fixed' : 'tentative', on: today() })}
      >
        Fixed{since && ` since ${since}`}; else <Term word="tentative">tentative</Term>
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
