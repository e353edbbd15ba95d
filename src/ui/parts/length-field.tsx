'use client';
import { type KeyboardEvent, useEffect, useId, useRef, useState } from 'react';
import { readLength, type ScaleId, type ShownUnit, showLength, type TypedLength } from '@/core/measure';

interface Props {
  label: string;
  unit: ShownUnit;
  scale: ScaleId;
  /** The present value; typing starts from what was typed before. */
  value?: TypedLength | null;
  placeholder?: string;
  autoFocus?: boolean;
  /** What is wrong with it beyond how it reads. */
  problem?: string;
  /** Null where it cannot be read: a form takes undefined for what it began with. */
  onChange?: (value: TypedLength | null) => void;
  /** Enter, or leaving the field with a changed and readable value. */
  onCommit?: (value: TypedLength) => void;
}

/** A length typed as people say it; says at once how it was read, or why it cannot be. */
export function LengthField({ label, unit, scale, value, placeholder, autoFocus, problem, onChange, onCommit }: Props) {
  const id = useId();
  const [text, setText] = useState(value?.typed ?? '');
  const [touched, setTouched] = useState(false);
  /** What was told and has not come back yet, the newest last: while it comes back, what stands in the field is left alone. */
  const told = useRef([value?.typed]);
  useEffect(() => {
    const known = told.current.indexOf(value?.typed);
    if (known >= 0) {
      told.current = told.current.slice(known);
      return;
    }
    told.current = [value?.typed];
    setText(value?.typed ?? '');
    setTouched(false);
  }, [value?.typed]);
  const reading = readLength(text, unit, scale);
  const commit = () => {
    if (reading.ok && reading.value.tenthUm !== value?.tenthUm) onCommit?.(reading.value);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && onCommit) {
      event.preventDefault();
      setTouched(true);
      commit();
    }
    if (event.key === 'Escape') setText(value?.typed ?? '');
  };
  const unread = touched && text !== '' && !reading.ok;
  const wrong = unread || problem !== undefined;
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-ink2">
        {label}
      </label>
      <input
        id={id}
        className={`field ${wrong ? 'border-fail' : ''}`}
        value={text}
        placeholder={placeholder ?? (unit === 'cm' ? '96 cm' : '3 ft 2 in')}
        aria-invalid={wrong}
        aria-describedby={`${id}-note`}
        // biome-ignore lint/a11y/noAutofocus: the first field of an empty layout is the one thing to do
        autoFocus={autoFocus}
        onChange={(event) => {
          setText(event.target.value);
          setTouched(true);
          const read = readLength(event.target.value, unit, scale);
          if (onChange) told.current.push(read.ok ? read.value.typed : undefined);
          onChange?.(read.ok ? read.value : null);
        }}
        onBlur={commit}
        onKeyDown={onKeyDown}
      />
      <span id={`${id}-note`} className={wrong ? 'text-fail' : 'text-ink3'} aria-live="polite">
        {unread && !reading.ok
          ? reading.problem
          : (problem ??
            (reading.ok && text.trim() !== showLength(reading.value.tenthUm, unit)
              ? `that is ${showLength(reading.value.tenthUm, unit)}`
              : ' '))}
      </span>
    </div>
  );
}
