'use client';
import { format } from 'date-fns';
import { useCallback, useEffect, useState } from 'react';
import { compareDocuments, type LayoutDocument } from '@/core/survey';
import { askServer, sendServer } from '@/ui/parts/ask-server';
import { Choice } from '@/ui/parts/choice';
import { KeptColumn } from '@/ui/parts/kept-column';
import { useWidth } from '@/ui/parts/use-width';
import { Window } from '@/ui/parts/window';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { Comparison } from './comparison';

interface Revision {
  number: number;
  at: string;
  note: string;
  name: string;
}

const NOW = 0;
const when = (at: string) => format(new Date(at), 'd MMM yyyy, HH:mm');

/** Every version that was kept: when, what was done, how it differs, and the way back to it. */
export function HistoryWindow({ onClose }: { onClose: () => void }) {
  const store = useWorkbenchStore();
  const id = useWorkbench((s) => s.id);
  const present = useWorkbench((s) => s.document);
  const saving = useWorkbench((s) => s.saving);
  const [revisions, setRevisions] = useState<Revision[]>();
  const [problem, setProblem] = useState<string>();
  const [pair, setPair] = useState<[number, number]>();
  const [documents, setDocuments] = useState<Record<number, LayoutDocument>>({});
  const [measure, width] = useWidth(860);

  const load = useCallback(async () => {
    const asked = await askServer<Revision[]>(`/api/layouts/${id}/revisions`);
    if (!asked.ok) return setProblem(asked.problem);
    setProblem(undefined);
    setRevisions(asked.value);
    setPair((now) => now ?? (asked.value[0] && [asked.value[0].number, NOW]));
  }, [id]);
  useEffect(() => void load(), [load]);

  useEffect(() => {
    for (const number of pair ?? []) {
      if (number === NOW || documents[number]) continue;
      void askServer<{ document: LayoutDocument }>(`/api/layouts/${id}/revisions/${number}`).then((asked) =>
        asked.ok ? setDocuments((all) => ({ ...all, [number]: asked.value.document })) : setProblem(asked.problem),
      );
    }
  }, [pair, documents, id]);

  const keep = async (name: string) => {
    const asked = await sendServer('POST', `/api/layouts/${id}/revisions`, { name });
    if (asked.ok) await load();
    else setProblem(asked.problem);
    return asked.ok;
  };
  const documentOf = (number: number) => (number === NOW ? present : documents[number]);
  const titleOf = (number: number) => {
    const revision = revisions?.find((r) => r.number === number);
    return revision ? `${revision.name || 'Version'} of ${when(revision.at)}` : 'As it is now';
  };
  const restore = async (revision: Revision) => {
    const asked = await sendServer('POST', `/api/layouts/${id}/revisions`, {
      name: `Before going back to ${revision.name || when(revision.at)}`,
    });
    if (!asked.ok) return setProblem(asked.problem);
    store.getState().replace(documents[revision.number]!, `Go back to ${titleOf(revision.number)}`);
    onClose();
  };

  const [before, after] = pair ? [documentOf(pair[0]), documentOf(pair[1])] : [];
  const differences = before && after ? compareDocuments(before, after) : [];
  const chosen = revisions?.find((r) => r.number === pair?.[0]);
  return (
    <Window
      wide
      title="History"
      says="A version is kept whenever you come back to editing after a pause of a minute, before anything risky, and when you name one."
      onClose={onClose}
    >
      <div className="flex min-h-[420px] flex-1 overflow-hidden">
        <KeptColumn what="version" disabled={saving !== 'saved'} problem={problem} onKeep={keep}>
          {!revisions && !problem && <p className="px-4 py-3 text-ink2">Looking up the kept versions …</p>}
          <ul className="min-h-0 flex-1 overflow-y-auto" aria-label="Kept versions">
            {revisions?.map((revision) => (
              <li key={revision.number} className="border-b border-hair">
                <button
                  type="button"
                  aria-pressed={pair?.[0] === revision.number}
                  className={`w-full cursor-pointer px-4 py-2 text-left ${pair?.[0] === revision.number ? 'bg-accent-tint' : 'hover:bg-accent-tint'}`}
                  onClick={() => setPair([revision.number, pair?.[1] ?? NOW])}
                >
                  <span className="block font-semibold">
                    {revision.name || (revision.number === 1 ? 'The first version' : 'Kept at a pause')}
                  </span>
                  <span className="block text-ink2">{when(revision.at)}</span>
                  <span className="block text-ink2">{revision.note}</span>
                </button>
              </li>
            ))}
          </ul>
        </KeptColumn>
        <div className="flex min-h-0 min-w-0 flex-1 flex-col">
          {chosen && (
            <div className="flex shrink-0 flex-wrap items-center gap-3 border-b border-line px-4 py-2">
              <span className="flex items-center gap-2">
                Compare with
                <Choice
                  label="Compare with"
                  labelled="unseen"
                  value={String(pair?.[1])}
                  options={[
                    { value: String(NOW), says: 'As it is now' },
                    ...revisions!.map(({ number }) => ({ value: String(number), says: titleOf(number) })),
                  ]}
                  onChange={(other) => setPair([chosen.number, Number(other)])}
                />
              </span>
              <span className="grow" />
              <button
                type="button"
                className="button button-main"
                disabled={!documents[chosen.number] || saving !== 'saved'}
                onClick={() => void restore(chosen)}
              >
                Go back to this version
              </button>
            </div>
          )}
          <div ref={measure} tabIndex={0} className="min-h-0 flex-1 overflow-y-auto">
            {before && after && pair ? (
              <>
                <Comparison
                  before={before}
                  after={after}
                  titles={[titleOf(pair[0]), titleOf(pair[1])]}
                  differences={differences}
                  width={width}
                />
                <section className="px-4 py-3" aria-label="Differences">
                  <h3 className="font-semibold">
                    {differences.length === 0
                      ? 'The two are the same.'
                      : differences.length === 1
                        ? '1 difference'
                        : `${differences.length} differences`}
                  </h3>
                  <ol className="mt-1 list-decimal pl-6">
                    {differences.map((difference) => (
                      <li key={difference.key}>{difference.says}</li>
                    ))}
                  </ol>
                </section>
              </>
            ) : (
              !problem && (
                <p className="px-4 py-3 text-ink2">
                  {revisions?.length === 0 ? 'Nothing has been kept yet.' : 'Fetching that version …'}
                </p>
              )
            )}
          </div>
        </div>
      </div>
    </Window>
  );
}
