'use client';
import { useEffect, useState } from 'react';
import { compareDocuments } from '@/core/survey';
import { Choice } from '@/ui/parts/choice';
import { KeptColumn } from '@/ui/parts/kept-column';
import { useWidth } from '@/ui/parts/use-width';
import { Window } from '@/ui/parts/window';
import { useWorkbench } from '@/ui/state/store';
import { Comparison } from './comparison';
import { type Revision, titleOf, useRevisions, when } from './use-revisions';

const NOW = 0;

/** Every version that was kept: when, what was done, how it differs, and the way back to it. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function HistoryWindow({ onClose }: { onClose: () => void }) {
  const present = useWorkbench((s) => s.document);
  const saving = useWorkbench((s) => s.saving);
  const [chosenPair, setPair] = useState<[number, number]>();
  const [wanted, setWanted] = useState<readonly number[]>([]);
  const [measure, width] = useWidth(860);
  const { revisions, documents, problem, keep, goBack } = useRevisions(wanted);
  const [newest] = revisions ?? [];
  const pair = chosenPair ?? (newest && ([newest.number, NOW] as [number, number]));
  const [first, second] = pair ?? [NOW, NOW];
  useEffect(() => setWanted([first, second].filter((number) => number !== NOW)), [first, second]);

  const documentOf = (number: number) => (number === NOW ? present : documents[number]);
  const called = (number: number) => {
    const revision = revisions?.find((r) => r.number === number);
    return revision ? titleOf(revision) : 'As it is now';
  };
  const restore = async (revision: Revision) => {
    if (await goBack(revision)) onClose();
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
                    ...revisions!.map(({ number }) => ({ value: String(number), says: called(number) })),
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
                  titles={[called(pair[0]), called(pair[1])]}
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
