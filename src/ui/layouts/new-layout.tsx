'use client';
import { FilePlus2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useSyncExternalStore } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { SCALE_IDS, SCALES, type ScaleId, type ShownUnit } from '@/core/measure';
import type { Fault } from '@/core/survey';
import { sendServer } from '@/ui/parts/ask-server';
import { Choice, type Option } from '@/ui/parts/choice';
import { TextField } from '@/ui/parts/text-field';

const SCALE_OPTIONS = SCALE_IDS.map((id) => ({ value: id, says: SCALES[id].label }));
const UNIT_OPTIONS: Option<ShownUnit>[] = [
  { value: 'cm', says: 'centimetres' },
  { value: 'inch', says: 'inches' },
];

/** The form is shown before what works it is here: until then nothing can be sent. */
const NEVER = () => () => {};
const isHere = () => true;
const isOnTheServer = () => false;

interface Fields {
  name: string;
  scale: ScaleId;
  shownUnit: ShownUnit;
}

/** A layout is begun with a name. What it may be, the server says by the document’s own schema, so that the first page stays small. */
export function NewLayout({ onTrouble }: { onTrouble: (trouble: { problem: string; faults: Fault[] }) => void }) {
  const router = useRouter();
  const { register, control, handleSubmit, setError, formState } = useForm<Fields>({
    defaultValues: { name: '', scale: 'H0', shownUnit: 'cm' },
  });
  const works = useSyncExternalStore(NEVER, isHere, isOnTheServer);
  const make = handleSubmit(async (fields) => {
    const asked = await sendServer<{ id: string }>('POST', '/api/layouts', fields);
    if (asked.ok) router.push(`/layouts/${asked.value.id}`);
    else if (asked.faults.length === 0) setError('name', { message: asked.problem });
    else onTrouble(asked);
  });
  return (
    <form
      onSubmit={make}
      noValidate
      className="flex h-full flex-col gap-2 rounded-lg border border-dashed border-edge px-4 py-3"
    >
      <h2 className="text-[1rem] font-semibold">A new layout</h2>
      <TextField
        label="Name"
        problem={formState.errors.name?.message}
        placeholder="Attic branch"
        {...register('name')}
      />
      <div className="flex gap-2">
        <Controller
          control={control}
          name="scale"
          render={({ field }) => (
            <Choice
              label="Scale"
              className="grow"
              value={field.value}
              options={SCALE_OPTIONS}
              onChange={field.onChange}
            />
          )}
        />
        <Controller
          control={control}
          name="shownUnit"
          render={({ field }) => (
            <Choice
              label="Tape shows"
              className="grow"
              value={field.value}
              options={UNIT_OPTIONS}
              onChange={field.onChange}
            />
          )}
        />
      </div>
      <button type="submit" className="button button-main mt-1 self-start" disabled={!works}>
        <FilePlus2 size={15} aria-hidden /> Make it
      </button>
    </form>
  );
}
