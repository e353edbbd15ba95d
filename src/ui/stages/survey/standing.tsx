'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useDeferredValue, useRef } from 'react';
import { showLength } from '@/core/measure';
import { FEATURES, type LayoutDocument } from '@/core/survey';
import { Term } from '@/ui/parts/term';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

const ROW = 26;

/** What stands on the lines, as a list: each entry leads to its thing. */
export function Standing() {
  return <Cuts document={useDeferredValue(useWorkbench((s) => s.document))} />;
}

const Cuts = memo(function Cuts({ document }: { document: LayoutDocument }) {
  const store = useWorkbenchStore();
  const cuts = document.features.filter((f) => f.kind === 'gap' || f.kind === 'mark');
  const lines = new Map(document.lines.map(({ id, name }, order) => [id, { name, order }]));
  const orderOf = (cut: { line: string }) => lines.get(cut.line)!.order;
  const sorted = [...cuts].sort((a, b) => orderOf(a) - orderOf(b) || a.at.tenthUm - b.at.tenthUm);
  const box = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: sorted.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW,
    overscan: 8,
  });
  return (
    <PanelSection title={`${cuts.length} ${cuts.length === 1 ? 'boundary' : 'boundaries'} between blocks`}>
      {cuts.length === 0 && (
        <p className="text-ink2">
          None yet. Cut a <Term word="gap">gap</Term> where one block shall end and the next begin.
        </p>
      )}
      <div ref={box} className="max-h-56 overflow-y-auto">
        <ul style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {rows.getVirtualItems().map((row) => {
            const cut = sorted[row.index]!;
            return (
              <li key={cut.id} style={{ position: 'absolute', top: row.start, height: ROW, left: 0, right: 0 }}>
                <button
                  type="button"
                  className="flex w-full cursor-pointer justify-between rounded-sm px-1 py-0.5 text-left hover:bg-accent-tint"
                  onClick={() => store.getState().select(cut.id)}
                >
                  <span className="truncate">
                    {FEATURES[cut.kind].title}, {lines.get(cut.line)!.name}
                  </span>
                  <span className="shrink-0 pl-2">{showLength(cut.at.tenthUm, document.shownUnit)}</span>
                </button>
              </li>
            );
          })}
        </ul>
      </div>
    </PanelSection>
  );
});
