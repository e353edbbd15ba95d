'use client';
import type { ComponentProps, ReactNode } from 'react';
import { CheckBox } from '@/ui/parts/check-box';
import { SheetBar } from '@/ui/parts/sheet-bar';
import { MeasurePanel } from '@/ui/reasoning/measure-panel';
import { Panel } from '@/ui/reasoning/panel';
import { Selection, subjectOf } from '@/ui/reasoning/selection';
import { COVERAGE, ROOM } from '@/ui/sheet/lanes';
import { LineSheet } from '@/ui/sheet/line-sheet';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import type { Layers } from '@/ui/state/view';

export const DESIGN_LANES = [COVERAGE, ROOM];

const LAYERS: [keyof Layers, string][] = [
  ['detectors', 'Detectors'],
  ['signals', 'Signals'],
  ['lengths', 'Lengths'],
];

/** The sheet with its layers, and beside it what is selected, or what the stage has to say while nothing is. */
export function DesignStage({
  onTurnout,
  letters,
  foot,
  lanes = DESIGN_LANES,
  children,
}: {
  onTurnout?: (id: string) => void;
  /** What single letters do on the sheet. */
  letters?: ComponentProps<typeof LineSheet>['letters'];
  lanes?: ComponentProps<typeof LineSheet>['lanes'];
  /** What stands under the sheet. */
  foot?: ReactNode;
  children: ReactNode;
}) {
  const store = useWorkbenchStore();
  const layers = useWorkbench((s) => s.layers);
  const selected = useWorkbench((s) => s.selected);
  const measured = useWorkbench((s) => s.measured);
  const left = useWorkbench((s) => s.left);
  const chosen = useWorkbench((s) => s.also.length + 1);
  const subject = useWorkbench((s) => subjectOf(s.document, s.design?.blocks, s.selected));
  return (
    <>
      <main className="flex min-h-0 min-w-0 flex-1 flex-col overflow-hidden">
        <SheetBar title="Line sheet">
          {LAYERS.map(([layer, label]) => (
            <CheckBox
              key={layer}
              checked={layers[layer]}
              onChange={(on) => store.getState().set({ layers: { ...layers, [layer]: on } })}
            >
              {label}
            </CheckBox>
          ))}
        </SheetBar>
        <LineSheet lanes={lanes} onTurnout={onTurnout} letters={letters} />
        {foot}
      </main>
      {subject === undefined ? (
        children
      ) : (
        <Panel
          title={measured ? 'Between two things' : 'Reasoning'}
          subject={measured ? undefined : chosen > 1 ? `${chosen} things` : subject}
          onClose={() => store.getState().select(undefined)}
        >
          {selected && measured ? (
            <MeasurePanel from={selected} to={measured} />
          ) : (
            <Selection key={`${selected} ${left}`} />
          )}
        </Panel>
      )}
    </>
  );
}
