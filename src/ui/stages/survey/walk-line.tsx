'use client';
import { CornerDownLeft, FileText } from 'lucide-react';
import { Popover } from 'radix-ui';
import { type KeyboardEvent, memo, type RefObject, useCallback, useEffect, useId, useMemo, useState } from 'react';
import { showLength } from '@/core/measure';
import { freshIn, readPhrase, SAID, type Walk } from '@/core/walk';
import { undoOrRedo } from '@/ui/parts/undo-keys';
import { useKept } from '@/ui/state/kept';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { TextWindow } from './text-window';

/** Words offered at once; more are no help. */
const MOST_OFFERS = 9;
/** What was said before comes back with the arrow keys, so many times. */
const MOST_KEPT = 50;

/** One line to type into, as one walks along the rails with a tape: what comes next, and where. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function WalkLine({ field }: { field: RefObject<HTMLInputElement | null> }) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [typed, setTyped] = useKept('phrase', '');
  const [along, setAlong] = useState<Omit<Walk, 'document'>>();
  const [refused, setRefused] = useState<string>();
  const [window, setWindow] = useState<{ pasted?: string }>();
  const [kept, setKept] = useState<{ said: string[]; at: number }>({ said: [], at: 0 });
  const id = useId();
  const line =
    document.lines.find((one) => one.id === along?.line) ??
    document.lines.find((one) => one.id === document.referenceLine);
  const walk: Walk = { document, line: line?.id ?? '', last: along?.line === line?.id ? along?.last : undefined };
  const reading = typed.trim() === '' ? undefined : readPhrase(typed, walk, freshIn(document));
  const ghost = reading?.ghost;
  const [ghostLine, ghostAt, ghostTo] = [ghost?.line, ghost?.at, ghost?.to];
  useEffect(() => {
    const { set } = store.getState();
    set({ pointed: ghostLine === undefined ? undefined : { line: ghostLine, at: ghostAt!, to: ghostTo } });
  }, [store, ghostLine, ghostAt, ghostTo]);
  useEffect(() => () => store.getState().set({ pointed: undefined }), [store]);

  /** With a line just begun and nothing on it, this is what comes next. */
  const bare = document.lines.length === 1 && document.features.length === 0;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when it comes up
  useEffect(() => {
    if (bare) field.current?.focus();
  }, []);

  const change = (next: string) => {
    setTyped(next);
    setRefused(undefined);
  };
  const begin = useCallback(
    (head: string) => {
      setTyped(`${head} `);
      setRefused(undefined);
      field.current?.focus();
    },
    [field, setTyped],
  );
  const keep = () => {
    if (!reading?.additions) return;
    const { attempt } = store.getState();
    const { additions, length } = reading;
    const says = `Add “${typed.trim()}”`;
    const problem = length
      ? attempt({ do: 'change line', id: length.line, length: length.length })
      : additions.length > 0
        ? attempt({ do: 'add things', things: additions, says })
        : undefined;
    if (problem !== undefined) return setRefused(problem);
    setAlong({ line: reading.line, last: reading.last ?? (reading.line === walk.line ? walk.last : undefined) });
    const said = [...kept.said.filter((one) => one !== typed), typed].slice(-MOST_KEPT);
    setKept({ said, at: said.length });
    change('');
  };
  /** The word that is being typed gives way to a whole one. */
  const complete = (word: string) => change(`${typed.replace(/\S*$/, '')}${word} `);
  const begun = /\S*$/.exec(typed)![0].toLowerCase();
  const offers = useMemo(
    () => (reading?.offers ?? []).filter((word) => begun === '' || word.startsWith(begun)).slice(0, MOST_OFFERS),
    [reading?.offers, begun],
  );
  const onKeyDown = (event: KeyboardEvent) => {
    const chord = typed === '' ? undoOrRedo(event) : undefined;
    if (event.key === 'Enter') keep();
    else if (chord) store.getState()[chord]();
    else if (event.key === 'Escape' && typed !== '') change('');
    else if (event.key === 'Tab' && !event.shiftKey && reading?.meant !== undefined) change(reading.meant);
    else if (event.key === 'Tab' && !event.shiftKey && begun !== '' && offers[0] !== undefined && offers[0] !== begun)
      complete(offers[0]);
    else if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
      const at = Math.min(kept.said.length, Math.max(0, kept.at + (event.key === 'ArrowUp' ? -1 : 1)));
      setKept({ ...kept, at });
      change(kept.said[at] ?? '');
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const problem = refused ?? reading?.problem;
  const where = walk.last && `, after ${showLength(walk.last.at, document.shownUnit)}`;
  return (
    <section aria-label="Walk along the line" data-part className="shrink-0 border-t border-line bg-paper px-4 py-2">
      <div className="flex flex-wrap items-center gap-2">
        <label htmlFor={id} className="max-w-52 shrink-0 truncate text-ink2">
          Along <strong className="text-ink">{line?.name}</strong>
          {where}
        </label>
        <input
          ref={field}
          id={id}
          className={`field min-w-56 flex-1 basis-56 ${problem ? 'border-fail' : ''}`}
          value={typed}
          placeholder="gap 96, signal east 98, turnout left 84, +12 …"
          spellCheck={false}
          autoComplete="off"
          aria-describedby={`${id}-says`}
          aria-invalid={problem !== undefined}
          onChange={(event) => change(event.target.value)}
          onKeyDown={onKeyDown}
          onPaste={(event) => {
            const text = event.clipboardData.getData('text');
            if (!/\n./.test(text.trim())) return;
            event.preventDefault();
            setWindow({ pasted: text });
          }}
        />
        <button type="button" className="button" onClick={keep} aria-label="Add what was said" title="Add it (Enter)">
          <CornerDownLeft size={14} aria-hidden />
        </button>
        <WhatCanBeSaid onChoose={begin} />
        <button type="button" className="button" onClick={() => setWindow({})}>
          <FileText size={14} aria-hidden /> As text
        </button>
      </div>
      <p
        id={`${id}-says`}
        aria-live="polite"
        className={`mt-1 flex min-h-5 flex-wrap items-center gap-x-2 ${problem ? 'text-fail' : 'text-ink2'}`}
      >
        {problem ??
          reading?.asks ??
          (reading
            ? `${reading.means ?? 'Enter goes there.'}${reading.additions ? ' Enter adds it.' : ''}`
            : 'Say what comes next and where; a number alone says the last thing again.')}
        {reading?.meant !== undefined && refused === undefined && (
          <button type="button" className="button px-1.5 py-0" onClick={() => change(reading.meant!)}>
            {reading.meant} <span className="text-ink3">Tab</span>
          </button>
        )}
        {reading?.meant === undefined &&
          offers.map((word) => (
            <button
              key={word}
              type="button"
              tabIndex={-1}
              className="cursor-pointer rounded-sm px-1 text-accent hover:bg-accent-tint"
              onClick={() => {
                complete(word);
                field.current?.focus();
              }}
            >
              {word}
            </button>
          ))}
      </p>
      {window && <TextWindow {...window} onClose={() => setWindow(undefined)} />}
    </section>
  );
}

/** Every phrase with a sentence about it. */
const WhatCanBeSaid = memo(function WhatCanBeSaid({ onChoose }: { onChoose: (head: string) => void }) {
  return (
    <Popover.Root>
      <Popover.Trigger className="button">What can be said</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          side="top"
          align="end"
          sideOffset={4}
          collisionPadding={8}
          aria-label="What can be said"
          className="zoomed z-50 max-h-[60vh] w-[440px] overflow-auto rounded-lg border border-edge bg-raised p-2 text-ink shadow-lg"
        >
          <dl className="grid grid-cols-[auto_1fr] items-baseline gap-x-3 gap-y-0.5">
            {SAID.map(({ head, means }) => (
              <div key={head} className="contents">
                <dt>
                  <Popover.Close asChild>
                    <button
                      type="button"
                      className="cursor-pointer rounded-sm px-1 font-semibold text-accent hover:bg-accent-tint"
                      onClick={() => onChoose(head)}
                    >
                      {head}
                    </button>
                  </Popover.Close>
                </dt>
                <dd className="text-ink2">{means}</dd>
              </div>
            ))}
          </dl>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
});
