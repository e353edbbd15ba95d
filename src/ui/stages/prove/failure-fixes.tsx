import { useEffect, useState } from 'react';
import type { FailureFixes as Tried } from '@/core/design';
import type { Fix } from '@/core/findings';
import type { Property, Steered } from '@/core/proof';
import type { Edit, LayoutDocument } from '@/core/survey';
import { sayBrought } from '@/ui/findings/say-brought';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';
import { isProofOf } from '@/ui/state/verdict-line';

/** What would mend a failure of the layout as it is, each fix tried with the run that led to it. */
export function FailureFixes({
  fixes,
  property,
  steered,
  named,
}: {
  fixes: readonly Fix<Edit>[];
  property: Property;
  steered: Steered | undefined;
  named(text: string): string;
}) {
  const store = useWorkbenchStore();
  const tried = useTried(fixes, property, steered);
  if (fixes.length === 0 || !tried) return null;
  if (tried === 'trying') return <p className="mt-1 text-ink3">Trying what mends it …</p>;
  return (
    <>
      {tried.offered.map(({ says, edit, mendsRun }) => (
        <div key={says} className="mt-1 flex flex-wrap items-center gap-x-2">
          <button type="button" className="button" onClick={() => store.getState().edit(edit)}>
            {named(says)}
          </button>
          {mendsRun && (
            <span className="text-ink2">The run below then no longer comes to it. Prove again to know more.</span>
          )}
        </div>
      ))}
      {tried.withheld.map(({ says, brings }) => (
        <p key={says} className="mt-1 text-ink2">
          Not offered: {named(says)}. It brings something else: {named(sayBrought(brings))}
        </p>
      ))}
    </>
  );
}

/** Undefined where the proof is not of the layout as it is now. */
function useTried(fixes: readonly Fix<Edit>[], property: Property, steered: Steered | undefined) {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const isCurrent = useWorkbench((s) => isProofOf(s) === true && s.design?.document === s.document);
  const [known, setKnown] = useState<{ of: LayoutDocument; what: string; tried: Tried }>();
  const what = fixes.map(({ says }) => says).join('\n');
  // biome-ignore lint/correctness/useExhaustiveDependencies: the same fixes are not tried again because their list is another
  useEffect(() => {
    if (!isCurrent || what === '') return;
    let wanted = true;
    void store
      .getState()
      .failureFixesOf?.(fixes, property, steered)
      .then((tried) => wanted && setKnown({ of: document, what, tried }));
    return () => {
      wanted = false;
    };
  }, [store, document, isCurrent, what, property, steered]);
  if (!isCurrent) return undefined;
  return known?.of === document && known.what === what ? known.tried : 'trying';
}
