'use client';
import { useState } from 'react';
import type { TypedLength } from '@/core/measure';
import { deletionOf, type Edit, type Facing, type Line } from '@/core/survey';
import { AskFirst } from '@/ui/parts/ask-first';
import { Choice } from '@/ui/parts/choice';
import { Fold } from '@/ui/parts/fold';
import { LengthField } from '@/ui/parts/length-field';
import { Rename } from '@/ui/reasoning/selection-parts';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** A taped length that turns out wrong, and the name of the line. */
export function LineFields({ line }: { line: string }) {
  const store = useWorkbenchStore();
  const unit = useWorkbench((s) => s.document.shownUnit);
  const scale = useWorkbench((s) => s.document.scale);
  const found = useWorkbench((s) => s.document.lines.find((l) => l.id === line));
  if (!found) return null;
  return (
    <Fold title={`Correct ${found.name}`}>
      <LengthField
        label="Its length by tape"
        unit={unit}
        scale={scale}
        value={found.length}
        onCommit={(length) => store.getState().edit({ do: 'change line', id: line, length })}
      />
      <Rename name={found.name} renaming={(name) => ({ do: 'rename', id: line, name })} />
      <Running line={found} />
      <SplitLine line={found} />
      <div className="mt-3">
        <DeleteLine id={line} name={found.name} />
      </div>
    </Fold>
  );
}

/** The direction of running, if trains run the line one way only. */
function Running({ line }: { line: Line }) {
  const store = useWorkbenchStore();
  const { up, down } = useWorkbench((s) => s.document.directions);
  return (
    <div className="mt-3">
      <Choice
        label="Trains run it"
        options={[
          { value: 'both', says: 'both ways' },
          { value: 'up', says: `${up} only, towards larger distances` },
          { value: 'down', says: `${down} only, towards smaller distances` },
        ]}
        value={line.running ?? 'both'}
        onChange={(way) =>
          store.getState().edit({ do: 'run line', id: line.id, running: way === 'both' ? undefined : (way as Facing) })
        }
      />
      <p className="text-ink3">
        One way only: no signal lets a train onto it the other way, and none turns back there.
      </p>
    </div>
  );
}

/** A line becomes two, or takes up the one that goes on from its end. */
function SplitLine({ line }: { line: Line }) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [at, setAt] = useState<TypedLength | null>(null);
  const [problem, setProblem] = useState<string>();
  const attempt = (edit: Edit) => setProblem(store.getState().attempt(edit));
  const onward = document.joins.find(
    ({ a, b }) =>
      [a, b].some((one) => one.line === line.id && one.end === 'end') &&
      [a, b].some((one) => one.line !== line.id && one.end === 'start'),
  );
  const next = onward && [onward.a, onward.b].find((one) => one.line !== line.id)!.line;
  return (
    <>
      <div className="mt-3 flex items-end gap-2">
        <LengthField
          label="Two lines of it, split at"
          unit={document.shownUnit}
          scale={document.scale}
          value={at}
          problem={problem}
          onChange={setAt}
        />
        <button
          type="button"
          className="button mb-6"
          disabled={!at}
          onClick={() => at && attempt({ do: 'split line', id: line.id, at })}
        >
          Split it
        </button>
      </div>
      {onward && (
        <button type="button" className="button" onClick={() => attempt({ do: 'merge lines', join: onward.id })}>
          One line with {document.lines.find(({ id }) => id === next)?.name}
        </button>
      )}
    </>
  );
}

/** Named before it goes; more than these are counted. */
const MOST_NAMED = 12;

/** A line goes with all that stands on it: what that is is said first. */
function DeleteLine({ id, name }: { id: string; name: string }) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const { goes, kept } = deletionOf(document, id);
  if (kept !== undefined) return <p className="text-ink2">It cannot be deleted. {kept}</p>;
  const [, ...others] = goes;
  return (
    <AskFirst
      button={`Delete ${name} …`}
      title={`Delete ${name}?`}
      yes="Delete it all"
      no="Keep it"
      onYes={() => store.getState().edit({ do: 'delete', id })}
    >
      <p>
        {others.length === 0
          ? 'Nothing stands on it.'
          : `With it ${others.length === 1 ? 'goes' : 'go'} ${others.slice(0, MOST_NAMED).join(', ')}${others.length > MOST_NAMED ? `, and ${others.length - MOST_NAMED} more` : ''}.`}
      </p>
      <p className="mt-2 text-ink2">Ctrl+Z brings all of it back.</p>
    </AskFirst>
  );
}
