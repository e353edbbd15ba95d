'use client';
import { Check } from 'lucide-react';
import { Checkbox } from 'radix-ui';
import { type ReactNode, useId } from 'react';

/** A thing that is on or off, with its words beside it. */
export function CheckBox({
  checked,
  disabled,
  onChange,
  children,
}: {
  checked: boolean;
  disabled?: boolean;
  onChange: (on: boolean) => void;
  children: ReactNode;
}) {
  const id = useId();
  return (
    <div className="flex items-start gap-2 py-0.5">
      <Checkbox.Root
        id={id}
        checked={checked}
        disabled={disabled}
        onCheckedChange={(on) => onChange(on === true)}
        className="mt-0.5 flex size-4 shrink-0 cursor-pointer items-center justify-center rounded-sm border border-edge bg-raised data-[state=checked]:border-accent data-[state=checked]:bg-accent data-[state=checked]:text-on-accent disabled:cursor-default disabled:opacity-60"
      >
        <Checkbox.Indicator>
          <Check size={13} strokeWidth={3} aria-hidden />
        </Checkbox.Indicator>
      </Checkbox.Root>
      <label htmlFor={id} className="min-w-0">
        {children}
      </label>
    </div>
  );
}
