'use client';
import { Fragment, type ReactNode } from 'react';
import { LIST_NAMES, spanOf, thingsOf } from '@/core/survey';
import { Fold } from '@/ui/parts/fold';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { ReasonTree } from './reason-tree';
import { useAnswer } from './use-answer';

/** More facts than this are no sentence any more; the rest is counted, and stands beneath step by step. */
const MOST_FACTS = 6;

/** A sentence in the middle of another: it begins small, unless it begins with the name of what it is about. */
const midSentence = (says: string, name: string | undefined) =>
  name !== undefined && says.startsWith(`${name} `)
    ? says
    : says.replace(/^(A|No|Nobody|Nothing|The|There|What)(?= )/, (word) => word.toLowerCase());

/** Why a name of the rules is what it is: one sentence that suffices, each fact of it a link to the sheet; step by step beneath. `otherwise`: what stands there while it is not known. */
export function Answer({ rule, otherwise = null }: { rule: string; otherwise?: ReactNode }) {
  const store = useWorkbenchStore();
  const design = useWorkbench((s) => s.design);
  const answer = useAnswer(rule);
  if (!design || !answer) return otherwise;
  const { says, facts, reason } = answer;
  if (facts.length === 0) return <ReasonTree key={says} reason={reason} />;
  const show = (about: string | undefined) => {
    if (about === undefined) return undefined;
    const known = design.blocks.some(({ id }) => id === about) || spanOf(design.document, about) !== undefined;
    return known ? () => store.getState().select(about) : undefined;
  };
  const things: readonly { id: string; name?: unknown }[] = [
    ...design.blocks,
    ...LIST_NAMES.flatMap((list) => thingsOf(design.document, list)),
  ];
  const nameOf = (about: string | undefined) => {
    const name = things.find(({ id }) => id === about)?.name;
    return typeof name === 'string' ? name : undefined;
  };
  const shown = facts.length > MOST_FACTS ? facts.slice(0, MOST_FACTS - 1) : facts;
  const more = facts.length - shown.length;
  return (
    <div>
      <p className="text-[0.95rem] leading-5" data-answer>
        <strong>{says}:</strong>{' '}
        {shown.map((fact, i) => {
          const act = show(fact.about);
          const last = more === 0 && i === shown.length - 1;
          return (
            <Fragment key={fact.name}>
              {i > 0 && (last ? ', and ' : ', ')}
              {act ? (
                <a
                  href={`#${fact.about}`}
                  className="text-accent underline"
                  onClick={(event) => {
                    event.preventDefault();
                    act();
                  }}
                >
                  {midSentence(fact.says, nameOf(fact.about))}
                </a>
              ) : (
                midSentence(fact.says, nameOf(fact.about))
              )}
            </Fragment>
          );
        })}
        {more > 0 && `, and ${more} more of the kind`}.
      </p>
      <Fold title="Step by step">
        <ReasonTree bare key={says} reason={reason} />
      </Fold>
    </div>
  );
}
