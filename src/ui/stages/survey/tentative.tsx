'use client';
import { memo, useDeferredValue } from 'react';
import { type LayoutDocument, LIST_NAMES, placeThing, thingsOf } from '@/core/survey';
import { Fold } from '@/ui/parts/fold';
import { today } from '@/ui/parts/today';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** Listed at once; the rest is counted. */
const MOST_LISTED = 100;

/** What is only an idea so far, each with a way to say that it has been cut or drilled. */
export function Tentative() {
  return <Ideas document={useDeferredValue(useWorkbench((s) => s.document))} />;
}

const Ideas = memo(function Ideas({ document }: { document: LayoutDocument }) {
  const count = LIST_NAMES.reduce(
    (sum, list) => sum + thingsOf(document, list).filter(({ certainty }) => certainty === 'tentative').length,
    0,
  );
  if (count === 0) return null;
  return (
    <Fold title={`${count} still tentative`}>
      <List document={document} />
      {count > MOST_LISTED && <p className="text-ink2">and {count - MOST_LISTED} more</p>}
    </Fold>
  );
});

function List({ document }: { document: LayoutDocument }) {
  const store = useWorkbenchStore();
  const ideas = LIST_NAMES.flatMap((list) =>
    thingsOf(document, list)
      .filter(({ certainty }) => certainty === 'tentative')
      .map((thing) => ({ list, thing })),
  );
  return (
    <ul className="max-h-64 overflow-auto">
      {ideas.slice(0, MOST_LISTED).map(({ list, thing }) => {
        const { id } = thing;
        const says = placeThing(document, list, thing);
        return (
          <li key={id} className="flex items-center justify-between gap-2 border-b border-hair py-0.5">
            <button
              type="button"
              className="min-w-0 cursor-pointer rounded-sm text-left hover:bg-accent-tint"
              onClick={() => store.getState().select(id)}
            >
              {says}
            </button>
            <button
              type="button"
              className="button px-1.5 py-0"
              aria-label={`It is done: ${says}`}
              title="It has been cut, drilled or laid"
              onClick={() => store.getState().edit({ do: 'fix', id, certainty: 'fixed', on: today() })}
            >
              Done
            </button>
          </li>
        );
      })}
    </ul>
  );
}
