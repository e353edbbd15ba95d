'use client';
import { useEffect, useState } from 'react';
import {
  type CutReason,
  type DivideWishes,
  divideEdit,
  type GivenUp,
  openAreas,
  type ProposedCut,
  type Suggestion,
  usualWishes,
} from '@/core/divide';
import { showLength } from '@/core/measure';
import { asTyped, type LayoutDocument } from '@/core/survey';
import { CheckBox } from '@/ui/parts/check-box';
import { Fold } from '@/ui/parts/fold';
import { LengthField } from '@/ui/parts/length-field';
import { RadioList } from '@/ui/parts/one-of';
import { Term } from '@/ui/parts/term';
import { NumberField } from '@/ui/reasoning/number-field';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { ComparePoints } from './compare-points';

const MOST_TRAINS = 99;

/** Where to cut the track: the fewest gaps with which every train can move, each with its reason; cut one by one or all at once. */
export function DivideTrack() {
  const store = useWorkbenchStore();
  const design = useWorkbench((s) => s.design);
  const changed = useWorkbench((s) => s.wishes);
  const suggest = useWorkbench((s) => s.suggest);
  const [found, setFound] = useState<Suggestion & { of: LayoutDocument; wishes: DivideWishes }>();
  const [detectors, setDetectors] = useState(true);
  useEffect(() => {
    if (!design || !suggest) return;
    let late = false;
    const { document } = design;
    const wishes = { ...usualWishes(document), ...changed };
    void suggest(wishes).then((answer) => {
      if (late) return;
      setFound({ ...answer, of: document, wishes });
      store.getState().set({ proposed: answer.cuts });
    });
    return () => {
      late = true;
    };
  }, [store, design, suggest, changed]);
  useEffect(() => () => store.getState().set({ proposed: undefined, pointed: undefined }), [store]);
  if (!design || found?.of !== design.document) return <p className="text-ink2">Looking at every way round …</p>;
  const { document } = design;
  const { cuts, wishes } = found;
  const wish = (more: Partial<DivideWishes>) => store.getState().set({ wishes: { ...changed, ...more } });
  const letGo = (some: readonly ProposedCut[]) =>
    wish({ held: wishes.held?.filter(({ line, at }) => !some.some((one) => one.line === line && one.at === at)) });
  const cut = (some: readonly ProposedCut[]) => {
    store
      .getState()
      .edit(divideEdit(document, { ...found, cuts: [...some] }, detectors && some.length === cuts.length));
    letGo(some);
  };
  const says = (length: number) => showLength(length, document.shownUnit);
  return (
    <PanelSection title="Divide the track">
      <Wishes document={document} wishes={wishes} onWish={wish} />
      <p className="mt-2" role="status">
        {found.impossible ? (
          <strong className="text-fail">There is no such division.</strong>
        ) : cuts.length === 0 ? (
          <strong>It is divided as you wish: {count(found.places, 'place')} for the longest train.</strong>
        ) : (
          <strong>
            {count(cuts.length, 'more gap')} will do: what points ask for, and the fewest that give every way round a
            place to spare. Then there are {count(found.places, 'place')} for the longest train.
          </strong>
        )}
        {!found.complete &&
          ' There are more ways round than could be looked at; not all of them may have a place free.'}
      </p>
      {found.impossible && <NoDivision document={document} found={found} onWish={wish} />}
      {cuts.length > 0 && !found.impossible && (
        <>
          <div className="mt-2 flex flex-wrap items-center gap-3">
            <button type="button" className="button button-main" onClick={() => cut(cuts)}>
              {cuts.length === 1 ? 'Place it' : `Place these ${cuts.length}`}
            </button>
            <CheckBox checked={detectors} onChange={setDetectors}>
              with a detector for each new section
            </CheckBox>
          </div>
          <ul className="mt-2 max-h-64 overflow-y-auto" aria-label="Suggested gaps">
            {cuts.map((one) => (
              <CutRow
                key={`${one.line} ${one.at}`}
                document={document}
                cut={one}
                onPlace={() => cut([one])}
                onLetGo={one.reason.kind === 'held' ? () => letGo([one]) : undefined}
                onPoint={(on) => store.getState().set({ pointed: on ? { line: one.line, at: one.at } : undefined })}
              />
            ))}
          </ul>
          <p className="mt-1 text-ink3">
            Drag one on the sheet, or move it by the arrow keys, and the others follow. Placed, they are tentative. Gaps
            that are fixed never move.
          </p>
        </>
      )}
      {found.short.length > 0 && (
        <Fold title={`${found.short.length} too short for the longest train`}>
          <ul>
            {found.short.map((one) => (
              <li key={`${one.line} ${one.from}`}>
                {nameOf(document, one.line)}, {says(one.from)} to {says(one.to)}: {says(one.to - one.from)}
              </li>
            ))}
          </ul>
        </Fold>
      )}
    </PanelSection>
  );
}

const count = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;
const nameOf = ({ lines }: LayoutDocument, line: string) => lines.find(({ id }) => id === line)?.name ?? '';

/** What the division is asked to do; each wish begins with what the trains of the layout ask for. */
function Wishes({
  document,
  wishes,
  onWish,
}: {
  document: LayoutDocument;
  wishes: DivideWishes;
  onWish: (more: Partial<DivideWishes>) => void;
}) {
  const store = useWorkbenchStore();
  const usual = usualWishes(document);
  const unit = document.shownUnit;
  return (
    <div className="flex flex-col gap-2">
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          key={wishes.trains}
          label="Trains at once"
          value={wishes.trains}
          least={0}
          most={MOST_TRAINS}
          unit="trains"
          digits={0}
          onCommit={(trains) => onWish({ trains: Math.round(trains) })}
        />
        <LengthField
          label="Longest train"
          unit={unit}
          scale={document.scale}
          value={asTyped(wishes.longest, unit)}
          problem={wishes.longest === 0 ? 'A train has some length.' : undefined}
          onCommit={({ tenthUm }) =>
            tenthUm > 0 && onWish({ longest: tenthUm, shortest: Math.min(tenthUm, usual.shortest) })
          }
        />
      </div>
      {document.turnouts.length + document.crossings.length > 0 && (
        <div>
          <p className="text-ink2">
            <Term word="turnout">Points</Term>
          </p>
          <RadioList
            label="Points"
            value={wishes.points}
            options={[
              { value: 'routes', says: 'have a section of their own' },
              { value: 'blocks', says: 'are part of the block before their blades' },
            ]}
            onChange={(turnoutsIn) => store.getState().edit({ do: 'turnouts in', turnoutsIn })}
          />
          <ComparePoints document={document} wishes={wishes} />
        </div>
      )}
      <div>
        {usual.stopping > 0 && (
          <CheckBox checked={wishes.stopping > 0} onChange={(on) => onWish({ stopping: on ? usual.stopping : 0 })}>
            blocks cut for places also hold {showLength(usual.stopping, unit)} to stop in
          </CheckBox>
        )}
        {document.features.some(({ kind }) => kind === 'platform') && (
          <CheckBox checked={wishes.wholePlatforms} onChange={(wholePlatforms) => onWish({ wholePlatforms })}>
            no gap along a platform
          </CheckBox>
        )}
        {openAreas(document, { ...wishes, wholeAreas: true }).length > 0 && (
          <CheckBox checked={wishes.wholeAreas} onChange={(wholeAreas) => onWish({ wholeAreas })}>
            areas without signals stay whole, with the track reached only through them
          </CheckBox>
        )}
        <CheckBox checked={wishes.keep === 'all'} onChange={(on) => onWish({ keep: on ? 'all' : 'fixed' })}>
          keep tentative gaps, too
        </CheckBox>
      </div>
    </div>
  );
}

/** Why there is none, and which wish can be given up instead: one click does it. */
function NoDivision({
  document,
  found,
  onWish,
}: {
  document: LayoutDocument;
  found: Suggestion & { wishes: DivideWishes };
  onWish: (more: Partial<DivideWishes>) => void;
}) {
  const { lines, places, giveUp } = found.impossible!;
  const { trains } = found.wishes;
  const says = (one: GivenUp): string => {
    if (one.stopping !== undefined) return 'Give up the room to stop';
    if (one.wholePlatforms !== undefined) return 'Let gaps lie along platforms';
    if (one.wholeAreas !== undefined) return 'Divide areas without signals, too';
    if (one.trains !== undefined) return `Run ${count(one.trains, 'train')} at once`;
    return `Let no train be longer than ${showLength(one.longest!, document.shownUnit)}`;
  };
  return (
    <>
      <p className="mt-1">
        Round {lines.map((line) => nameOf(document, line)).join(', ')} there can be {count(places, 'place')} at most;{' '}
        {count(trains, 'train')} need {trains + 1}, or none of them can move.
      </p>
      {giveUp.length > 0 ? (
        <>
          <p className="mt-1">Any one of these makes it possible:</p>
          <ul>
            {giveUp.map((one) => (
              <li key={says(one)} className="mt-1">
                <button
                  type="button"
                  className="button"
                  onClick={() =>
                    onWish(one.longest ? { ...one, shortest: Math.min(one.longest, found.wishes.shortest) } : one)
                  }
                >
                  {says(one)}
                </button>
              </li>
            ))}
          </ul>
        </>
      ) : (
        <p className="mt-1">Giving up one wish alone does not help. Make that way longer, or give up two.</p>
      )}
    </>
  );
}

function CutRow({
  document,
  cut,
  onPlace,
  onLetGo,
  onPoint,
}: {
  document: LayoutDocument;
  cut: ProposedCut;
  onPlace: () => void;
  /** It was put there by hand; without it the place is found anew. */
  onLetGo?: () => void;
  onPoint: (on: boolean) => void;
}) {
  const where = `${nameOf(document, cut.line)} ${showLength(cut.at, document.shownUnit)}`;
  return (
    <li
      className="flex items-center justify-between gap-2 border-b border-hair py-1 hover:bg-accent-tint"
      onPointerEnter={() => onPoint(true)}
      onPointerLeave={() => onPoint(false)}
    >
      <span>
        {where}
        <span className="text-ink3">: {reasonOf(document, cut.reason)}</span>
      </span>
      {onLetGo && (
        <button type="button" className="button shrink-0" aria-label={`Let the gap at ${where} go`} onClick={onLetGo}>
          Let go
        </button>
      )}
      <button
        type="button"
        className="button shrink-0"
        aria-label={`Place a gap at ${where}`}
        onClick={onPlace}
        onFocus={() => onPoint(true)}
        onBlur={() => onPoint(false)}
      >
        Place
      </button>
    </li>
  );
}

function reasonOf(document: LayoutDocument, reason: CutReason): string {
  const called = (id: string) => [...document.turnouts, ...document.crossings].find((one) => one.id === id)?.name ?? '';
  switch (reason.kind) {
    case 'held':
      return 'where you put it';
    case 'clearance':
      return `clear of ${called(reason.points)}`;
    case 'blades':
      return `before the blades of ${called(reason.points)}`;
    case 'crossover':
      return `so that ${reason.points.map(called).join(' and ')} are apart`;
    case 'area':
      return `the edge of ${document.areas.find(({ id }) => id === reason.area)?.name}`;
    case 'ring':
      return 'where the ring begins';
    case 'places':
      return `one of ${reason.blocks} blocks of ${showLength(reason.shortest, document.shownUnit)} or more`;
  }
}
