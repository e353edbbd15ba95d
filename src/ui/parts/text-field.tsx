'use client';
import { Label } from 'radix-ui';
import { type ComponentProps, type ReactNode, useId } from 'react';

/** A field for text, its name above it, and what is wrong with it beneath. */
export function TextField({
  label,
  problem,
  className = '',
  ...input
}: { label: ReactNode; problem?: string } & ComponentProps<'input'>) {
  const id = useId();
  return (
    <div className={`flex min-w-0 flex-col gap-1 ${className}`}>
      <Label.Root htmlFor={id} className="text-ink2">
        {label}
      </Label.Root>
      <input
        id={id}
        className={`field ${problem ? 'border-fail' : ''}`}
        aria-invalid={problem !== undefined}
        aria-describedby={problem ? `${id}-problem` : undefined}
        {...input}
      />
      {problem && (
        <p id={`${id}-problem`} role="alert" className="text-fail">
          {problem}
        </p>
      )}
    </div>
  );
}
