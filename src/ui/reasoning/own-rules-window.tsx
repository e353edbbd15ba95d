'use client';
import { createColumnHelper } from '@tanstack/react-table';
import { useEffect, useMemo, useState } from 'react';
import type { OwnRuleRow } from '@/core/design';
import { DataTable } from '@/ui/parts/data-table';
import { TextField } from '@/ui/parts/text-field';
import { Window } from '@/ui/parts/window';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { RuleWindow } from './rule-window';

const column = createColumnHelper<OwnRuleRow>();
/** Rules that are about no thing are looked at together. */
const NO_THING = '';

/** Every rule of somebody’s own: found, gone to, compared with what is generated, put back or deleted. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function OwnRulesWindow({ onClose }: { onClose: () => void }) {
  const store = useWorkbenchStore();
  const design = useWorkbench((s) => s.design);
  const ask = useWorkbench((s) => s.ownRules);
  const [rows, setRows] = useState<OwnRuleRow[]>();
  const [filter, setFilter] = useState('');
  const [problem, setProblem] = useState<string>();
  const [opened, setOpened] = useState<{ id: string; name: string }>();
  useEffect(() => {
    if (!design) return;
    let late = false;
    void ask?.().then((found) => !late && setRows(found));
    return () => {
      late = true;
    };
  }, [ask, design]);
  const columns = useMemo(() => {
    const drop = ({ name, written }: OwnRuleRow) =>
      setProblem(store.getState().attempt({ do: 'own rules', put: [], drop: [name], about: written }));
    const goTo = ({ about }: OwnRuleRow) => {
      store.getState().select(about);
      onClose();
    };
    return [
      column.accessor('written', {
        header: 'Rule',
        cell: ({ row: { original: rule } }) => (
          <>
            <strong className="font-mono">{rule.written}</strong>
            {rule.problem && <span className="block text-fail">Left out: {rule.problem}</span>}
          </>
        ),
      }),
      column.accessor('text', {
        header: 'Your own',
        cell: (cell) => <code className="font-mono">{cell.getValue()}</code>,
      }),
      column.accessor('generated', {
        header: 'As generated',
        cell: (cell) =>
          cell.getValue() === undefined ? (
            <span className="text-ink3">nothing: it stands beside the others</span>
          ) : (
            <code className="font-mono">{cell.getValue()}</code>
          ),
      }),
      column.accessor('aboutName', {
        header: 'About',
        cell: ({ row: { original: rule } }) =>
          rule.about === undefined ? (
            <span className="text-ink3">{rule.problem ? 'it is gone' : 'no one thing'}</span>
          ) : (
            <button type="button" className="cursor-pointer text-accent underline" onClick={() => goTo(rule)}>
              Go to {rule.aboutName}
            </button>
          ),
      }),
      column.display({
        id: 'deeds',
        header: '',
        cell: ({ row: { original: rule } }) => (
          <span className="flex flex-wrap gap-1">
            <button
              type="button"
              className="button"
              onClick={() => setOpened({ id: rule.about ?? NO_THING, name: rule.aboutName })}
            >
              Change
            </button>
            <button type="button" className="button" onClick={() => drop(rule)}>
              {rule.generated === undefined ? 'Delete' : 'Put back'}
            </button>
          </span>
        ),
      }),
    ];
  }, [store, onClose]);
  /** One is changed in the place of the list, and leads back to it. */
  if (opened) return <RuleWindow id={opened.id} name={opened.name} onClose={() => setOpened(undefined)} />;
  const left = rows?.filter((rule) => rule.problem !== undefined).length ?? 0;
  return (
    <Window
      wide
      title="All rules of your own"
      says="They stand in the place of what is generated, or beside it, and are proved like any other."
      onClose={onClose}
    >
      <div className="flex flex-wrap items-end gap-3 border-b border-line px-4 py-2">
        <TextField label="Find" className="w-64" value={filter} onChange={(event) => setFilter(event.target.value)} />
        <output className="grow text-ink2">
          {rows === undefined
            ? 'Looking them up …'
            : rows.length === 0
              ? 'All rules are as generated'
              : `${rows.length} of your own${left > 0 ? `, ${left} left out` : ''}`}
        </output>
        <button type="button" className="button" onClick={() => setOpened({ id: NO_THING, name: '' })}>
          Write a new one
        </button>
      </div>
      <div tabIndex={0} className="min-h-[240px] flex-1 overflow-auto px-4 py-3">
        {problem && (
          <p role="alert" className="mb-2 font-semibold text-fail">
            {problem}
          </p>
        )}
        {rows && rows.length > 0 ? (
          <DataTable
            label="Rules of your own"
            rows={rows}
            columns={columns}
            rowId={({ name }) => name}
            filter={filter}
          />
        ) : (
          rows && (
            <p className="text-ink2">
              Select a signal, a turnout or a block and look at its rules to change one; or write one that is about no
              thing.
            </p>
          )
        )}
      </div>
    </Window>
  );
}
