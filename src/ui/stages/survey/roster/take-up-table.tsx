'use client';
import { useDeferredValue, useMemo, useState } from 'react';
import { ROSTER_COLUMNS, readRoster } from '@/core/roster';
import { BadRows } from '@/ui/parts/bad-rows';
import { useKept } from '@/ui/state/kept';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

const LARGEST_BYTES = 4 * 1024 * 1024;

/** A table from elsewhere: pasted cells of a spreadsheet, or a file of comma-separated values. */
export function TakeUpTable({ onDone }: { onDone: () => void }) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [text, setText] = useKept('roster table', '');
  const [refused, setRefused] = useState<string>();
  const late = useDeferredValue(text);
  const read = useMemo(() => readRoster(late, document), [late, document]);
  const { rows, vehicles, bad, leftOut } = read;
  const added = vehicles.filter(({ id }) => id === undefined).length;
  const take = () => {
    const says = `Take up ${vehicles.length === 1 ? '1 row' : `${vehicles.length} rows`} of a table`;
    const problem = store.getState().attempt({ do: 'keep vehicles', vehicles, says });
    setRefused(problem);
    if (problem !== undefined) return;
    setText('');
    onDone();
  };
  const takeFile = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > LARGEST_BYTES) return setRefused('That file is larger than 4 MB. A roster has a few hundred rows.');
    setText(await file.text());
    setRefused(undefined);
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col overflow-auto">
      <p className="mb-2 text-ink2">
        Copy the cells from your spreadsheet and paste them here, or choose a CSV file. The first row may say which
        column is which: {ROSTER_COLUMNS.map(({ title }) => title).join(', ')}. Only the name is needed; a name that is
        in the roster changes that vehicle.
      </p>
      <textarea
        className="field h-48 w-full shrink-0 resize-y font-mono"
        aria-label="Table to take up"
        spellCheck={false}
        value={text}
        placeholder={'Name\tKind\tLength\tAxles\nOre wagon 1\tTwo-axle wagon\t10.5 cm\t2 cm resistor; 8 cm'}
        onChange={(event) => {
          setText(event.target.value);
          setRefused(undefined);
        }}
      />
      <label className="mt-2">
        <span className="mr-2 text-ink2">Or a file</span>
        <input
          type="file"
          accept=".csv,.tsv,.txt,text/csv"
          onChange={(event) => void takeFile(event.target.files?.[0])}
        />
      </label>
      <p aria-live="polite" className="mt-2">
        {late !== text
          ? 'Reading …'
          : rows === 0
            ? 'Nothing is said yet.'
            : `${rows === 1 ? '1 row' : `${rows} rows`}: ${added} new, ${vehicles.length - added} changed, ${bad.length} cannot be taken up.`}
      </p>
      {leftOut.length > 0 && <p className="text-warn">Left out, since no column is called so: {leftOut.join(', ')}.</p>}
      <BadRows label="Rows that cannot be taken up" rows={bad} />
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
          disabled={vehicles.length === 0 || late !== text}
        >
          {bad.length === 0 ? 'Take up all' : `Take up the ${vehicles.length} good ones`}
        </button>
        <button type="button" className="button" onClick={onDone}>
          Take up none
        </button>
      </div>
    </div>
  );
}
