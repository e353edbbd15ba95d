'use client';
import { useEffect, useState } from 'react';
import { type ProposedSignal, placeProposed, type SignalProposal } from '@/core/design';
import { showLength } from '@/core/measure';
import type { LayoutDocument } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { Fold } from '@/ui/parts/fold';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

const count = (n: number) => `${n} ${n === 1 ? 'signal' : 'signals'}`;

/** Where signals could be placed, each with what it is for and what nothing would protect without it. */
export function ProposedSignals() {
  const store = useWorkbenchStore();
  const design = useWorkbench((s) => s.design);
  const propose = useWorkbench((s) => s.proposeSignals);
  const [found, setFound] = useState<SignalProposal & { of: LayoutDocument }>();
  const [fewest, setFewest] = useState(false);
  useEffect(() => {
    if (!design || !propose) return;
    let late = false;
    void propose().then((proposal) => {
      if (!late) setFound({ ...proposal, of: design.document });
    });
    return () => {
      late = true;
    };
  }, [design, propose]);
  useEffect(() => () => store.getState().set({ pointed: undefined }), [store]);
  if (!design || found?.of !== design.document) return null;
  const { document } = design;
  const { standing, leftOut, oneWay } = found;
  const needed = found.signals.filter((one) => one.needed);
  const signals = fewest ? needed : found.signals;
  const place = (some: readonly ProposedSignal[]) => store.getState().edit(placeProposed(some));
  return (
    <PanelSection title="Signals to place">
      {found.signals.length === 0 ? (
        <p className="text-ink2">
          {standing > 0
            ? `Every boundary at which trains can wait has its signal: ${standing} in all.`
            : 'There is no boundary at which a signal would stand: divide the track into blocks first.'}
        </p>
      ) : (
        <>
          <p role="status">
            <strong>{count(found.signals.length)}</strong> would protect every boundary at which trains can wait
            {oneWay ? ', for trains that run on the way they stand now' : ''}
            {standing > 0 ? `, beside ${standing} that stand` : ''}; the fewest that protect what is to be protected are{' '}
            <strong>{needed.length}</strong>.
          </p>
          <div className="mt-2 flex flex-wrap items-center gap-3">
            <button
              type="button"
              className="button button-main"
              disabled={signals.length === 0}
              onClick={() => place(signals)}
            >
              {signals.length === 1 ? 'Place it' : `Place these ${signals.length}`}
            </button>
            <CheckBox checked={fewest} onChange={setFewest}>
              only the fewest
            </CheckBox>
          </div>
          <ul className="mt-2 max-h-72 overflow-y-auto" aria-label="Proposed signals">
            {signals.map((one) => (
              <Row
                key={`${one.line} ${one.at} ${one.governs}`}
                document={document}
                one={one}
                onPlace={() => place([one])}
                onPoint={(on) => store.getState().set({ pointed: on ? { line: one.line, at: one.at } : undefined })}
              />
            ))}
          </ul>
        </>
      )}
      {leftOut.length > 0 && (
        <p className="mt-1 text-ink2">Left out, as was decided in Traffic: the way into {leftOut.join(', ')}.</p>
      )}
    </PanelSection>
  );
}

function Row({
  document,
  one,
  onPlace,
  onPoint,
}: {
  document: LayoutDocument;
  one: ProposedSignal;
  onPlace: () => void;
  onPoint: (on: boolean) => void;
}) {
  const where = `${showLength(one.at, document.shownUnit)} on ${document.lines.find(({ id }) => id === one.line)?.name}`;
  return (
    <li
      className="border-b border-hair py-1"
      onPointerEnter={() => onPoint(true)}
      onPointerLeave={() => onPoint(false)}
      onFocus={() => onPoint(true)}
      onBlur={() => onPoint(false)}
    >
      <div className="flex items-center justify-between gap-2">
        <span className="font-semibold">
          {where}, read {document.directions[one.governs]}
        </span>
        <button
          type="button"
          className="button px-2 py-0"
          aria-label={`Place a signal at ${where}, read ${document.directions[one.governs]}`}
          onClick={onPlace}
        >
          Place
        </button>
      </div>
      {one.says}
      <Fold
        title={
          <span className="font-normal text-ink2">{one.needed ? 'needed: why' : 'could be done without: why'}</span>
        }
      >
        <p className="text-ink2">Without it: {one.without}</p>
        <p className="text-ink2">{one.systemSays}</p>
      </Fold>
    </li>
  );
}
