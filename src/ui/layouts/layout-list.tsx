'use client';
import { Copy, Download, Trash2, Upload } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { lazy, type ReactNode, Suspense, useRef, useState } from 'react';
import type { Fault } from '@/core/survey';
import { askServer, sendServer } from '@/ui/parts/ask-server';

const loaded = () =>
  new Promise<void>((resolve) => {
    if (typeof document === 'undefined' || document.readyState === 'complete') resolve();
    else window.addEventListener('load', () => resolve(), { once: true });
  });
/** The form is there at once; its code is fetched when the page has been shown. */
const NewLayout = lazy(() =>
  loaded()
    .then(() => import('./new-layout'))
    .then((module) => ({ default: module.NewLayout })),
);

export interface LayoutEntry {
  id: string;
  name: string;
  facts: string;
  changed: string;
  picture: ReactNode;
}

export interface Trouble {
  problem: string;
  faults: Fault[];
}

/** All layouts, and what can be done with each. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one list with what can be done to an entry.
export function LayoutList({ layouts }: { layouts: LayoutEntry[] }) {
  const router = useRouter();
  const [trouble, setTrouble] = useState<Trouble>();
  const [deleted, setDeleted] = useState<{ id: string; name: string }>();
  const [busy, setBusy] = useState<string>();
  const file = useRef<HTMLInputElement>(null);

  const act = async (what: string, work: () => ReturnType<typeof sendServer<{ id?: string }>>) => {
    setBusy(what);
    setTrouble(undefined);
    const asked = await work();
    setBusy(undefined);
    if (!asked.ok) setTrouble(asked);
    else router.refresh();
    return asked;
  };
  const remove = async (entry: LayoutEntry) => {
    const asked = await act(`Deleting ${entry.name}`, () => sendServer('DELETE', `/api/layouts/${entry.id}`));
    if (asked.ok) setDeleted(entry);
  };
  const restore = async () => {
    if (!deleted) return;
    await act(`Bringing back ${deleted.name}`, () => sendServer('POST', `/api/layouts/${deleted.id}/restore`));
    setDeleted(undefined);
  };
  const importFile = async (chosen: File | undefined) => {
    if (!chosen) return;
    if (chosen.size > 20 * 1024 * 1024) {
      setTrouble({
        problem: `${chosen.name} is larger than 20 MB. A layout file is a few hundred kilobytes at most.`,
        faults: [],
      });
      return;
    }
    await act(`Importing ${chosen.name}`, () => askServer('/api/layouts/import', { method: 'POST', body: chosen }));
    if (file.current) file.current.value = '';
  };

  return (
    <main className="mx-auto max-w-5xl px-6 py-6">
      <div className="flex items-end justify-between gap-4">
        <div>
          <h1 className="text-[1.2rem] font-bold">Your layouts</h1>
          <p className="mt-1 max-w-2xl text-ink2">
            Roblik works out from your tape measurements where to cut gaps, place detectors and signals, and when points
            may move, so that your trains are protected. Open Ondrel Valley to look round, or begin your own below: a
            name is enough.
          </p>
        </div>
        <button type="button" className="button" onClick={() => file.current?.click()}>
          <Upload size={15} aria-hidden /> Import a file
        </button>
        <input
          ref={file}
          type="file"
          accept=".json,application/json"
          className="hidden"
          aria-label="Layout file to import"
          onChange={(e) => void importFile(e.target.files?.[0])}
        />
      </div>
      <div aria-live="polite">
        {busy && <p className="mt-4 text-ink2">{busy} …</p>}
        {deleted && (
          <p className="mt-4 flex items-center gap-3 rounded-md border border-line bg-raised px-3 py-2">
            {deleted.name} is deleted.
            <button type="button" className="button" onClick={() => void restore()}>
              Undo
            </button>
          </p>
        )}
        {trouble && <TroubleBox trouble={trouble} onClose={() => setTrouble(undefined)} />}
      </div>
      <ul className="mt-5 grid grid-cols-1 gap-4 sm:grid-cols-2">
        {layouts.map((entry) => (
          <li key={entry.id} className="rounded-lg border border-line bg-sheet">
            <Link href={`/layouts/${entry.id}`} prefetch={false} className="block rounded-lg px-4 pt-3 hover:bg-raised">
              <span className="text-[1rem] font-semibold">{entry.name}</span>
              <span className="ml-2 text-ink3">{entry.facts}</span>
              {entry.picture}
            </Link>
            <div className="flex items-center gap-2 border-t border-hair px-4 py-2">
              <span className="grow text-ink3">changed {entry.changed}</span>
              <button
                type="button"
                className="button"
                onClick={() =>
                  void act(`Copying ${entry.name}`, () => sendServer('POST', `/api/layouts/${entry.id}/copy`))
                }
                aria-label={`Copy ${entry.name}`}
              >
                <Copy size={14} aria-hidden /> Copy
              </button>
              <a
                className="button"
                href={`/api/layouts/${entry.id}/export`}
                download
                aria-label={`Export ${entry.name}`}
              >
                <Download size={14} aria-hidden /> Export
              </a>
              <button
                type="button"
                className="button"
                onClick={() => void remove(entry)}
                aria-label={`Delete ${entry.name}`}
              >
                <Trash2 size={14} aria-hidden /> Delete
              </button>
            </div>
          </li>
        ))}
        <li>
          <Suspense>
            <NewLayout onTrouble={setTrouble} />
          </Suspense>
        </li>
      </ul>
      {layouts.length === 0 && (
        <p className="mt-4 text-ink2">
          There is no layout yet. Make one above: all you need is a name and a tape measure.
        </p>
      )}
    </main>
  );
}

function TroubleBox({ trouble, onClose }: { trouble: Trouble; onClose: () => void }) {
  return (
    <div role="alert" className="mt-4 rounded-md border border-fail bg-fail-tint px-3 py-2 text-fail">
      <div className="flex justify-between gap-3">
        <strong>{trouble.problem}</strong>
        <button type="button" className="button" onClick={onClose}>
          Close
        </button>
      </div>
      {trouble.faults.length > 0 && (
        <ol className="mt-2 max-h-64 list-decimal overflow-auto pl-5">
          {trouble.faults.map((fault) => (
            <li key={`${fault.place} ${fault.problem}`} className="mb-1">
              <span className="font-mono text-[0.72rem]">{fault.place}</span>: {fault.problem} {fault.remedy}
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}
