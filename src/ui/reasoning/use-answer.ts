'use client';
import { useEffect, useRef, useState } from 'react';
import type { Explanation } from '@/core/logic';
import { shownExplain, shownMoment, useWorkbench } from '@/ui/state/store';

/** Why a name of the rules is what it is, in what the open stage shows; asked anew, one question at a time, as that changes. */
export function useAnswer(rule: string): Explanation | undefined {
  const explain = useWorkbench(shownExplain);
  const moment = useWorkbench(shownMoment);
  const [answer, setAnswer] = useState<Explanation>();
  const asked = useRef({ busy: false, wanted: 0 });
  // biome-ignore lint/correctness/useExhaustiveDependencies: it is asked again at every moment
  useEffect(() => {
    const state = asked.current;
    state.wanted += 1;
    if (state.busy || !explain) return;
    state.busy = true;
    const ask = async () => {
      for (let number = -1; number !== state.wanted; ) {
        number = state.wanted;
        const now = await explain(rule);
        setAnswer((before) => (JSON.stringify(before) === JSON.stringify(now) ? before : now));
      }
      state.busy = false;
    };
    void ask();
  }, [explain, moment, rule]);
  return explain && answer;
}
