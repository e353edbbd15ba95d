'use client';
import { type KeyboardEvent, useState } from 'react';
import { TextField } from './text-field';

/** Words in a field, taken when it is left or Enter is pressed; what stands in their way is told beneath. */
export function CommitText({
  label,
  value,
  onCommit,
}: {
  label: string;
  value: string;
  onCommit: (text: string) => string | undefined;
}) {
  const [typed, setTyped] = useState<{ of: string; text: string }>();
  const [problem, setProblem] = useState<string>();
  /** What was typed stands until another value comes from elsewhere. */
  const text = typed?.of === value ? typed.text : value;
  const commit = () => {
    if (text.trim() !== value) setProblem(onCommit(text.trim()));
    else setProblem(undefined);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter') commit();
    if (event.key === 'Escape') setTyped(undefined);
  };
  return (
    <TextField
      label={label}
      value={text}
      problem={problem}
      onChange={(event) => setTyped({ of: value, text: event.target.value })}
      onBlur={commit}
      onKeyDown={onKeyDown}
    />
  );
}
