'use client';
import { Check, ChevronDown } from 'lucide-react';
import { Select } from 'radix-ui';
import type { ChoiceListProps } from './option';

/** Radix knows no empty value; people do. */
const NONE = '—none';
const inside = (value: string | undefined) => (value === undefined ? '' : value === '' ? NONE : value);

/** The list of a choice, with the field that opens it. */
export function ChoiceList({
  name,
  value,
  options,
  placeholder,
  disabled,
  className,
  onChange,
  open,
}: ChoiceListProps) {
  return (
    <Select.Root
      defaultOpen={open}
      value={inside(value)}
      disabled={disabled}
      onValueChange={(chosen) => onChange(chosen === NONE ? '' : chosen)}
    >
      <Select.Trigger className={className} {...name}>
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
                className="flex cursor-pointer select-none items-center gap-2 rounded-sm py-1 pl-1.5 pr-3 outline-none data-[highlighted]:bg-accent-tint"
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
}
