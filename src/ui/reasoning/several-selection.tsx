'use client';
import { useState } from 'react';
import { readLength } from '@/core/measure';
import { deletionOf, type Edit, LIST_NAMES, placeThing, thingsOf } from '@/core/survey';
import { AskFirst } from '@/ui/parts/ask-first';
import { TextField } from '@/ui/parts/text-field';
import { today } from '@/ui/parts/today';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { PanelSection, PanelTitle } from './panel';

/** Several things chosen together: moved, numbered, fixed or deleted as one step. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function SeveralSelection({ ids }: { ids: readonly string[] }) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [by, setBy] = useState('');
  const [word, setWord] = useState('S');
  const [from, setFrom] = useState('1');
  const [problem, setProblem] = useState<{ at: Edit['do']; says: string }>();
  const things = LIST_NAMES.flatMap((list) =>
    thingsOf(document, list)
      .filter(({ id }) => ids.includes(id))
      .map((thing) => ({ list, thing })),
  );
  const attempt = (edit: Edit) => {
    const says = store.getState().attempt(edit);
    setProblem(says === undefined ? undefined : { at: edit.do, says });
  };
  const problemAt = (at: Edit['do']) => (problem?.at === at ? problem.says : undefined);
  const move = (sign: 1 | -1) => {
    const read = readLength(by, document.shownUnit, document.scale);
    if (read.ok) attempt({ do: 'move all', ids, by: sign * read.value.tenthUm });
    else setProblem({ at: 'move all', says: read.problem });
  };
  const renumber = () => {
    if (/^\d{1,4}$/.test(from.trim())) attempt({ do: 'renumber', ids, word, from: Number(from) });
    else setProblem({ at: 'renumber', says: 'Type the first number, for example 1.' });
  };
  const named = things.every(({ thing }) => typeof thing.name === 'string');
  const { goes, kept } = deletionOf(document, ...ids);
  const { up, down } = document.directions;
  return (
    <>
      <PanelTitle>{ids.length} things chosen</PanelTitle>
      <ul className="max-h-40 overflow-auto" aria-label="Chosen together">
        {things.map(({ list, thing }) => (
          <li key={thing.id} className="flex items-center justify-between gap-2 border-b border-hair py-0.5">
            {placeThing(document, list, thing)}
            <button
              type="button"
              className="button px-1.5 py-0"
              aria-label={`Leave out ${placeThing(document, list, thing)}`}
              onClick={() => store.getState().choose(thing.id)}
            >
              Leave out
            </button>
          </li>
        ))}
      </ul>
      <PanelSection title="Move them">
        <TextField
          label="By"
          value={by}
          placeholder={document.shownUnit === 'cm' ? '5 cm' : '2 in'}
          problem={problemAt('move all')}
          onChange={(event) => setBy(event.target.value)}
        />
        <div className="mt-2 flex flex-wrap gap-2">
          <button type="button" className="button" onClick={() => move(-1)}>
            {down}
          </button>
          <button type="button" className="button" onClick={() => move(1)}>
            {up}
          </button>
        </div>
      </PanelSection>
      {named && (
        <PanelSection title="Number them along the line">
          <div className="flex items-start gap-2">
            <TextField
              label="Begin with"
              className="w-1/2"
              value={word}
              problem={problemAt('renumber')}
              onChange={(event) => setWord(event.target.value)}
            />
            <TextField
              label="First number"
              className="w-1/2"
              inputMode="numeric"
              value={from}
              onChange={(event) => setFrom(event.target.value)}
            />
          </div>
          <button type="button" className="button mt-2" onClick={renumber}>
            Number them
          </button>
        </PanelSection>
      )}
      <PanelSection title="All of them">
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="button"
            onClick={() => attempt({ do: 'fix all', ids, certainty: 'fixed', on: today() })}
          >
            Fixed
          </button>
          <button
            type="button"
            className="button"
            onClick={() => attempt({ do: 'fix all', ids, certainty: 'tentative' })}
          >
            Tentative
          </button>
          <AskFirst
            button="Delete them"
            title={`Delete ${ids.length} things?`}
            yes={kept ? 'Understood' : 'Delete them'}
            no="Keep them"
            onYes={() => {
              if (!kept && store.getState().edit({ do: 'delete all', ids })) store.getState().select(undefined);
            }}
          >
            {kept ?? goes.join(', ')}
          </AskFirst>
        </div>
      </PanelSection>
    </>
  );
}
