'use client';
import { ChevronRight } from 'lucide-react';
import { useState } from 'react';
import type { Reason } from '@/core/reasoning';

/** How many levels are open before a click. */
const OPEN_LEVELS = 4;

/** A reason with its terms; `bare` leaves out its own sentence, where a title says it already. Of the terms, the deciding ones first, the others behind a line that says how many there are. */
export function ReasonTree({ reason, bare = false }: { reason: Reason; bare?: boolean }) {
  if (!bare) return <Branch reason={reason} level={0} />;
  return reason.because.map((part, i) => <Branch key={i} reason={part} level={1} />);
}

function Branch({ reason, level }: { reason: Reason; level: number }) {
  const deciding = reason.because.filter((part) => part.decides !== false);
  const others = reason.because.filter((part) => part.decides === false);
  const [open, setOpen] = useState(level < OPEN_LEVELS || deciding.length === 1);
  const [showOthers, setShowOthers] = useState(false);
  const inside = reason.because.length > 0;
  return (
    <div className={level > 0 ? 'border-t border-hair py-1' : ''}>
      <div className="flex items-start gap-1">
        {inside ? (
          <button
            type="button"
            className="mt-0.5 shrink-0 cursor-pointer rounded-sm text-ink3"
            aria-expanded={open}
            aria-label={open ? 'Hide the reasons' : 'Show the reasons'}
            onClick={() => setOpen(!open)}
          >
            <ChevronRight size={13} aria-hidden className={open ? 'rotate-90' : ''} />
          </button>
        ) : (
          <span className="w-[13px] shrink-0" />
        )}
        <span className={`grow ${reason.decides === false ? 'text-ink3' : level === 0 ? 'font-semibold' : ''}`}>
          {reason.says}
          {reason.formula && <span className="block font-mono text-[0.72rem] text-ink3">{reason.formula}</span>}
        </span>
        {reason.value && <span className="shrink-0 font-semibold">{reason.value}</span>}
      </div>
      {open && inside && (
        <div className="pl-3">
          {deciding.map((part, i) => (
            <Branch key={i} reason={part} level={level + 1} />
          ))}
          {others.length > 0 && (
            <button
              type="button"
              className="cursor-pointer py-1 pl-4 text-ink3 underline decoration-dotted"
              onClick={() => setShowOthers(!showOthers)}
            >
              {showOthers ? 'Hide' : 'Also looked at'}: {others.length} more
            </button>
          )}
          {showOthers && others.map((part, i) => <Branch key={i} reason={part} level={level + 1} />)}
        </div>
      )}
    </div>
  );
}
