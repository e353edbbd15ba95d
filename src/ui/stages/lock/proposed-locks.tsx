'use client';
import type { LockProposal, LockProposals } from '@/core/design';
import { sayBrought } from '@/ui/findings/say-brought';
import { Fold } from '@/ui/parts/fold';
import { Working } from '@/ui/parts/working';
import { PanelSection } from '@/ui/reasoning/panel';
import { SelectThing } from '@/ui/reasoning/select-thing';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { useTried } from './use-tried';

/** For each turnout what holds it, and what more would suit it, tried on a copy; looked for when somebody asks. */
export function ProposedLocks() {
  const document = useWorkbench((s) => s.design?.document);
  const propose = useWorkbench((s) => s.proposeLocks);
  const stop = useWorkbench((s) => s.stopProposing);
  const { share, problem, found, look } = useTried(document, propose, stop);
  if (!document || !propose || document.turnouts.length + document.crossings.length === 0) return null;
  return (
    <PanelSection title="What suits each turnout">
      {problem && (
        <p role="alert" className="mb-2 text-fail">
          It could not be tried: {problem}
        </p>
      )}
      {share !== undefined ? (
        <Working label="Ways of locking tried" share={share} onStop={() => stop?.()} />
      ) : found ? (
        <Found found={found} />
      ) : (
        <>
          <p className="text-ink2">
            Every way of locking is tried at every turnout on a copy, to see what it would mend here.
          </p>
          <button type="button" className="button mt-2" onClick={() => void look()}>
            Look what suits
          </button>
        </>
      )}
    </PanelSection>
  );
}

function Found({ found: { points, proposals, all } }: { found: LockProposals }) {
  const store = useWorkbenchStore();
  const accept = ({ edit }: LockProposal) => store.getState().edit(edit);
  return (
    <>
      {proposals.length === 0 && (
        <p role="status">None of the ways of locking that were tried would mend anything here.</p>
      )}
      <ul className="flex flex-col gap-2" aria-label="Proposed locks">
        {proposals.map((one) => (
          <li key={one.says}>
            <button type="button" className="button w-full whitespace-normal text-left" onClick={() => accept(one)}>
              {one.says}
            </button>
            <Mends one={one} />
          </li>
        ))}
      </ul>
      {all && (
        <button type="button" className="button button-main mt-2" onClick={() => accept(all)}>
          {all.says}
        </button>
      )}
      <Fold title="What keeps each from moving, as it is">
        <ul className="flex flex-col gap-1.5">
          {points.map(({ id, name, while: held, otherwise, open }) => (
            <li key={id}>
              <SelectThing id={id}>{name}</SelectThing>
              {otherwise && <span className="block text-ink2">A rule of your own drives it: {otherwise}</span>}
              {held.length > 0 ? (
                <ul className="list-disc pl-4 text-ink2" aria-label={`${name} does not move while`}>
                  {held.map((says) => (
                    <li key={says}>{says}</li>
                  ))}
                </ul>
              ) : (
                !otherwise && <span className="block text-ink2">Nothing: it follows its button.</span>
              )}
              {open.map((says) => (
                <span key={says} className="block text-warn">
                  {says}
                </span>
              ))}
            </li>
          ))}
        </ul>
      </Fold>
    </>
  );
}

/** What a proposal mends, and what there is to say then. */
function Mends({ one: { why, brings } }: { one: LockProposal }) {
  return (
    <>
      <p className="text-[0.8rem] text-ink2">Mends: {sayBrought(why)}</p>
      {brings.length > 0 && <p className="text-[0.8rem] text-ink2">Then: {sayBrought(brings)}</p>}
    </>
  );
}
