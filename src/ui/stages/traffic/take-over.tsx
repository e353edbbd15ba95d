'use client';
import { useMemo, useState } from 'react';
import { compareDocuments, type LayoutDocument, mergeDocuments, readDocument } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { Fold } from '@/ui/parts/fold';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** Single things of another scheme, taken into this one as one step. */
export function TakeOver({ name, scheme }: { name: string; scheme: LayoutDocument }) {
  const store = useWorkbenchStore();
  const present = useWorkbench((s) => s.document);
  const differences = useMemo(() => compareDocuments(present, scheme), [present, scheme]);
  const [taken, setTaken] = useState<ReadonlySet<string>>(new Set());
  const [problem, setProblem] = useState<string>();
  const chosen = differences.filter(({ key }) => taken.has(key));
  const choose = (key: string, on: boolean) => {
    const next = new Set(taken);
    if (on) next.add(key);
    else next.delete(key);
    setTaken(next);
    setProblem(undefined);
  };
  const take = () => {
    const reading = readDocument(mergeDocuments(scheme, present, new Set(chosen.map(({ key }) => key))));
    if (!reading.ok) return setProblem(`These do not fit together: ${reading.faults[0]!.problem} Choose otherwise.`);
    store
      .getState()
      .replace(
        reading.document,
        `Take over ${chosen.length === 1 ? 'a thing' : `${chosen.length} things`} from ${name}`,
      );
    setTaken(new Set());
  };
  if (differences.length === 0) return null;
  return (
    <Fold title={`Take over single things from ${name}`}>
      <ul className="max-h-64 overflow-y-auto" aria-label={`What ${name} has otherwise`}>
        {differences.map(({ key, says }) => (
          <li key={key} className="border-b border-hair">
            <CheckBox checked={taken.has(key)} onChange={(on) => choose(key, on)}>
              {says}
            </CheckBox>
          </li>
        ))}
      </ul>
      {problem && (
        <p role="alert" className="text-fail">
          {problem}
        </p>
      )}
      <button type="button" className="button mt-2" disabled={chosen.length === 0} onClick={take}>
        {chosen.length === 0 ? 'Take over what is chosen' : `Take over ${chosen.length} of ${differences.length}`}
      </button>
    </Fold>
  );
}
