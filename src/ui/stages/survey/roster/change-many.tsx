'use client';
import { useState } from 'react';
import { ROSTER_COLUMNS } from '@/core/roster';
import { deletionOf, type Vehicle } from '@/core/survey';
import { AskFirst } from '@/ui/parts/ask-first';
import { Choice } from '@/ui/parts/choice';
import { TextField } from '@/ui/parts/text-field';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** Names are one's own: they cannot be the same for several. */
const COLUMNS = ROSTER_COLUMNS.filter(({ key }) => key !== 'name');

/** One column of all chosen vehicles changed at once, or all of them deleted. */
export function ChangeMany({ vehicles, onDone }: { vehicles: readonly Vehicle[]; onDone: () => void }) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [key, setKey] = useState(COLUMNS[0]!.key);
  const [text, setText] = useState('');
  const [problem, setProblem] = useState<string>();
  const column = COLUMNS.find((one) => one.key === key)!;
  const ids = vehicles.map(({ id }) => id);
  const { goes, kept } = deletionOf(document, ...ids);
  const count = vehicles.length === 1 ? '1 vehicle' : `${vehicles.length} vehicles`;
  const change = () => {
    const changed: Vehicle[] = [];
    for (const vehicle of vehicles) {
      const read = column.read(text.trim(), vehicle, document);
      if (!read.ok) return setProblem(`${vehicle.name}: ${read.problem}`);
      changed.push({ ...vehicle, ...read.value });
    }
    const says = `${column.title} of ${count}: ${text.trim() || 'none'}`;
    setProblem(store.getState().attempt({ do: 'keep vehicles', vehicles: changed, says }));
  };
  return (
    <form
      className="mb-2 flex flex-wrap items-end gap-3 rounded-md border border-line bg-raised px-3 py-2"
      onSubmit={(event) => {
        event.preventDefault();
        change();
      }}
    >
      <p className="self-center font-semibold">{count} chosen</p>
      <Choice
        label="Change their"
        className="w-40"
        value={key}
        options={COLUMNS.map((one) => ({ value: one.key, says: one.title }))}
        onChange={(next) => {
          setKey(next);
          setText('');
          setProblem(undefined);
        }}
      />
      {column.choices ? (
        <Choice
          label="to"
          className="w-44"
          value={text || undefined}
          placeholder="choose"
          options={column.choices.map((value) => ({ value, says: value }))}
          onChange={setText}
        />
      ) : (
        <TextField label="to" className="w-44" value={text} onChange={(event) => setText(event.target.value)} />
      )}
      <button type="submit" className="button button-main" disabled={column.choices && text === ''}>
        Change all
      </button>
      <AskFirst
        button={`Delete ${count}`}
        title={`Delete ${count}?`}
        yes={kept ? 'Understood' : 'Delete them'}
        no="Keep them"
        onYes={() => {
          if (!kept && store.getState().edit({ do: 'delete all', ids })) onDone();
        }}
      >
        {kept ?? goes.join(', ')}
      </AskFirst>
      <button type="button" className="button" onClick={onDone}>
        Choose none
      </button>
      {problem && (
        <p role="alert" className="basis-full text-fail">
          {problem}
        </p>
      )}
    </form>
  );
}
