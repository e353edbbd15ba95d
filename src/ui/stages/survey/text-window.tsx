'use client';
import { Tabs } from 'radix-ui';
import { useEffect, useState } from 'react';
import type { SurveyReading } from '@/core/walk';
import { writeSurvey } from '@/core/walk';
import { BadRows } from '@/ui/parts/bad-rows';
import { saveFile } from '@/ui/parts/save-file';
import { Window } from '@/ui/parts/window';
import { useKept } from '@/ui/state/kept';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

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
  const readText = useWorkbench((s) => s.readText);
  const [text, setText] = useKept('survey text', pasted, pasted !== '');
  const [read, setRead] = useState<{ text: string; reading: SurveyReading }>();
  const [refused, setRefused] = useState<string>();
  useEffect(() => {
    let over = false;
    void readText?.(text).then((reading) => {
      if (!over) setRead({ text, reading });
    });
    return () => {
      over = true;
    };
  }, [readText, text]);
  const { additions, bad, rows } = read?.reading ?? { additions: [], bad: [], rows: 0 };
  const good = rows - bad.length;
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
      <textarea
        className="field h-56 w-full resize-y font-mono"
        aria-label="Text to take up"
        spellCheck={false}
        value={text}
        placeholder={
          'line Main 480 circuit\ngap 96\nsignal 98\nline Loop 230\nline Main\nturnout left 84 to Loop start'
        }
        onChange={(event) => {
          setText(event.target.value);
          setRefused(undefined);
        }}
      />
      <p aria-live="polite" className="mt-2">
        {read?.text !== text
          ? 'Reading …'
          : rows === 0
            ? 'Nothing is said yet.'
            : `${rows === 1 ? '1 row' : `${rows} rows`}: ${bad.length === 0 ? 'all can be added.' : `${good} can be added, ${bad.length} cannot.`}`}
      </p>
      <BadRows label="Rows that cannot be added" rows={bad} />
      {refused && (
        <p role="alert" className="mt-2 text-fail">
          {refused}
        </p>
      )}
      <div className="mt-3 flex gap-2">
        <button
          type="button"
          className="button button-main"
          onClick={take}
          disabled={good === 0 || read?.text !== text}
        >
          {bad.length === 0 ? 'Add all' : `Add the ${good} good ${good === 1 ? 'row' : 'rows'}`}
        </button>
        <button type="button" className="button" onClick={leave}>
          Add nothing
        </button>
      </div>
    </>
  );
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
