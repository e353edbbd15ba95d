'use client';
import { RadioGroup, ToggleGroup } from 'radix-ui';
import { memo, type ReactNode, useId } from 'react';

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; says: ReactNode; name?: string }[];
  onChange: (value: T) => void;
}

/** One of a few, side by side as joined or as single buttons; there is always one. */
function OneOfThem<T extends string>({
  label,
  value,
  options,
  joined = false,
  onChange,
}: Props<T> & { joined?: boolean }) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(chosen) => chosen && onChange(chosen as T)}
      className={joined ? 'flex shrink-0 overflow-hidden rounded-md border border-edge' : 'flex flex-wrap gap-1'}
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          aria-label={option.name}
          className={
            joined
              ? 'cursor-pointer bg-raised px-2.5 py-1 font-medium text-ink2 outline-offset-[-2px] hover:bg-accent-tint data-[state=on]:bg-accent data-[state=on]:text-on-accent'
              : 'button data-[state=on]:border-accent data-[state=on]:bg-accent data-[state=on]:text-on-accent'
          }
        >
          {option.says}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
export const OneOf = memo(OneOfThem) as typeof OneOfThem;

/** One of a few, each on a line of its own or one behind the other, with a round mark. */
export function RadioList<T extends string>({
  label,
  value,
  options,
  inline = false,
  onChange,
}: Props<T> & { inline?: boolean }) {
  const id = useId();
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value}
      onValueChange={(chosen) => onChange(chosen as T)}
      className={`flex gap-x-4 gap-y-1 ${inline ? 'flex-wrap' : 'flex-col'}`}
    >
      {options.map((option) => (
        <div key={option.value} className="flex items-center gap-2">
          <RadioGroup.Item
            id={`${id}-${option.value}`}
            value={option.value}
            aria-label={option.name}
            className="flex size-4 shrink-0 cursor-pointer items-center justify-center rounded-full border border-edge bg-raised data-[state=checked]:border-accent"
          >
            <RadioGroup.Indicator className="size-2 rounded-full bg-accent" />
          </RadioGroup.Item>
          <label htmlFor={`${id}-${option.value}`} className="cursor-pointer">
            {option.says}
          </label>
        </div>
      ))}
    </RadioGroup.Root>
  );
}
