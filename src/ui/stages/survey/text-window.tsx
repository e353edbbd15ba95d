'use client';
import { Progress, Tabs } from 'radix-ui';
import { useState } from 'react';
import type { SurveyReading } from '@/core/walk';
import { writeSurvey } from '@/core/walk';
import { BadRows } from '@/ui/parts/bad-rows';
import { saveFile } from '@/ui/parts/save-file';
import { Window } from '@/ui/parts/window';
import { useKept } from '@/ui/state/kept';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { useReading } from './use-reading';

const TAB = 'cursor-pointer rounded-md px-3 py-1 data-[state=active]:bg-accent data-[state=active]:text-on-accent';

/** The survey as lines of text: one from elsewhere taken up, or this one written out. */
export function TextWindow({ pasted, onClose }: { pasted?: string; onClose: () => void }) {
  const nothing = useWorkbench((s) => s.document.lines.length === 0);
  return (
    <Window
      wide
      title="The survey as text"
      says="One thing a row, in the words of the line under the sheet: line Main 480, then gap 96, turnout left 84 …"
      onClose={onClose}
    >
      <Tabs.Root
        defaultValue={pasted === undefined && !nothing ? 'out' : 'in'}
        className="flex min-h-0 flex-col px-4 py-3"
      >
        <Tabs.List className="mb-3 flex gap-1" aria-label="Which way">
          <Tabs.Trigger value="in" className={TAB}>
            Take up a text
          </Tabs.Trigger>
          <Tabs.Trigger value="out" className={TAB}>
            This survey written out
          </Tabs.Trigger>
        </Tabs.List>
        <Tabs.Content value="in" className="flex min-h-0 flex-col">
          <TakeUp pasted={pasted ?? ''} onDone={onClose} />
        </Tabs.Content>
        <Tabs.Content value="out" className="flex min-h-0 flex-col">
          <WrittenOut />
        </Tabs.Content>
      </Tabs.Root>
    </Window>
  );
}

function TakeUp({ pasted, onDone }: { pasted: string; onDone: () => void }) {
  const store = useWorkbenchStore();
  const [text, setText] = useKept('survey text', pasted, pasted !== '');
  const [refused, setRefused] = useState<string>();
  const { now, share, begin, stop } = useReading(text);
  const { additions, bad, rows, there } = now ?? { additions: [], bad: [], rows: 0, there: 0 };
  const good = rows - bad.length - there;
  const take = () => {
    const says = `Take up ${good === 1 ? '1 row' : `${good} rows`} of text`;
    const problem = store.getState().attempt({ do: 'add things', things: additions, says });
    if (problem === undefined) leave();
    else setRefused(problem);
  };
  const leave = () => {
    setText('');
    onDone();
  };
  return (
    <>
      <TextToTakeUp
        text={text}
        change={(next) => {
          setText(next);
          setRefused(undefined);
        }}
      />
      <p aria-live="polite" className="mt-2">
        {now ? saysOf(now) : share === undefined ? 'Reading was stopped.' : 'Reading …'}
      </p>
      {!now && <StopOrBegin share={share} begin={begin} stop={stop} />}
      <BadRows label="Rows that cannot be added" rows={bad} />
      {refused && (
        <p role="alert" className="mt-2 text-fail">
          {refused}
        </p>
      )}
      <div className="mt-3 flex gap-2">
        <button type="button" className="button button-main" onClick={take} disabled={additions.length === 0}>
          {bad.length + there === 0
            ? 'Add all'
            : `Add the ${good} ${there === 0 ? 'good' : 'new'} ${good === 1 ? 'row' : 'rows'}`}
        </button>
        <button type="button" className="button" onClick={leave}>
          Add nothing
        </button>
      </div>
    </>
  );
}

/** A field with more rows than this takes seconds to be laid out, and nobody changes so many by hand. */
const MOST_ROWS = 2000;
const SHOWN_ROWS = 12;

/** The field for a text; of a long one only how it begins. */
function TextToTakeUp({ text, change }: { text: string; change: (text: string) => void }) {
  const rows = text.split('\n');
  if (rows.length > MOST_ROWS)
    return (
      <section aria-label="Text to take up">
        <pre className="field h-56 w-full overflow-auto font-mono">
          {rows.slice(0, SHOWN_ROWS).join('\n')}
          {'\n…'}
        </pre>
        <div className="mt-1 flex items-center gap-3">
          <span className="text-ink2">
            {rows.length} rows, of which the first {SHOWN_ROWS} are shown: too many to be changed here.
          </span>
          <button type="button" className="button" onClick={() => change('')}>
            Another text
          </button>
        </div>
      </section>
    );
  return (
    <textarea
      className="field h-56 w-full resize-y font-mono"
      aria-label="Text to take up"
      spellCheck={false}
      value={text}
      placeholder={'line Main 480 circuit\ngap 96\nsignal 98\nline Loop 230\nline Main\nturnout left 84 to Loop start'}
      onChange={(event) => change(event.target.value)}
      onPaste={(event) => {
        const pasted = event.clipboardData.getData('text');
        if (pasted.split('\n').length <= MOST_ROWS) return;
        event.preventDefault();
        const { selectionStart, selectionEnd } = event.currentTarget;
        change(text.slice(0, selectionStart) + pasted + text.slice(selectionEnd));
      }}
    />
  );
}

/** Something to look at while a long text is read, and the way out of it. */
function StopOrBegin({ share, begin, stop }: Omit<ReturnType<typeof useReading>, 'now'>) {
  if (share === 0) return null;
  return (
    <div className="mt-1 flex items-center gap-3">
      {share !== undefined && (
        <Progress.Root
          aria-label="Reading"
          value={Math.round(share * 100)}
          className="h-2 w-56 overflow-hidden rounded-full bg-hair"
        >
          <Progress.Indicator className="h-full bg-accent" style={{ width: `${share * 100}%` }} />
        </Progress.Root>
      )}
      <button type="button" className="button" onClick={share === undefined ? begin : stop}>
        {share === undefined ? 'Read it' : 'Stop reading'}
      </button>
    </div>
  );
}

/** How many rows there are, and what becomes of them. */
function saysOf({ additions, bad, rows, there }: SurveyReading): string {
  if (rows === 0) return 'Nothing is said yet.';
  const counted = rows === 1 ? '1 row' : `${rows} rows`;
  if (bad.length === 0 && additions.length === 0) return `${counted}: all of it is there already.`;
  if (bad.length + there === 0) return `${counted}: all can be added.`;
  const rest = [
    there > 0 && `${there} ${there === 1 ? 'is' : 'are'} there already`,
    bad.length > 0 && `${bad.length} cannot`,
  ].filter((one) => one !== false);
  return `${counted}: ${rows - bad.length - there} can be added, ${rest.join(', ')}.`;
}

function WrittenOut() {
  const document = useWorkbench((s) => s.document);
  const text = writeSurvey(document);
  return (
    <>
      <textarea
        className="field h-80 w-full resize-y font-mono"
        aria-label="This survey as text"
        readOnly
        value={text}
      />
      <div className="mt-3 flex items-center gap-3">
        <button
          type="button"
          className="button button-main"
          onClick={() => saveFile(`${document.name.replaceAll('.', ' ')}.survey.txt`, text, 'text/plain')}
        >
          Save it as a file
        </button>
        <span className="text-ink2">Trains and the name of the layout are no part of it.</span>
      </div>
    </>
  );
}
