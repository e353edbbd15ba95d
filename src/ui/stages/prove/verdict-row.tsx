'use client';
import { CircleAlert, CircleCheck, CircleDashed, CircleSlash } from 'lucide-react';
import { hazardOfFinding } from '@/core/findings';
import { PROPERTY_WORDS, UNNOTICED } from '@/core/proof';
import { HAZARDS } from '@/core/simulation';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { isProofOf } from '@/ui/state/verdict-line';
import type { ProofReport } from '@/workers/proof.worker';
import { rehearse } from '../rehearse';
import { FailureFixes } from './failure-fixes';

export const count = (n: number) => n.toLocaleString('en').replaceAll(',', ' ');
const lower = (text: string) => text[0]!.toLowerCase() + text.slice(1);

type Verdict = ProofReport['verdicts'][number];

/** What a verdict says, never more than was looked at. */
export function sayVerdict({ property, result }: Verdict, report: ProofReport): string {
  const words = PROPERTY_WORDS[property];
  switch (result) {
    case 'fails':
      return words.fails;
    case 'holds':
      return `${report.fault ? 'Proved even so' : 'Proved'}: ${lower(words.holds)}`;
    case 'holds unless':
      return `Holds as long as ${report.unless.join(' and ')}: ${lower(words.holds)} What comes after that was not looked at.`;
    case 'not looked at':
      return `Not looked at: ${lower(words.holds)}`;
    case 'unfinished':
      return `Not found in ${count(report.moves)} moves, and not finished. Would say: ${words.holds}`;
  }
}

const TONES = {
  fails: 'text-fail',
  holds: 'text-ok',
  'holds unless': 'text-ink2',
  unfinished: 'text-ink2',
  'not looked at': 'text-ink2',
} as const;
const ICONS = {
  fails: CircleAlert,
  holds: CircleCheck,
  'holds unless': CircleDashed,
  unfinished: CircleDashed,
  'not looked at': CircleSlash,
} as const;

/** Of what findings of the same hazard would do about it, so much is offered at most. */
const MOST_FIXES = 3;

/** One thing that can or cannot happen: the verdict first, then why, what to try, and a way there. */
export function VerdictRow({
  verdict,
  report,
  named,
}: {
  verdict: Verdict;
  report: ProofReport;
  /** Puts names in the place of ids. */
  named(text: string): string;
}) {
  const store = useWorkbenchStore();
  const { property, result, counterexample, cause, atTheStart, steered, notShortest } = verdict;
  const Icon = ICONS[result];
  const warned = useWorkbench((s) =>
    result === 'holds' && !report.fault && isProofOf(s)
      ? (s.design?.findings.find((f) => hazardOfFinding(f.kind) === property)?.says ?? '')
      : '',
  );
  const found = useWorkbench((s) => (!report.fault && isProofOf(s) ? s.design?.findings : undefined));
  const own = cause?.fixes ?? [];
  const more = (cause ? (found ?? []) : [])
    .filter(({ kind }) => hazardOfFinding(kind) === property)
    .flatMap(({ fixes }) => fixes)
    .filter(({ says }) => !own.some((fix) => named(fix.says) === says))
    .slice(0, MOST_FIXES);
  const told = counterexample?.filter(({ says }) => !says.endsWith(UNNOTICED)) ?? [];
  return (
    <li className="border-b border-hair py-2">
      <p className={`flex gap-2 font-medium ${TONES[result]}`}>
        <Icon size={15} aria-hidden className="mt-0.5 shrink-0" />
        {sayVerdict(verdict, report)}
      </p>
      {warned && <p className="mt-0.5 pl-[23px] text-ink2">Yet a finding warns, for other starts: {warned}</p>}
      {cause && (
        <div className="mt-1 pl-[23px]">
          <p>{named(atTheStart ? `So it is from the start: ${lower(cause.says)}` : cause.says)}</p>
          {cause.why && <p className="mt-0.5">{named(cause.why)}</p>}
          {cause.advice && <p className="mt-0.5 text-ink2">{named(cause.advice)}</p>}
          <FailureFixes fixes={[...own, ...more]} property={property} steered={steered} named={named} />
        </div>
      )}
      {counterexample && !atTheStart && (
        <div className="mt-1.5 rounded-md border border-line bg-sheet px-2 py-1.5">
          <p className="font-semibold">
            {told.length === 0
              ? 'The trains need only go on from where they begin.'
              : `How it happens, by ${notShortest ? 'a way that the rehearsal confirms' : 'the shortest way'}`}
          </p>
          <ol className="list-decimal pl-5">
            {told.map((step, i) => (
              <li key={i}>{named(step.says)}</li>
            ))}
          </ol>
          {steered && (
            <>
              <p className="mt-1 text-ink2">
                {steered.confirmed
                  ? 'The rehearsal comes to it too.'
                  : `Possible, not confirmed: the rehearsal, with its own times, did not come to it.${
                      steered.instead
                        ? ` It came to another mishap instead: ${lower(HAZARDS[steered.instead].fails)}`
                        : ''
                    }`}
              </p>
              <button
                type="button"
                className="button mt-1"
                onClick={() => store.getState().set({ recording: steered, stage: rehearse, selected: undefined })}
              >
                Show it in Rehearse
              </button>
            </>
          )}
        </div>
      )}
    </li>
  );
}
