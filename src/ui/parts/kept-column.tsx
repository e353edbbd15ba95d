'use client';
import { yupResolver } from '@hookform/resolvers/yup';
import type { ReactNode } from 'react';
import { useForm } from 'react-hook-form';
import { object } from 'yup';
import { LONGEST_NAME, textSchema } from '@/core/survey';
import { problemOf } from './problem-of';
import { TextField } from './text-field';

const keptSchema = object({ name: textSchema(LONGEST_NAME.layout) });

/** The left side of a window of kept things: keeps the present one under a name, says what went wrong, and lists the others. */
export function KeptColumn({
  what,
  disabled = false,
  problem,
  onKeep,
  children,
}: {
  /** One word for what is kept. */
  what: string;
  disabled?: boolean;
  problem: string | undefined;
  /** Keeps it; true when it is kept. */
  onKeep: (name: string) => Promise<boolean>;
  children: ReactNode;
}) {
  const { register, handleSubmit, setError, reset, formState } = useForm({
    resolver: yupResolver(keptSchema),
    defaultValues: { name: '' },
  });
  const keep = handleSubmit(async ({ name }) => {
    if (!name.trim()) return setError('name', { message: `Type a name for this ${what} first.` });
    if (await onKeep(name)) reset();
  });
  const { name: wrong } = formState.errors;
  const unnamed = wrong?.type === 'optionality' || wrong?.type === 'required';
  return (
    <div className="flex w-[330px] shrink-0 flex-col border-r border-line">
      <form onSubmit={keep} className="flex items-start gap-2 border-b border-line px-4 py-3" noValidate>
        <TextField
          label={`Keep the present ${what} as`}
          className="grow"
          problem={unnamed ? `Type a name for this ${what} first.` : problemOf(wrong, 'The name')}
          {...register('name')}
        />
        <button type="submit" className="button mt-[22px]" disabled={disabled}>
          Keep
        </button>
      </form>
      {problem && (
        <p role="alert" className="mx-4 mt-2 rounded-md bg-fail-tint px-2 py-1 text-fail">
          {problem}
        </p>
      )}
      {children}
    </div>
  );
}
