'use client';
import type { AutomationProposal, AutomationProposals } from '@/core/design';
import { sayBrought } from '@/ui/findings/say-brought';
import { Working } from '@/ui/parts/working';
import { PanelSection } from '@/ui/reasoning/panel';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { useTried } from './use-tried';

/** For each turnout what the trains could work there by themselves, tried on a copy and rehearsed; looked for when somebody asks. */
export function ProposedAutomation() {
  const document = useWorkbench((s) => s.design?.document);
  const propose = useWorkbench((s) => s.proposeAutomation);
  const stop = useWorkbench((s) => s.stopCounting);
  const { share, problem, found, look } = useTried(document, propose, stop);
  if (!document || !propose) return null;
  if (document.turnouts.length + document.crossings.length === 0) return null;
  if (document.trains.every(({ start }) => !start)) return null;
  return (
    <PanelSection title="What could work by itself">
      {problem && (
        <p role="alert" className="mb-2 text-fail">
          It could not be tried: {problem}
        </p>
      )}
      {share !== undefined ? (
        <Working label="Automatic working tried" share={share} onStop={() => stop?.()} />
      ) : found ? (
        <Found found={found} />
      ) : (
        <>
          <p className="text-ink2">
            Each way of working by the trains is tried at each turnout on a copy, and rehearsed with nobody at hand.
          </p>
          <button type="button" className="button mt-2" onClick={() => void look()}>
            Look what could
          </button>
        </>
      )}
    </PanelSection>
  );
}

function Found({ found: { now, proposals, all } }: { found: AutomationProposals }) {
  const store = useWorkbenchStore();
  const accept = ({ edit }: AutomationProposal) => store.getState().edit(edit);
  return (
    <>
      <p className="text-ink2">As it is, with nobody at hand: {now}</p>
      {proposals.length === 0 && (
        <p role="status" className="mt-1">
          None of the ways that were tried lets more trains run on.
        </p>
      )}
      <ul className="mt-2 flex flex-col gap-2" aria-label="Proposed automatic working">
        {proposals.map((one) => (
          <li key={one.says}>
            <button type="button" className="button w-full whitespace-normal text-left" onClick={() => accept(one)}>
              {one.says}
            </button>
            <p className="text-[0.8rem]">{one.how}</p>
            <p className="text-[0.8rem] text-ink2">{one.why}</p>
            {one.brings.length > 0 && <p className="text-[0.8rem] text-ink2">Then: {sayBrought(one.brings)}</p>}
          </li>
        ))}
      </ul>
      {all && (
        <>
          <button type="button" className="button button-main mt-2" onClick={() => accept(all)}>
            {all.says}
          </button>
          <p className="text-[0.8rem]">{all.how}</p>
          <p className="text-[0.8rem] text-ink2">{all.why}</p>
        </>
      )}
    </>
  );
}
