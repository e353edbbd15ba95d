'use client';
import type { AutomaticView } from '@/core/design';
import { useWorkbench } from '@/ui/state/store';
import type { RehearsalControls } from './use-rehearsal';

/** Switches what works by itself at a thing off and on, and gives it a pulse by hand. */
export function AutomaticSwitch({ all, run }: { all: readonly AutomaticView[]; run: RehearsalControls }) {
  const off = useWorkbench((s) => s.board?.switchedOff);
  const pattern = (one: AutomaticView) => `${one.id} ${one.what}`;
  return all.map((one) => {
    const isOff = off?.includes(pattern(one)) ?? false;
    return (
      <div key={pattern(one)} className="mb-2 flex w-full flex-wrap gap-2">
        {one.pulsed && (
          <button
            type="button"
            className="button"
            onClick={() => run.command({ kind: 'give pulse', thing: one.id, what: one.what })}
          >
            Give {one.name} a pulse
          </button>
        )}
        <button
          type="button"
          className="button"
          onClick={() => run.command({ kind: 'switch automatic', thing: one.id, what: one.what, on: isOff })}
        >
          {isOff ? `Let ${one.name} work by itself again` : `Switch ${one.name} off “${one.pattern}”`}
        </button>
        <p className="w-full text-ink2" aria-live="polite">
          {isOff
            ? `“${one.pattern}” is switched off: ${one.lost}.`
            : `It works by “${one.pattern}”. Switched off, ${one.lost}.${one.what === 'turns' ? ' Thrown by hand it goes back as soon as nothing locks it.' : ''}`}
        </p>
      </div>
    );
  });
}
