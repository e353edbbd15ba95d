import { type RefObject, useEffect, useState } from 'react';
import type { TriedFixes } from '@/core/design';
import type { Finding } from '@/core/findings';
import type { Edit, LayoutDocument } from '@/core/survey';
import { useWorkbench, useWorkbenchStore } from '@/ui/state/store';

const NOTHING: TriedFixes = { offered: [], withheld: [] };
/** Findings are tried one after the other, so that whatever else is asked meanwhile is answered in between. */
let queue: Promise<unknown> = Promise.resolve();

/** What mends a finding of the layout as it is, once its row is seen; undefined until that is known. */
export function useTriedFixes(finding: Finding<Edit>, row: RefObject<Element | null>): TriedFixes | undefined {
  const store = useWorkbenchStore();
  const document = useWorkbench((s) => s.document);
  const isReady = useWorkbench((s) => s.fixesOf !== undefined && s.design?.document === s.document);
  const isSeen = useSeen(row);
  const [known, setKnown] = useState<{ of: LayoutDocument; fixes: TriedFixes }>();
  const hasAny = finding.fixes.length > 0;
  useEffect(() => {
    if (!hasAny || !isReady || !isSeen) return;
    let wanted = true;
    queue = queue.then(async () => {
      const { fixesOf, document: now } = store.getState();
      if (!wanted || now !== document) return;
      const fixes = await fixesOf!(finding.id).catch(() => NOTHING);
      if (wanted && store.getState().document === document) setKnown({ of: document, fixes });
    });
    return () => {
      wanted = false;
    };
  }, [store, document, finding.id, hasAny, isReady, isSeen]);
  if (!hasAny) return NOTHING;
  return known?.of === document ? known.fixes : undefined;
}

/** Whether an element has been on the screen. */
function useSeen(element: RefObject<Element | null>): boolean {
  const [isSeen, setSeen] = useState(false);
  useEffect(() => {
    const observer = new IntersectionObserver((entries) => {
      if (entries.some(({ isIntersecting }) => isIntersecting)) setSeen(true);
    });
    observer.observe(element.current!);
    return () => observer.disconnect();
  }, [element]);
  return isSeen;
}
