'use client';
import { useEffect, useState } from 'react';
import { type BestAxles, consistOf, type SeeEverywhere, unseenOf } from '@/core/detection';
import { fromMm, showLength, showMoney } from '@/core/measure';
import { type LayoutDocument, type Train, USUAL_PRICES } from '@/core/survey';
import { Caution } from '@/ui/parts/caution';
import { Fold } from '@/ui/parts/fold';
import { Term } from '@/ui/parts/term';
import { NumberField } from '@/ui/reasoning/number-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { TrainStrip } from '@/ui/reasoning/train-strip';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

/** The fewest resistor axles with which every train is seen wherever it matters; fitted by one click. */
export function SeenEverywhere() {
  const store = useWorkbenchStore();
  const design = useWorkbench((s) => s.design);
  const ask = useWorkbench((s) => s.seeEverywhere);
  const [found, setFound] = useState<SeeEverywhere & { of: LayoutDocument }>();
  useEffect(() => {
    if (!design || !ask) return;
    let late = false;
    void ask().then((answer) => {
      if (!late) setFound({ ...answer, of: design.document });
    });
    return () => {
      late = true;
    };
  }, [design, ask]);
  if (!design || found?.of !== design.document) return <p className="text-ink2">Looking at every train …</p>;
  const { document } = design;
  if (document.trains.length === 0)
    return (
      <PanelSection title="Every train seen">
        <p className="text-ink2">There is no train yet. Survey holds the roster that trains are made of.</p>
      </PanelSection>
    );
  return (
    <>
      <PanelSection title="Every train seen">
        <Answer document={document} found={found} />
        {found.places.length > 0 && (
          <>
            <button
              type="button"
              className="button button-main mt-2"
              onClick={() => store.getState().edit({ do: 'fit axles', places: found.places })}
            >
              {found.places.length === 1 ? 'Fit it' : `Fit these ${found.places.length}`}
            </button>
            <Caution work="wiring" />
          </>
        )}
        {found.places.length > 1 && (
          <WithFewer key={found.places.length} document={document} all={found.places.length} />
        )}
        <Why document={document} found={found} />
      </PanelSection>
      <PanelSection title="What is seen of each">
        {document.trains.map((train) => (
          <div key={train.id} className="mb-3">
            <button
              type="button"
              className="cursor-pointer rounded-sm text-left font-medium hover:bg-accent-tint"
              onClick={() => store.getState().select(train.id)}
            >
              {train.name}
            </button>
            <TrainStrip document={document} train={train} />
          </div>
        ))}
      </PanelSection>
    </>
  );
}

/** The answer in a sentence, then where each axle goes; trains that nothing helps are named. */
function Answer({ document, found: { places, hopeless } }: { document: LayoutDocument; found: SeeEverywhere }) {
  const { axle } = document.prices ?? USUAL_PRICES;
  const vehicles = [...new Set(places.map(({ vehicle }) => vehicle))].map((id) => ({
    id,
    name: document.vehicles.find((one) => one.id === id)!.name,
    own: places.filter(({ vehicle }) => vehicle === id),
    /** Trains in which it has several places tell these apart. */
    several: document.trains.some(({ vehicles }) => vehicles.indexOf(id) !== vehicles.lastIndexOf(id)),
  }));
  const lost = document.trains.filter(({ id }) => hopeless.includes(id)).map(({ name }) => name);
  const whole = lost.length === 0 ? 'Every train' : 'Every other train';
  return (
    <>
      <p>
        {places.length === 0 ? (
          <strong>{whole} is seen wherever it matters, as it is.</strong>
        ) : (
          <strong>
            {whole} is seen wherever it matters with {places.length} more{' '}
            <Term word="resistor">{places.length === 1 ? 'resistor axle' : 'resistor axles'}</Term>; fewer will not do.
          </strong>
        )}
      </p>
      {places.length > 0 && (
        <p className="text-ink2">
          {places.length === 1 ? 'It costs' : 'They cost'} about {showMoney(places.length * axle, document.money)}
          {places.length > 1 && `, ${showMoney(axle, document.money)} each`}, by the price list of Traffic.
        </p>
      )}
      {lost.length > 0 && (
        <p className="mt-1 text-fail">
          {lost.join(', ')}: no resistor axle makes {lost.length === 1 ? 'it' : 'them'} seen enough, for wheels that
          take none or axles that are not entered. Free the blocks behind by arrival instead: a spot that notices any
          vehicle.
        </p>
      )}
      <ul className="mt-1">
        {vehicles.map(({ id, name, own, several }) => (
          <li key={id} className="border-b border-hair py-1">
            {name}
            <span className="text-ink3">
              {': '}
              {own.map(({ nth, axle }) => `${several ? `${ordinal(nth)} of them, ` : ''}axle ${axle + 1}`).join('; ')}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What is still unseen with fewer axles than all need. */
function WithFewer({ document, all }: { document: LayoutDocument; all: number }) {
  const store = useWorkbenchStore();
  const ask = useWorkbench((s) => s.seeWith);
  const { axle } = document.prices ?? USUAL_PRICES;
  const [count, setCount] = useState(all - 1);
  const [found, setFound] = useState<BestAxles & { of: LayoutDocument }>();
  useEffect(() => {
    let late = false;
    void ask?.(count).then((answer) => {
      if (!late) setFound({ ...answer, of: document });
    });
    return () => {
      late = true;
    };
  }, [ask, count, document]);
  const unseen = document.trains.filter(({ id }) => found?.unseen.includes(id));
  const blind = (train: Train) => {
    const { all: nothing, blindMm } = unseenOf(document, consistOf(document, train));
    return nothing ? 'all of it' : `now ${showLength(fromMm(blindMm), document.shownUnit)} in one piece`;
  };
  return (
    <Fold title="With fewer axles">
      <NumberField
        label="Axles at most"
        value={count}
        least={0}
        most={all}
        unit="axles"
        digits={0}
        onCommit={(next) => setCount(Math.round(next))}
      />
      {found?.of === document && (
        <>
          <p className="mt-1">
            {found.places.length === 0
              ? 'So few make no train seen enough.'
              : `${found.places.length} of them, for about ${showMoney(found.places.length * axle, document.money)}, make ${document.trains.length - unseen.length} of ${document.trains.length} trains seen wherever it matters${found.certain ? '; no other choice does more.' : '. There are too many choices to look at all of them.'}`}
          </p>
          <ul>
            {unseen.map((train) => (
              <li key={train.id} className="border-b border-hair py-1">
                Still not: {train.name}
                <span className="text-ink3">, {blind(train)}</span>
              </li>
            ))}
          </ul>
          {found.places.length > 0 && (
            <button
              type="button"
              className="button mt-2"
              onClick={() => store.getState().edit({ do: 'fit axles', places: found.places })}
            >
              Fit only these {found.places.length}
            </button>
          )}
        </>
      )}
    </Fold>
  );
}

const ordinal = (nth: number): string =>
  nth === 0 ? 'the first' : nth === 1 ? 'the second' : nth === 2 ? 'the third' : `number ${nth + 1}`;

/** What bounds the stretches that may be unseen, and how far each train is from it. */
function Why({ document, found: { limits } }: { document: LayoutDocument; found: SeeEverywhere }) {
  const store = useWorkbenchStore();
  const says = (length: number) => showLength(length, document.shownUnit);
  const bound = (by: { says: string; id: string } | undefined, otherwise: string) =>
    by ? (
      <button
        type="button"
        className="cursor-pointer rounded-sm text-accent underline hover:bg-accent-tint"
        onClick={() => store.getState().select(by.id)}
      >
        {by.says}
      </button>
    ) : (
      otherwise
    );
  return (
    <Fold title="Why">
      {limits.blindBy && (
        <p>
          At most {says(limits.blind)} in one piece may be unseen: {bound(limits.blindBy, '')} is no longer, and would
          read free around it.
        </p>
      )}
      <p>
        At most {says(limits.tail)} behind the last axle that is seen:{' '}
        {bound(limits.tailBy, 'that is how far before a signal the next driver stops')}.
      </p>
      <table className="mt-1 w-full text-left">
        <thead>
          <tr className="text-ink3">
            <th className="font-normal">Train</th>
            <th className="font-normal">longest unseen</th>
            <th className="font-normal">tail</th>
          </tr>
        </thead>
        <tbody>
          {document.trains.map((train) => {
            const { blindMm, tailMm } = unseenOf(document, consistOf(document, train));
            const cell = (mm: number, most: number) => (
              <td className={fromMm(mm) > most ? 'font-semibold text-fail' : ''}>{says(fromMm(mm))}</td>
            );
            return (
              <tr key={train.id} className="border-t border-hair">
                <td>{train.name}</td>
                {cell(blindMm, limits.blind)}
                {cell(tailMm, limits.tail)}
              </tr>
            );
          })}
        </tbody>
      </table>
    </Fold>
  );
}
