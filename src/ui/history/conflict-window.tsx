'use client';
import { useMemo, useRef, useState } from 'react';
import { compareDocuments, type LayoutDocument, mergeDocuments, readDocument, separateIds } from '@/core/survey';
import { sendServer } from '@/ui/parts/ask-server';
import { RadioList } from '@/ui/parts/one-of';
import { useWidth } from '@/ui/parts/use-width';
import { Window } from '@/ui/parts/window';
import type { Theirs } from '@/ui/state/saving';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { Comparison } from './comparison';

const AGAIN = 'The other window has saved once more. Nothing was taken yet: choose anew.';

/**
 * Two windows changed one layout. Both versions are drawn; for each difference one side is chosen, to begin with the side that
 * changed it. What is not chosen is kept in the history.
 */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one screen in the order in which it is read; its fields share one state.
export function ConflictWindow({ theirs }: { theirs: Theirs }) {
  const store = useWorkbenchStore();
  const id = useWorkbench((s) => s.id);
  const edited = useWorkbench((s) => s.document);
  const base = useWorkbench((s) => s.base);
  const own = useMemo(() => separateIds(base, edited, theirs.document), [base, edited, theirs.document]);
  const [problem, setProblem] = useState(theirs.again && AGAIN);
  const settling = useRef(false);
  const [measure, width] = useWidth(900);
  const differences = useMemo(() => compareDocuments(theirs.document, own), [theirs.document, own]);
  const changedByThem = useMemo(
    () => new Set(compareDocuments(base, theirs.document).map((d) => d.key)),
    [base, theirs.document],
  );
  const changedByMe = useMemo(() => new Set(compareDocuments(base, own).map((d) => d.key)), [base, own]);
  const [mine, setMine] = useState<ReadonlySet<string>>(changedByMe);

  /** Once, however often it is clicked. */
  const settle = async (document: LayoutDocument) => {
    if (settling.current) return;
    settling.current = true;
    const problem = await settleWith(document);
    settling.current = false;
    setProblem(problem);
  };
  /** Keeps both versions and goes on with one; says why when it cannot. */
  const settleWith = async (document: LayoutDocument): Promise<string | undefined> => {
    const keep = async (what: object) =>
      sendServer<{ revision?: number }>('POST', `/api/layouts/${id}/revisions`, what);
    let { revision } = theirs;
    if (compareDocuments(theirs.document, document).length > 0) {
      const kept = await keep({ name: 'The other window’s version' });
      if (!kept.ok) return kept.problem;
    }
    if (compareDocuments(own, document).length > 0) {
      const kept = await keep({ name: 'This window’s version, not chosen', document: own, revision });
      /** It has saved once more: what was chosen was chosen without knowing that, and is asked anew. */
      if (!kept.ok && kept.status === 409) {
        const { document: newer, revision: now } = (kept.body as { current: Theirs }).current;
        store.getState().set({ theirs: { document: newer, revision: now, again: true } });
        return undefined;
      }
      if (!kept.ok) return kept.problem;
      revision = kept.value.revision!;
    }
    const { set, replace } = store.getState();
    replace(document, 'Settle what two windows changed');
    set({ theirs: undefined, base: theirs.document, revision, saving: 'waiting', problem: undefined });
    return undefined;
  };
  const keepChosen = () => {
    const reading = readDocument(mergeDocuments(own, theirs.document, mine));
    if (reading.ok) return settle(reading.document);
    setProblem(`These choices do not fit together: ${reading.faults[0]!.problem} Choose otherwise.`);
  };
  const choose = (key: string, own: boolean) => {
    const next = new Set(mine);
    if (own) next.add(key);
    else next.delete(key);
    setMine(next);
    setProblem(undefined);
  };

  return (
    <Window
      wide
      title="Changed in another window too"
      says="Your edits here are not saved yet. Choose what to keep; the rest stays in the history, nothing is lost."
    >
      <div className="flex min-h-0 flex-1">
        <section className="w-[340px] shrink-0 overflow-y-auto border-r border-line px-4 py-3" aria-label="Differences">
          <h3 className="font-semibold">What this window has otherwise than the other</h3>
          <ol>
            {differences.map(({ key, says }, i) => (
              <li key={key} className="border-b border-hair py-2">
                <p>
                  {i + 1}. {says}{' '}
                  <span className="text-ink3">
                    (changed by {changedByMe.has(key) ? (changedByThem.has(key) ? 'both' : 'this window') : 'the other'}
                    )
                  </span>
                </p>
                <RadioList
                  inline
                  label={`${says}: keep`}
                  value={mine.has(key) ? 'own' : 'theirs'}
                  options={[
                    { value: 'own', says: 'this window’s', name: `${says}: keep this window’s` },
                    { value: 'theirs', says: 'the other’s', name: `${says}: keep the other’s` },
                  ]}
                  onChange={(which) => choose(key, which === 'own')}
                />
              </li>
            ))}
          </ol>
        </section>
        <div ref={measure} tabIndex={0} className="min-h-0 min-w-0 flex-1 overflow-y-auto">
          <Comparison
            before={theirs.document}
            after={own}
            titles={['The other window', 'This window']}
            differences={differences}
            width={width}
          />
        </div>
      </div>
      {problem && (
        <p role="alert" className="bg-fail-tint px-4 py-1.5 text-fail">
          {problem}
        </p>
      )}
      <div className="flex shrink-0 justify-end gap-2 border-t border-line px-4 py-3">
        <button type="button" className="button" onClick={() => void settle(theirs.document)}>
          Take the other window’s whole version
        </button>
        <button type="button" className="button" onClick={() => void settle(own)}>
          Keep this window’s whole version
        </button>
        <button type="button" className="button button-main" onClick={() => void keepChosen()}>
          Keep what is chosen
        </button>
      </div>
    </Window>
  );
}
