'use client';
import { useEffect, useState } from 'react';
import { useWorkbench } from '@/ui/state/store';

/** What a worker answers about a thing of the present design; asked anew with every other design. Undefined until it has answered. */
export function useAsked<T>(ask: ((id: string) => Promise<T>) | undefined, id: string): T | undefined {
  const design = useWorkbench((s) => s.design);
  const [answer, setAnswer] = useState<T>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: another design has other answers
  useEffect(() => {
    let over = false;
    void ask?.(id).then((now) => {
      if (!over) setAnswer(now);
    });
    return () => {
      over = true;
    };
  }, [ask, id, design]);
  return answer;
}
