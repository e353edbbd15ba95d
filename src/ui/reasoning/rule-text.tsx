'use client';
import { useWorkbench } from '@/ui/state/store';
import { useAsked } from './use-asked';

/** The rules about a thing, as text. */
export function RuleText({ about }: { about: string }) {
  const textAbout = useWorkbench((s) => s.textAbout);
  return (
    <pre
      tabIndex={0}
      className="max-h-64 overflow-auto whitespace-pre-wrap rounded-md border border-line bg-sheet p-2 font-mono text-[0.72rem] leading-4"
    >
      {useAsked(textAbout, about)}
    </pre>
  );
}
