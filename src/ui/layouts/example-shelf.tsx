'use client';
import { FolderOpen } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { type ReactNode, useState } from 'react';
import { sendServer } from '@/ui/parts/ask-server';

export interface ExampleEntry {
  id: string;
  name: string;
  story: string;
  first: string;
  picture: ReactNode;
}

/** Small layouts to look at and to change; what is opened is a copy. */
export function ExampleShelf({ examples }: { examples: ExampleEntry[] }) {
  const router = useRouter();
  const [busy, setBusy] = useState<string>();
  const [problem, setProblem] = useState<string>();
  const open = async (example: string) => {
    setBusy(example);
    setProblem(undefined);
    const asked = await sendServer<{ id: string }>('POST', '/api/layouts', { example });
    setBusy(undefined);
    if (asked.ok) router.push(`/layouts/${asked.value.id}`);
    else setProblem(asked.problem);
  };
  return (
    <section aria-labelledby="examples" className="mx-auto max-w-5xl px-6 pb-8">
      <h2 id="examples" className="text-[1.2rem] font-bold">
        Examples
      </h2>
      <p className="mt-1 text-ink2">Each opens as a copy of your own, so that nothing can go wrong with it.</p>
      {problem && (
        <p role="alert" className="mt-3 text-fail">
          {problem}
        </p>
      )}
      <ul className="mt-3 grid grid-cols-1 gap-4 sm:grid-cols-2">
        {examples.map(({ id, name, story, first, picture }) => (
          <li key={id} className="flex flex-col rounded-lg border border-line bg-sheet px-4 pt-3">
            <h3 className="text-[1rem] font-semibold">{name}</h3>
            {picture}
            <p className="text-ink2">{story}</p>
            <p className="mt-1 pb-2">
              <strong>Try first.</strong> {first}
            </p>
            <div className="-mx-4 mt-auto border-t border-hair px-4 py-2">
              <button
                type="button"
                className="button"
                disabled={busy !== undefined}
                onClick={() => void open(id)}
                aria-label={`Open a copy of ${name}`}
              >
                <FolderOpen size={14} aria-hidden /> {busy === id ? 'Opening …' : 'Open a copy'}
              </button>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
