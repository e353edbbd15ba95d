'use client';
import { FilePlus2 } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useSyncExternalStore } from 'react';
import { Controller, useForm } from 'react-hook-form';
import { isScale, OWN_LIMITS, SCALE_IDS, SCALES, type ShownUnit } from '@/core/measure';
import type { Fault } from '@/core/survey';
import { sendServer } from '@/ui/parts/ask-server';
import { Choice, type Option } from '@/ui/parts/choice';
import { TextField } from '@/ui/parts/text-field';

const SCALE_OPTIONS: Option<(typeof SCALE_IDS)[number] | 'own'>[] = [
  ...SCALE_IDS.map((id) => ({ value: id, says: SCALES[id].label })),
  { value: 'own', says: 'Your own, by its ratio' },
];
const badRatio = `Type a number from ${OWN_LIMITS.ratio.join(' to ')}, such as 38 or 13.7.`;
const badGauge = `Type millimetres from ${OWN_LIMITS.gaugeMm.join(' to ')}, such as 45 or 37.5.`;
const UNIT_OPTIONS: Option<ShownUnit>[] = [
  { value: 'cm', says: 'centimetres' },
  { value: 'inch', says: 'inches' },
];

/** The form is shown before its code has loaded; until then nothing can be sent. */
const NEVER = () => () => {};
const isHere = () => true;
const isOnTheServer = () => false;

const ownScale = (ratio: string, gauge: string) => `1:${ratio.trim()} on ${gauge.trim()}`;

interface Fields {
  name: string;
  scale: (typeof SCALE_OPTIONS)[number]['value'];
  /** A scale of one's own: the ratio, and the gauge in millimetres. */
  ratio: string;
  gauge: string;
  shownUnit: ShownUnit;
}

/** A layout begins with a name, which the server checks against the document’s schema; so the first page stays small. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function NewLayout({ onTrouble }: { onTrouble: (trouble: { problem: string; faults: Fault[] }) => void }) {
  const router = useRouter();
  const { register, control, handleSubmit, setError, watch, formState } = useForm<Fields>({
    defaultValues: { name: '', scale: 'H0', ratio: '', gauge: '', shownUnit: 'cm' },
  });
  const works = useSyncExternalStore(NEVER, isHere, isOnTheServer);
  const make = handleSubmit(async ({ ratio, gauge, ...fields }) => {
    const scale = fields.scale === 'own' ? ownScale(ratio, gauge) : fields.scale;
    const asked = await sendServer<{ id: string }>('POST', '/api/layouts', { ...fields, scale });
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
              disabled={!works}
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
              disabled={!works}
              options={UNIT_OPTIONS}
              onChange={field.onChange}
            />
          )}
        />
      </div>
      {watch('scale') === 'own' && (
        <div className="flex gap-2">
          <TextField
            label="Ratio, 1 to …"
            className="grow basis-0"
            inputMode="decimal"
            placeholder="38"
            problem={formState.errors.ratio?.message}
            {...register('ratio', {
              shouldUnregister: true,
              validate: (typed) => isScale(ownScale(typed, '45')) || badRatio,
            })}
          />
          <TextField
            label="Between the rails, mm"
            className="grow basis-0"
            inputMode="decimal"
            placeholder="45"
            problem={formState.errors.gauge?.message}
            {...register('gauge', {
              shouldUnregister: true,
              validate: (typed) => isScale(ownScale('38', typed)) || badGauge,
            })}
          />
        </div>
      )}
      <button type="submit" className="button button-main mt-1 self-start" disabled={!works}>
        <FilePlus2 size={15} aria-hidden /> Make it
      </button>
    </form>
  );
}
