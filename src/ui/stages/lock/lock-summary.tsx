'use client';
import type { AutomaticView, InterlockingCheck, LockingRow } from '@/core/design';
import { setRoutes } from '@/core/patterns';
import { Fold } from '@/ui/parts/fold';
import { Term } from '@/ui/parts/term';
import { PanelSection, PanelTitle } from '@/ui/reasoning/panel';
import { SelectThing } from '@/ui/reasoning/select-thing';
import { useEdit } from '@/ui/reasoning/selection-parts';
import { shownTried } from '@/ui/state/design';
import { useWorkbench } from '@/ui/state/store';
import { ProposedAutomation } from './proposed-automation';
import { ProposedLocks } from './proposed-locks';
import { isGuarded, routeOf } from './say-row';

/** What there is to say of all routes while none is chosen: how many, what is not guarded, and which turnouts are locked. */
export function LockSummary({
  rows,
  checks,
  automatic,
  onChoose,
}: {
  rows: LockingRow[] | undefined;
  checks: readonly InterlockingCheck[];
  automatic: readonly AutomaticView[];
  onChoose: (row: LockingRow) => void;
}) {
  if (rows === undefined) return <p className="text-ink2">Working it out …</p>;
  const pairs = rows.reduce((sum, { conflicts }) => sum + conflicts.length, 0) / 2;
  const open = rows.filter(({ flank }) => flank.some(({ guards }) => guards.some(({ by }) => !isGuarded(by))));
  const loose = rows.filter(({ conflicts }) => conflicts.some(({ apart }) => !apart));
  return (
    <>
      <PanelTitle>
        {rows.length === 0
          ? 'There is no route yet'
          : `${rows.length} ${rows.length === 1 ? 'route' : 'routes'}, ${pairs} ${pairs === 1 ? 'pair that conflicts' : 'pairs that conflict'}`}
      </PanelTitle>
      <p className="text-ink2">
        Each row of the table is one way from a signal to the next. Point at a row or at a name under “Not with”, and
        the sheet shows the track. Choose a route to read why.
      </p>
      <LockedNow />
      {rows.length > 0 && <WhoSets rows={rows} />}
      <ByTheTrains automatic={automatic} />
      <ProposedLocks />
      <ProposedAutomation />
      <Listed
        title="Nothing guards a side of"
        none="Signals, or points that lead aside, guard the sides of every route."
        rows={open}
        onChoose={onChoose}
        all={rows}
      />
      <Listed
        title="Kept apart by no single rule"
        none="The rules cannot clear two routes of a pair at once."
        rows={loose}
        onChoose={onChoose}
        all={rows}
      />
      {rows.length > 0 && <AsThePrototype checks={checks} rows={rows} onChoose={onChoose} />}
    </>
  );
}

function Listed({
  title,
  none,
  rows,
  all,
  onChoose,
}: {
  title: string;
  none: string;
  rows: readonly LockingRow[];
  all: readonly LockingRow[];
  onChoose: (row: LockingRow) => void;
}) {
  if (all.length === 0) return null;
  if (rows.length === 0) return <p className="mt-3 text-ink2">{none}</p>;
  return (
    <PanelSection title={title}>
      <ul>
        {rows.map((row) => (
          <li key={row.id}>
            <button
              type="button"
              className="cursor-pointer rounded-sm text-accent hover:bg-accent-tint"
              onClick={() => onChoose(row)}
            >
              {routeOf(row)}
            </button>
          </li>
        ))}
      </ul>
    </PanelSection>
  );
}

/** Rules of the prototype, each met or not, with the routes that do not meet it. */
function AsThePrototype({
  checks,
  rows,
  onChoose,
}: {
  checks: readonly InterlockingCheck[];
  rows: readonly LockingRow[];
  onChoose: (row: LockingRow) => void;
}) {
  return (
    <PanelSection title="As the prototype asks">
      <p className="text-ink2">49 CFR 236, paraphrased. A model may choose otherwise.</p>
      <ul className="mt-1 flex flex-col gap-1.5">
        {checks.map(({ paragraph, asks, of, fails }) => (
          <li key={paragraph}>
            <span className="font-semibold">{paragraph}</span> {asks}:{' '}
            <span className={fails.length === 0 ? 'text-ink2' : 'text-warn'}>
              {of === 0
                ? 'nothing to look at'
                : fails.length === 0
                  ? `met, ${of} of ${of}`
                  : `${fails.length} of ${of} do not`}
            </span>
            {fails.length > 0 && (
              <Fold title="Which">
                <ul>
                  {fails.map(({ row, says }) => {
                    const one = rows.find(({ id }) => id === row)!;
                    return (
                      <li key={row} className="text-ink2">
                        <button
                          type="button"
                          className="cursor-pointer rounded-sm text-accent hover:bg-accent-tint"
                          onClick={() => onChoose(one)}
                        >
                          {routeOf(one)}
                        </button>
                        : {says}
                      </li>
                    );
                  })}
                </ul>
              </Fold>
            )}
          </li>
        ))}
      </ul>
    </PanelSection>
  );
}

/** Whether signals clear by themselves, or people set their routes; for all of them at once. */
function WhoSets({ rows }: { rows: readonly LockingRow[] }) {
  const edit = useEdit();
  const ids = [...new Set(rows.map(({ signal }) => signal.id))];
  const byTrains = new Set(rows.filter((row) => row.byTrains).map(({ signal }) => signal.id)).size;
  const set = new Set(rows.filter((row) => row.commanded && !row.byTrains).map(({ signal }) => signal.id)).size;
  const change = (on: boolean) => edit({ do: 'use pattern at all', ids, pattern: setRoutes.id, on });
  return (
    <PanelSection title="Who sets routes">
      <p className="text-ink2">
        {byTrains > 0 &&
          `At ${byTrains} of ${ids.length} ${byTrains === 1 ? 'signal the train that comes sets' : 'signals the trains that come set'} the route. `}
        {set === 0 && byTrains > 0
          ? byTrains < ids.length && 'The others clear by themselves.'
          : set === 0
            ? 'Nobody sets routes: each signal clears by itself, once all that it asks for is so.'
            : set === ids.length
              ? 'People set every route, by entry and exit: its points are thrown for it, and only then its signal clears.'
              : `At ${set} of ${ids.length} signals people set the route; the others clear by themselves.`}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        {set < ids.length && (
          <button type="button" className="button" onClick={() => change(true)}>
            Let people set {set === 0 ? 'all routes' : 'the others, too'}
          </button>
        )}
        {set > 0 && (
          <button type="button" className="button" onClick={() => change(false)}>
            Let all signals clear by themselves
          </button>
        )}
      </div>
    </PanelSection>
  );
}

/** A way of working by its name, in which push and pull are explained. */
function Way({ pattern }: { pattern: string }) {
  const word = (['push', 'pull'] as const).find((one) => pattern.startsWith(`${one} `));
  if (!word) return pattern;
  return (
    <>
      <Term word={word}>{word}</Term>
      {pattern.slice(word.length)}
    </>
  );
}

/** By way of working the signals and points that trains work so, and what is lost while that is switched off. */
function ByTheTrains({ automatic }: { automatic: readonly AutomaticView[] }) {
  if (automatic.length === 0) return null;
  const patterns = [...new Map(automatic.map(({ pattern, lost }) => [pattern, lost]))];
  return (
    <PanelSection title="Worked by the trains">
      <ul className="flex flex-col gap-1.5">
        {patterns.map(([pattern, lost]) => (
          <li key={pattern}>
            <Way pattern={pattern} />:{' '}
            <span className="inline-flex flex-wrap gap-x-2">
              {automatic
                .filter((one) => one.pattern === pattern)
                .map(({ id, name }) => (
                  <SelectThing key={id} id={id}>
                    {name}
                  </SelectThing>
                ))}
            </span>
            <span className="block text-[0.8rem] text-ink2">Switched off, {lost}.</span>
          </li>
        ))}
      </ul>
    </PanelSection>
  );
}

/** Turnouts that are locked as the trains stand, each a link to why. */
function LockedNow() {
  const locked = useWorkbench((s) => shownTried(s)?.locked);
  const document = useWorkbench((s) => s.document);
  const known = [...document.turnouts, ...document.crossings].flatMap(({ id, name }) =>
    locked?.some((motor) => motor === id || motor.startsWith(`${id}:`)) ? [{ id, name }] : [],
  );
  if (!locked) return null;
  return (
    <PanelSection title="Locked as the trains stand">
      {known.length === 0 ? (
        <p className="text-ink2">No turnout is locked.</p>
      ) : (
        <p className="flex flex-wrap gap-x-3">
          {known.map(({ id, name }) => (
            <SelectThing key={id} id={id}>
              {name}
            </SelectThing>
          ))}
        </p>
      )}
    </PanelSection>
  );
}
