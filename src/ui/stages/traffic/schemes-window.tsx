'use client';
import { useEffect, useMemo, useState } from 'react';
import { costOf, type OwnScheme, type SchemeFigures } from '@/core/design';
import {
  type ShownUnit,
  showLength,
  showMoney,
  showNumber,
  showWire,
  TENTH_UM_PER_METRE,
  wireSoldBy,
} from '@/core/measure';
import { type LayoutDocument, PRICED, type Priced, type Prices, USUAL_PRICES } from '@/core/survey';
import { type Revision, titleOf, useRevisions, when } from '@/ui/history/use-revisions';
import { CheckBox } from '@/ui/parts/check-box';
import { CommitText } from '@/ui/parts/commit-text';
import { Fold } from '@/ui/parts/fold';
import { KeptColumn } from '@/ui/parts/kept-column';
import { Window } from '@/ui/parts/window';
import { NumberField } from '@/ui/reasoning/number-field';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { TakeOver } from './take-over';

/** More do not fit side by side. */
const MOST = 3;

/** What each scheme takes, costs and leaves open: the kept versions that are chosen, beside the layout as it is now. */
export function SchemesWindow({ onClose }: { onClose: () => void }) {
  const present = useWorkbench((s) => s.document);
  const saving = useWorkbench((s) => s.saving);
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const store = useWorkbenchStore();
  const own = useOwnSchemes(present);
  const [drawn, setDrawn] = useState<readonly OwnScheme['id'][]>([]);
  const { revisions, documents, problem, keep, goBack } = useRevisions(chosen);
  const columns: Column[] = [
    ...chosen.flatMap((number): Column[] => {
      const revision = revisions?.find((one) => one.number === number);
      const title = revision && (revision.name || titleOf(revision));
      return revision ? [{ title: title!, revision, document: documents[number] }] : [];
    }),
    ...own
      .filter(({ id }) => drawn.includes(id))
      .map((scheme): Column => ({ title: scheme.name, scheme, document: scheme.document })),
    { title: 'As it is now', document: present },
  ];
  const take = ({ edit }: OwnScheme) => {
    if (store.getState().edit(edit)) onClose();
  };
  const choose = (number: number, on: boolean) =>
    setChosen(on ? [...chosen, number].slice(-MOST) : chosen.filter((one) => one !== number));
  const goOn = async (revision: Revision) => {
    if (await goBack(revision)) onClose();
  };
  return (
    <Window
      wide
      title="Schemes compared"
      says="Each is a way to protect this layout. What comes after follows the one you go on with; the others stay in the history."
      onClose={onClose}
    >
      <div className="flex min-h-[420px] flex-1 overflow-hidden">
        <KeptColumn what="scheme" disabled={saving !== 'saved'} problem={problem} onKeep={keep}>
          <DrawnUp own={own} drawn={drawn} onChoose={(ids) => setDrawn(ids)} />
          {!revisions && !problem && <p className="px-4 py-3 text-ink2">Looking up what was kept …</p>}
          <ul className="min-h-0 flex-1 overflow-y-auto px-4 py-2" aria-label="Kept schemes">
            {revisions?.map((revision) => (
              <li key={revision.number} className="border-b border-hair py-1">
                <CheckBox checked={chosen.includes(revision.number)} onChange={(on) => choose(revision.number, on)}>
                  <span className="font-semibold">{revision.name || 'Kept at a pause'}</span>
                  <span className="block text-ink2">{when(revision.at)}</span>
                </CheckBox>
              </li>
            ))}
          </ul>
        </KeptColumn>
        <div tabIndex={0} className="min-h-0 min-w-0 flex-1 overflow-auto px-4 py-3">
          <Table
            columns={columns}
            unit={present.shownUnit}
            ready={saving === 'saved'}
            onGoOn={(revision) => void goOn(revision)}
            onTake={take}
          />
          {columns.map(
            ({ revision, document }) =>
              revision &&
              document && (
                <TakeOver key={revision.number} name={revision.name || titleOf(revision)} scheme={document} />
              ),
          )}
          <PriceList />
          <Fold title="Four questions for each">
            <ul className="list-disc pl-5">
              <li>Is it true to the prototype in spirit?</li>
              <li>Can somebody who is new be taught it in a few minutes?</li>
              <li>Can you build it and mend it yourself?</li>
              <li>Is it fun?</li>
            </ul>
          </Fold>
        </div>
      </div>
    </Window>
  );
}

/** A way to protect the layout: one that was kept, one that Roblik drew up, or as it is now. */
interface Column {
  title: string;
  revision?: Revision;
  scheme?: OwnScheme;
  document: LayoutDocument | undefined;
}

/** What Roblik draws up from the track and what was decided, as soon as it is worked out. */
function useOwnSchemes(present: LayoutDocument): readonly OwnScheme[] {
  const ask = useWorkbench((s) => s.ownSchemes);
  const [own, setOwn] = useState<{ of: LayoutDocument; schemes: readonly OwnScheme[] }>();
  useEffect(() => {
    let wanted = true;
    void ask?.().then((schemes) => wanted && setOwn({ of: present, schemes }));
    return () => {
      wanted = false;
    };
  }, [ask, present]);
  return own?.of === present ? own.schemes : NONE;
}
const NONE: readonly OwnScheme[] = [];

function DrawnUp({
  own,
  drawn,
  onChoose,
}: {
  own: readonly OwnScheme[];
  drawn: readonly OwnScheme['id'][];
  onChoose: (ids: readonly OwnScheme['id'][]) => void;
}) {
  return (
    <section aria-label="Drawn up by Roblik" className="border-b border-hair px-4 py-2">
      <p className="font-semibold">Drawn up by Roblik</p>
      {own.length === 0 && <p className="text-ink2">Working it out …</p>}
      {own.map(({ id, name, says }) => (
        <CheckBox
          key={id}
          checked={drawn.includes(id)}
          onChange={(on) => onChoose(on ? [...drawn, id] : drawn.filter((one) => one !== id))}
        >
          {name}
          <span className="block text-[0.8rem] text-ink2">{says}</span>
        </CheckBox>
      ))}
    </section>
  );
}

/** One row of the table: what it is called, and what a scheme has there. */
type Row = [says: string, of: (figures: SchemeFigures, given: Given) => string];
interface Given {
  unit: ShownUnit;
  prices: Prices;
  money: string | undefined;
}
const list = (all: readonly string[]): string => (all.length === 0 ? 'none' : all.join(', '));
const ROWS: readonly Row[] = [
  ['Signal heads', ({ heads }) => String(heads)],
  ['Detectors of sections', ({ detectors }) => String(detectors)],
  ['Spots', ({ spots }) => String(spots)],
  ['Timers, toggles and buttons', ({ tellers }) => String(tellers)],
  ['Input modules', ({ modules }) => String(modules)],
  ['Turnout motors', ({ motors }) => String(motors)],
  [
    'Contacts of motors that signals ask',
    ({ contacts, contactsMissing }) =>
      `${contacts}${contactsMissing > 0 ? `, ${contactsMissing} without a spare one` : ''}`,
  ],
  ['Resistor axles', ({ axles }) => String(axles)],
  ['Wire along the line', ({ wireM }, { unit }) => showWire(wireM * TENTH_UM_PER_METRE, unit)],
  ['Cost, about', (figures, { prices, money }) => showMoney(costOf(figures, prices).cost, money, 0)],
  [
    'Months at your budget',
    (figures, { prices }) => {
      const { months } = costOf(figures, prices);
      return Number.isFinite(months) ? showNumber(Math.ceil(months), 0) : 'no budget';
    },
  ],
  ['Track that nothing watches', ({ unwatched }, { unit }) => showLength(unwatched, unit)],
  ['Points without protection', ({ unprotected }) => list(unprotected)],
  ['Left out on purpose', ({ leftOut }) => list(leftOut.map(({ name, why }) => `${name}: ${why}`))],
  ['Not decided yet', ({ undecided }) => list(undecided)],
  [
    'To be learnt',
    ({ ways, aspects, calls }) =>
      `${ways} ${ways === 1 ? 'way' : 'ways'} of coming in, ${aspects} aspects, ${calls} ${calls === 1 ? 'person' : 'people'} to call`,
  ],
  ['Findings that are unsafe', ({ unsafe }) => String(unsafe)],
];

function Table({
  columns,
  unit,
  ready,
  onGoOn,
  onTake,
}: {
  columns: readonly Column[];
  unit: ShownUnit;
  ready: boolean;
  onGoOn: (revision: Revision) => void;
  onTake: (scheme: OwnScheme) => void;
}) {
  const prices = useWorkbench((s) => s.document.prices) ?? USUAL_PRICES;
  const money = useWorkbench((s) => s.document.money);
  const figures = useFigures(columns.map(({ document }) => document));
  return (
    <table className="w-full text-left">
      <thead>
        <tr className="border-b border-edge align-bottom">
          <th className="py-1 pr-4 font-normal text-ink3">What it takes, and what it leaves</th>
          {columns.map(({ title, revision, scheme, document }) => (
            <th key={revision?.number ?? scheme?.id ?? 'now'} className="py-1 pr-4">
              <span className="block font-semibold">{title}</span>
              {scheme && (
                <button
                  type="button"
                  className="button mt-1"
                  aria-label={`Go on with ${title}`}
                  title={scheme.says}
                  onClick={() => onTake(scheme)}
                >
                  Go on with it
                </button>
              )}
              {revision && (
                <button
                  type="button"
                  className="button mt-1"
                  disabled={!ready || !document}
                  aria-label={`Go on with ${titleOf(revision)}`}
                  onClick={() => onGoOn(revision)}
                >
                  Go on with it
                </button>
              )}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {ROWS.map(([says, of]) => {
          const cells = columns.map(({ document }) => {
            const found = document && figures.get(document);
            return found ? of(found, { unit, prices, money }) : '…';
          });
          const differ = new Set(cells).size > 1;
          return (
            <tr key={says} className="border-b border-hair align-top">
              <th className="py-1 pr-4 font-normal text-ink2">{says}</th>
              {cells.map((cell, i) => (
                <td key={i} className={`py-1 pr-4 ${differ ? 'font-semibold' : ''}`}>
                  {cell}
                </td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

/** What is computed of each document, as it comes. */
function useFigures(documents: readonly (LayoutDocument | undefined)[]): ReadonlyMap<LayoutDocument, SchemeFigures> {
  const ask = useWorkbench((s) => s.figuresOf);
  const [found, setFound] = useState<ReadonlyMap<LayoutDocument, SchemeFigures>>(new Map());
  const asked = useMemo(() => new Set<LayoutDocument>(), []);
  useEffect(() => {
    for (const document of documents) {
      if (!document || !ask || asked.has(document)) continue;
      asked.add(document);
      void ask(document).then((figures) => setFound((all) => new Map(all).set(document, figures)));
    }
  });
  return found;
}

const PRICE_OF: Record<Exclude<Priced, 'metre'>, string> = {
  head: 'A signal head',
  detector: 'A detector of a section',
  spot: 'A spot',
  module: 'An input module',
  motor: 'A turnout motor',
  axle: 'A resistor axle',
  month: 'To spend in a month',
};

/** What things cost, in whatever money. */
function PriceList() {
  const store = useWorkbenchStore();
  const own = useWorkbench((s) => s.document.prices);
  const money = useWorkbench((s) => s.document.money);
  const unit = useWorkbench((s) => s.document.shownUnit);
  const wire = wireSoldBy(unit);
  const prices = own ?? USUAL_PRICES;
  return (
    <Fold title="Prices">
      <div className="grid max-w-[720px] grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-2">
        <CommitText
          label="You pay in"
          value={money ?? ''}
          onCommit={(said) => store.getState().attempt({ do: 'pay in', money: said || undefined })}
        />
        {PRICED.map((what) => {
          /** A metre of wire is kept; where it is sold by the foot, that is priced. */
          const share = what === 'metre' ? wire.ofMetre : 1;
          return (
            <NumberField
              key={`${what} ${prices[what]} ${unit}`}
              label={what === 'metre' ? `A ${wire.one} of wire` : PRICE_OF[what]}
              value={prices[what] * share}
              least={0}
              most={100_000}
              unit={money ?? 'money'}
              digits={2}
              onCommit={(price) => store.getState().edit({ do: 'price', prices: { ...prices, [what]: price / share } })}
            />
          );
        })}
      </div>
      <p className="mt-1 text-ink3">
        {own ? 'As you have said, for every scheme.' : 'Only examples: put in what you pay.'}
      </p>
    </Fold>
  );
}
