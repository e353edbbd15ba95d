'use client';
import { type ReactNode, useState } from 'react';
import { showNumber } from '@/core/measure';
import { TextField } from '@/ui/parts/text-field';

/** A number in a field of its own, taken when it is left or Enter is pressed; out of bounds it is told, not cut. */
export function NumberField({
  label,
  value,
  least,
  most,
  unit = 'seconds',
  digits = 1,
  onCommit,
}: {
  label: ReactNode;
  value: number;
  least: number;
  most: number;
  unit?: string;
  digits?: number;
  onCommit: (value: number) => void;
}) {
  const shown = showNumber(value, digits);
  const [text, setText] = useState(shown);
  const [problem, setProblem] = useState<string>();
  const commit = () => {
    const next = Number(text.replace(/\s*[s%]$/, ''));
    const fine = text.trim() !== '' && next >= least && next <= most;
    setProblem(fine ? undefined : `Type a number of ${unit} between ${least} and ${most}.`);
    if (fine && text !== shown) onCommit(next);
  };
  return (
    <TextField
      label={label}
      inputMode="decimal"
      value={text}
      problem={problem}
      onChange={(e) => setText(e.target.value)}
      onBlur={commit}
      onKeyDown={(e) => e.key === 'Enter' && commit()}
    />
  );
}
