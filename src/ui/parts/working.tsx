'use client';
import { Progress } from 'radix-ui';

/** Something that takes its time, how far it is, from 0 to 1, and a button that stops it. */
export function Working({ label, share, onStop }: { label: string; share: number; onStop: () => void }) {
  return (
    <>
      <Progress.Root value={share * 100} aria-label={label} className="h-2 rounded-full bg-hair">
        <Progress.Indicator className="h-full rounded-full bg-accent" style={{ width: `${share * 100}%` }} />
      </Progress.Root>
      <button type="button" className="button mt-2" onClick={onStop}>
        Stop
      </button>
    </>
  );
}
