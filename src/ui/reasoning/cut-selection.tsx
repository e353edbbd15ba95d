'use client';
import { STEPS, showLength } from '@/core/measure';
import type { Gap, Mark } from '@/core/survey';
import { Caution } from '@/ui/parts/caution';
import { Choice } from '@/ui/parts/choice';
import { LengthField } from '@/ui/parts/length-field';
import { Term } from '@/ui/parts/term';
import { useWorkbench } from '@/ui/state/store';
import { PanelTitle } from './panel';
import { Certainty, DeleteButton, useEdit } from './selection-parts';

const RAILS = [
  { value: 'left', says: 'the left one' },
  { value: 'right', says: 'the right one' },
  { value: 'both', says: 'both, where districts or a reversing section meet' },
] as const;

export function CutSelection({ cut }: { cut: Gap | Mark }) {
  const document = useWorkbench((s) => s.document);
  const design = useWorkbench((s) => s.design);
  const edit = useEdit();
  const shown = (step: keyof typeof STEPS.cm) => showLength(STEPS[document.shownUnit][step], document.shownUnit);
  const line = document.lines.find((l) => l.id === cut.line);
  const beside =
    design?.blocks.filter((b) =>
      b.pieces.some((p) => p.line === cut.line && (p.from === cut.at.tenthUm || p.to === cut.at.tenthUm)),
    ) ?? [];
  return (
    <>
      <PanelTitle>
        {cut.kind === 'gap' ? <Term word="gap">Gap</Term> : <Term word="mark">Block mark</Term>} at{' '}
        {showLength(cut.at.tenthUm, document.shownUnit)}
      </PanelTitle>
      <p className="text-ink2">
        on {line?.name}
        {beside.length === 2
          ? `, between ${beside.map((b) => `${b.name} (${showLength(b.length, document.shownUnit)})`).join(' and ')}`
          : ''}
      </p>
      <div className="mt-3">
        <LengthField
          label={`Distance from the start of ${line?.name}`}
          unit={document.shownUnit}
          scale={document.scale}
          value={cut.at}
          onCommit={(at) => edit({ do: 'move', id: cut.id, at })}
        />
      </div>
      <p className="text-ink3">
        Or drag it, or use the arrow keys: {shown('arrow')}; with Shift {shown('coarse')}, with Alt {shown('fine')}.
        Signals at it move along.
      </p>
      {cut.kind === 'gap' && (
        <Choice
          label="Which rail is cut, looking to larger distances"
          className="mt-3"
          value={cut.rail}
          options={RAILS}
          onChange={(rail) => edit({ do: 'change features', ids: [cut.id], change: { rail } })}
        />
      )}
      {cut.kind === 'gap' && <Caution work="cutting" />}
      <Certainty id={cut.id} certainty={cut.certainty} />
      <DeleteButton id={cut.id} what={cut.kind === 'gap' ? 'the gap' : 'the block mark'} />
    </>
  );
}
