'use client';
import { useForm } from 'react-hook-form';
import { TextField } from '@/ui/parts/text-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** What people here call the two directions of the line. */
export function Directions() {
  const store = useWorkbenchStore();
  const { up, down } = useWorkbench((s) => s.document.directions);
  const { register, handleSubmit, setError, formState } = useForm({ values: { up, down } });
  const save = handleSubmit((names) => {
    if (names.up === up && names.down === down) return;
    const problem = store.getState().attempt({ do: 'name directions', ...names });
    if (problem !== undefined) setError('up', { message: problem });
  });
  return (
    <PanelSection title="Directions">
      <form onSubmit={save} className="flex flex-wrap items-start gap-2">
        <TextField
          label="To larger distances"
          className="flex-1"
          problem={formState.errors.up?.message}
          {...register('up')}
        />
        <TextField label="To smaller ones" className="flex-1" {...register('down')} />
        <button type="submit" className="button">
          Name them
        </button>
      </form>
    </PanelSection>
  );
}
