'use client';
import { Fold } from '@/ui/parts/fold';
import { LengthField } from '@/ui/parts/length-field';
import { Rename } from '@/ui/reasoning/selection-parts';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** A taped length that turns out wrong, and the name of the line. */
export function LineFields({ line }: { line: string }) {
  const document = useWorkbench((s) => s.document);
  const store = useWorkbenchStore();
  const found = document.lines.find((l) => l.id === line);
  if (!found) return null;
  return (
    <Fold title={`Correct ${found.name}`}>
      <LengthField
        label="Its length by tape"
        unit={document.shownUnit}
        scale={document.scale}
        value={found.length}
        onCommit={(length) => store.getState().edit({ do: 'change line', id: line, length })}
      />
      <Rename name={found.name} renaming={(name) => ({ do: 'rename', id: line, name })} />
    </Fold>
  );
}
