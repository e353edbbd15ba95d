'use client';
import { Controller, useFormContext } from 'react-hook-form';
import { STEPS, showLength } from '@/core/measure';
import type { LeadsTo } from '@/core/survey';
import { Choice, type Option } from '@/ui/parts/choice';
import { problemOf } from '@/ui/parts/problem-of';
import { TextField } from '@/ui/parts/text-field';
import { useWorkbench } from '@/ui/state/store';
import type { AddFields } from './add-fields';
import { FormLength } from './form-length';

const HANDS: Option<'left' | 'right'>[] = [
  { value: 'right', says: 'right' },
  { value: 'left', says: 'left' },
];
const LEADS: Option<LeadsTo['kind']>[] = [
  { value: 'back', says: 'comes back' },
  { value: 'dead end', says: 'ends blind' },
];

/** What a turnout needs beside its place: its hand, and the track that it leads to. */
export function TurnoutFields({ onBegin }: { onBegin: () => void }) {
  const document = useWorkbench((s) => s.document);
  const { control, register, watch, formState } = useFormContext<AddFields>();
  const comesBack = watch('leads') === 'back';
  const { clearance } = STEPS[document.shownUnit];
  return (
    <>
      <div className="flex gap-2">
        <Controller
          control={control}
          name="hand"
          render={({ field }) => (
            <Choice label="Hand" className="grow" value={field.value} options={HANDS} onChange={field.onChange} />
          )}
        />
        <Controller
          control={control}
          name="leads"
          render={({ field }) => (
            <Choice label="Its track" className="grow" value={field.value} options={LEADS} onChange={field.onChange} />
          )}
        />
      </div>
      <TextField
        label="Name of that track"
        placeholder={comesBack ? 'Loop' : 'Siding'}
        problem={problemOf(formState.errors.trackName, 'The name')}
        {...register('trackName')}
      />
      <FormLength
        control={control}
        name="trackLength"
        label="Length of that track"
        what="The length"
        onBegin={onBegin}
      />
      {comesBack && (
        <FormLength
          control={control}
          name="back"
          label="Blade tips of the second turnout at"
          what="The distance"
          onBegin={onBegin}
        />
      )}
      <FormLength
        control={control}
        name="clearance"
        label="From blade tips to the clearance point"
        what="The distance"
        onBegin={onBegin}
      />
      <p className="text-ink3">
        {showLength(clearance, document.shownUnit)} is assumed for the clearance point until you measure it.
      </p>
    </>
  );
}
