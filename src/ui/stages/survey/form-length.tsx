'use client';
import { type Control, Controller, type FieldPathByValue, type FieldValues } from 'react-hook-form';
import type { TypedLength } from '@/core/measure';
import { LengthField } from '@/ui/parts/length-field';
import { problemOf } from '@/ui/parts/problem-of';
import { useWorkbench } from '@/ui/state/store';

/** A length that is a field of a form, read in the unit and the scale of the layout. */
export function FormLength<F extends FieldValues>({
  control,
  name,
  label,
  what,
  onBegin,
}: {
  control: Control<F>;
  name: FieldPathByValue<F, TypedLength | undefined>;
  label: string;
  /** What it is called where something is wrong with it: “The length”. */
  what: string;
  onBegin?: () => void;
}) {
  const unit = useWorkbench((s) => s.document.shownUnit);
  const scale = useWorkbench((s) => s.document.scale);
  return (
    <Controller
      control={control}
      name={name}
      render={({ field, fieldState }) => (
        <LengthField
          label={label}
          unit={unit}
          scale={scale}
          value={field.value}
          problem={problemOf(fieldState.error, what)}
          onChange={(value) => {
            onBegin?.();
            field.onChange(value);
          }}
        />
      )}
    />
  );
}
