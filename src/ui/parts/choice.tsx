'use client';
import { ChevronDown } from 'lucide-react';
import { type ComponentType, type KeyboardEvent, type ReactNode, useId, useState } from 'react';
import type { ChoiceListProps, Option } from './option';

export type { Option };

/** The list is fetched when the first one is opened: the first screen is drawn without it. */
let fetched: ComponentType<ChoiceListProps> | undefined;
const OPENS = new Set(['Enter', ' ', 'ArrowDown', 'ArrowUp']);

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
  /** Where its name stands; an “unseen” one is only read aloud and must be plain text. */
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
  const [list, setList] = useState<{ List: ComponentType<ChoiceListProps>; open: boolean }>();
  const fetchList = async () => {
    fetched ??= (await import('./choice-list')).ChoiceList;
    setList({ List: fetched, open: true });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (!OPENS.has(event.key)) return;
    event.preventDefault();
    void fetchList();
  };
  const name = labelled === 'above' ? { 'aria-labelledby': id } : { 'aria-label': String(label) };
  const look = `field flex min-w-0 cursor-pointer items-center justify-between gap-2 text-left ${labelled === 'above' ? '' : className}`;
  const chosen = options.find((option) => option.value === value);
  const field = list ? (
    <list.List
      name={name}
      value={value}
      options={options}
      placeholder={placeholder}
      disabled={disabled}
      className={look}
      onChange={(next) => onChange(next as T)}
      open={list.open}
    />
  ) : (
    <button
      type="button"
      role="combobox"
      aria-expanded={false}
      disabled={disabled}
      className={look}
      onClick={() => void fetchList()}
      onKeyDown={onKeyDown}
      {...name}
    >
      <span className="min-w-0 truncate">{chosen?.says ?? placeholder}</span>
      <ChevronDown size={14} aria-hidden className="shrink-0 text-ink2" />
    </button>
  );
  if (labelled === 'unseen') return field;
  return (
    <div className={`flex min-w-0 flex-col gap-1 ${className}`}>
      <span id={id} className="text-ink2">
        {label}
      </span>
      {field}
    </div>
  );
}
