'use client';
import { useState } from 'react';
import type { HowManyTrains, SoManyTrains } from '@/core/design';
import { Fold } from '@/ui/parts/fold';
import { Working } from '@/ui/parts/working';
import { useWorkbench } from '@/ui/state/store';
import { CycleDial } from './cycle-dial';
import { sayHit, sayRow, sayRuns, sayStanding, sayWaits } from './say-cycle';
import { useTried } from './use-tried';

/** As many as are tried at first, and how many more each time. */
const FIRST = 4;

/** How many trains can run by themselves, and the round that they make: explored and rehearsed when somebody asks. */
export function ByItself() {
  const document = useWorkbench((s) => s.design?.document);
  const count = useWorkbench((s) => s.countTrains);
  const stop = useWorkbench((s) => s.stopCounting);
  const [chosen, setChosen] = useState<number>();
  const {
    share,
    problem,
    found: current,
    look: lookUp,
  } = useTried(document, count && ((reached) => count(FIRST, reached)), stop);
  if (!document || !count) return <p className="py-3 text-ink2">Working it out …</p>;
  const own = document.trains.filter(({ start }) => start).length;
  if (own === 0)
    return <p className="py-3 text-ink2">No train stands on the track. Put one there in Survey, and look again.</p>;
  const look = async () => {
    const found = await lookUp();
    if (found) setChosen(Math.min(found.rows.length, own));
  };
  if (share !== undefined)
    return (
      <div className="max-w-md py-3">
        <p className="mb-2 text-ink2">Trying one train, two, three, four …</p>
        <Working label="Numbers of trains tried" share={share} onStop={() => stop?.()} />
      </div>
    );
  if (!current)
    return (
      <div className="max-w-xl py-3">
        {problem && (
          <p role="alert" className="mb-2 text-fail">
            It could not be tried: {problem}
          </p>
        )}
        <p className="text-ink2">
          What do one train, two, three or four come to, if nobody touches anything once those that wait for a pulse
          have had one? All orders of their moves are explored, and some rehearsed. Drivers obey.
        </p>
        <button type="button" className="button button-main mt-2" onClick={() => void look()}>
          Look how many trains can run
        </button>
      </div>
    );
  const row = current.rows.find((one) => one.count === chosen) ?? current.rows[0];
  return (
    <div className="flex flex-wrap gap-x-6 gap-y-3 py-2">
      <div className="min-w-[280px] flex-[2]">
        <Counts found={current} chosen={row?.count} onChoose={setChosen} />
        {current.noRoomFor !== undefined && (
          <p className="mt-1 text-ink2">
            {current.noRoomFor === 1
              ? 'The trains are in each other’s way as they stand, or not on the track.'
              : `For ${current.noRoomFor} there is no room before signals.`}
          </p>
        )}
        {row && <What row={row} />}
        <p className="mt-2 text-ink2">
          Rehearsed {row?.rehearsed.of} times, {row?.rehearsed.minutes} min each; “never”: in no order of moves.
        </p>
      </div>
      {row && <Round key={row.count} row={row} found={current} />}
    </div>
  );
}

/** A row for each number of trains, chosen by its heading. */
function Counts({
  found,
  chosen,
  onChoose,
}: {
  found: HowManyTrains;
  chosen: number | undefined;
  onChoose: (count: number) => void;
}) {
  return (
    <table className="w-full border-collapse text-left" aria-label="How many trains can run">
      <thead>
        <tr className="border-b border-line">
          {['Trains', 'Runs', 'Waits for ever', 'Is hit'].map((head) => (
            <th key={head} scope="col" className="py-1 pr-3 font-semibold">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {found.rows.map((row) => (
          <tr
            key={row.count}
            className={`border-b border-hair align-top ${row.count === chosen ? 'bg-accent-tint' : ''}`}
          >
            <th scope="row" className="py-1 pr-3 font-semibold">
              <button
                type="button"
                aria-pressed={row.count === chosen}
                className="cursor-pointer rounded-sm px-1 text-accent hover:bg-accent-tint"
                onClick={() => onChoose(row.count)}
              >
                {row.count}
              </button>
            </th>
            <td className="py-1 pr-3">{sayRuns(row)}</td>
            <td className={`py-1 pr-3 ${row.stuck || row.rehearsed.waits.runs > 0 ? 'text-warn' : 'text-ink2'}`}>
              {sayWaits(row)}
            </td>
            <td className={`py-1 ${row.hit || row.rehearsed.hit.runs > 0 ? 'text-fail' : 'text-ink2'}`}>
              {sayHit(row)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** How the chosen number comes to a stand, or to harm. */
function What({ row }: { row: SoManyTrains }) {
  return (
    <div className="mt-2">
      <p className="text-[0.95rem] font-semibold">{sayRow(row)}</p>
      <p className="text-ink2">
        {row.trains.join(', ')}. {row.states.toLocaleString('en')} {row.states === 1 ? 'state' : 'states'} looked at
        {row.finished ? ', all that there are' : '; there are more'}.
      </p>
      {row.stuck && row.stuck.length > 0 && <Story title="How they come to a stand" story={row.stuck} />}
      {row.hit && <Story title="How one is hit" story={row.hit} />}
      {row.besides.length > 0 && (
        <Fold title="What else can happen">
          <ul className="list-disc pl-4 text-ink2">
            {row.besides.map((says) => (
              <li key={says}>{says}</li>
            ))}
          </ul>
        </Fold>
      )}
    </div>
  );
}

function Story({ title, story }: { title: string; story: readonly string[] }) {
  return (
    <Fold title={title}>
      <ol className="list-decimal pl-5 text-ink2">
        {story.map((says, nth) => (
          <li key={nth}>{says}</li>
        ))}
      </ol>
    </Fold>
  );
}

/** The round as a dial with its steps; where it is open what comes next, the ways in which trains can wait, and what can follow each. */
function Round({ row, found }: { row: SoManyTrains; found: HowManyTrains }) {
  const [step, setStep] = useState<number>();
  const { timed, steps, stepCount } = row;
  if (timed)
    return (
      <div className="flex min-w-[300px] flex-[3] flex-wrap items-start gap-3">
        <CycleDial row={row} found={found} step={step} onStep={setStep} />
        <ol className="min-w-[180px] flex-1" aria-label="Steps of a round">
          {timed.map((one, nth) => (
            <li
              key={nth}
              className={`rounded-sm px-1 ${step === nth ? 'bg-accent-tint' : ''}`}
              onPointerEnter={() => setStep(nth)}
              onPointerLeave={() => setStep(undefined)}
            >
              <span className="font-semibold">{nth + 1}</span> {sayStanding(found, row.trains, one)}{' '}
              <span className="whitespace-nowrap text-ink2">{(one.ms / 1000).toFixed(1)} s</span>
            </li>
          ))}
        </ol>
      </div>
    );
  return (
    <div className="min-w-[300px] flex-[4]">
      <p className="text-ink2">
        {row.rehearsed.runs > 0
          ? 'No round comes again exactly: it is open who comes next. Ways in which the trains can wait, and what can follow:'
          : 'Ways in which the trains can wait until they stand, and what can follow:'}
      </p>
      <ol className="mt-1">
        {steps.map((one, nth) => (
          <li key={nth}>
            <span className="font-semibold">{nth + 1}</span> {sayStanding(found, row.trains, one)}{' '}
            <span className="text-ink2">
              {one.next.length === 0 ? 'Nothing follows.' : `Then ${one.next.map((to) => to + 1).join(' or ')}.`}
            </span>
          </li>
        ))}
      </ol>
      {stepCount > steps.length && <p className="text-ink2">… and {stepCount - steps.length} more.</p>}
    </div>
  );
}
