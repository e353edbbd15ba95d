'use client';
import { Check, ChevronDown } from 'lucide-react';
import { Select } from 'radix-ui';
import { type ReactNode, useId } from 'react';

/** Radix knows no empty value; people do. */
const NONE = '—none';

export interface Option<T extends string> {
  value: T;
  says: ReactNode;
  disabled?: boolean;
}

/** One of several, chosen from a list that opens: its name above it, or read aloud alone. */
export function Choice<T extends string>({
  label,
  labelled = 'above',
  value,
  options,
  placeholder,
  disabled,
  className = '',
  onChange,
}: {
  label: ReactNode;
  /** Where its name stands; “unseen” is read aloud only and must be plain text. */
  labelled?: 'above' | 'unseen';
  /** Undefined where nothing is chosen, so that the placeholder is shown. */
  value: T | undefined;
  options: readonly Option<T>[];
  placeholder?: string;
  disabled?: boolean;
  className?: string;
  onChange: (value: T) => void;
}) {
  const id = useId();
  const inside = (of: T | undefined) => (of === undefined ? '' : of === '' ? NONE : of);
  const list = (
    <Select.Root
      value={inside(value)}
      disabled={disabled}
      onValueChange={(chosen) => onChange((chosen === NONE ? '' : chosen) as T)}
    >
      <Select.Trigger
        className={`field flex min-w-0 cursor-pointer items-center justify-between gap-2 text-left ${labelled === 'above' ? '' : className}`}
        {...(labelled === 'above' ? { 'aria-labelledby': id } : { 'aria-label': String(label) })}
      >
        <span className="min-w-0 truncate">
          <Select.Value placeholder={placeholder} />
        </span>
        <Select.Icon className="shrink-0 text-ink2">
          <ChevronDown size={14} aria-hidden />
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={3}
          className="zoomed z-[60] max-h-[min(24rem,calc(var(--radix-select-content-available-height)/var(--size,1)))] min-w-[calc(var(--radix-select-trigger-width)/var(--size,1))] overflow-hidden rounded-md border border-edge bg-raised text-ink shadow-lg"
        >
          <Select.Viewport className="p-1">
            {options.map((option) => (
              <Select.Item
                key={option.value}
                value={inside(option.value)}
                disabled={option.disabled}
                className="flex cursor-pointer select-none items-center gap-2 rounded-sm py-1 pl-1.5 pr-3 outline-none data-[disabled]:cursor-default data-[highlighted]:bg-accent-tint data-[disabled]:text-ink3"
              >
                <span className="flex w-4 shrink-0 justify-center">
                  <Select.ItemIndicator>
                    <Check size={13} strokeWidth={3} aria-hidden />
                  </Select.ItemIndicator>
                </span>
                <Select.ItemText>{option.says}</Select.ItemText>
              </Select.Item>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
  if (labelled === 'unseen') return list;
  return (
    <div className={`flex min-w-0 flex-col gap-1 ${className}`}>
      <span id={id} className="text-ink2">
        {label}
      </span>
      {list}
    </div>
  );
}
