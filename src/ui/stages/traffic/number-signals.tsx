'use client';
import { useMemo, useState } from 'react';
import { type Numbering, numberSignals, numberTracks } from '@/core/design';
import { straighten } from '@/core/track';
import { Fold } from '@/ui/parts/fold';
import { RadioList } from '@/ui/parts/one-of';
import { NumberField } from '@/ui/reasoning/number-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { SelectThing } from '@/ui/reasoning/select-thing';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

type What = 'signals' | 'tracks';
const WHAT: { value: What; says: string }[] = [
  { value: 'signals', says: 'signals' },
  { value: 'tracks', says: 'tracks' },
];

/** Signals called by place and track, or tracks by number, shown before it is done. */
export function NumberSignals() {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const [way, setWay] = useState<Numbering>({ firstTrack: 1, from: 'back', firstPlace: 1 });
  const [what, setWhat] = useState<What>('signals');
  const [problem, setProblem] = useState<string>();
  const numbers = useMemo(
    () => (what === 'signals' ? numberSignals : numberTracks)(document, straighten(document), way),
    [document, way, what],
  );
  const other = numbers.filter(({ before, after }) => before !== after);
  const number = () =>
    setProblem(
      store.getState().attempt({
        do: `number ${what}` as const,
        names: Object.fromEntries(numbers.map(({ id, after }) => [id, after])),
      }),
    );
  return (
    <PanelSection title="Numbers of tracks and signals">
      <p className="text-ink2">
        Signals by place and track, with an arrow for the direction in which it is read: 4.2→ stands at place 4 on track
        2.
      </p>
      <Fold title="Number them">
        <RadioList inline label="What is numbered" value={what} options={WHAT} onChange={setWhat} />
        <div className="mt-2 grid grid-cols-2 gap-2">
          <NumberField
            key={`place ${way.firstPlace}`}
            label="First place"
            value={way.firstPlace}
            least={0}
            most={900}
            unit="places"
            digits={0}
            onCommit={(firstPlace) => setWay({ ...way, firstPlace: Math.round(firstPlace) })}
          />
          <NumberField
            key={`track ${way.firstTrack}`}
            label="First track"
            value={way.firstTrack}
            least={0}
            most={900}
            unit="tracks"
            digits={0}
            onCommit={(firstTrack) => setWay({ ...way, firstTrack: Math.round(firstTrack) })}
          />
        </div>
        <div className="mt-2">
          <RadioList
            inline
            label="Tracks are counted"
            value={way.from}
            options={[
              { value: 'back', says: 'from the back' },
              { value: 'front', says: 'from the front' },
            ]}
            onChange={(from) => setWay({ ...way, from })}
          />
        </div>
        <table className="mt-2 w-full text-left">
          <thead>
            <tr className="text-ink3">
              <th className="font-normal">Now</th>
              <th className="font-normal">Then</th>
            </tr>
          </thead>
          <tbody>
            {other.map(({ id, before, after }) => (
              <tr key={id} className="border-t border-hair">
                <td>
                  <SelectThing id={id}>{before}</SelectThing>
                </td>
                <td>{after}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {problem && (
          <p role="alert" className="mt-1 text-fail">
            {problem}
          </p>
        )}
        {what === 'signals' && document.areas.length === 0 ? (
          <p className="mt-1 text-ink2">Say first which areas there are: they are the places.</p>
        ) : other.length === 0 ? (
          <p className="mt-1 text-ink2">They are called so already.</p>
        ) : (
          <button type="button" className="button button-main mt-2" onClick={number}>
            Number {other.length === 1 ? 'it' : `these ${other.length}`}
          </button>
        )}
      </Fold>
    </PanelSection>
  );
}
