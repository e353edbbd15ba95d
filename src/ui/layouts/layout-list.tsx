'use client';
import { FilePlus2, Upload } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type ComponentProps, type ComponentType, lazy, type ReactNode, Suspense, useRef, useState } from 'react';
import type { Fault } from '@/core/survey';
import { askServer, sendServer } from '@/ui/parts/ask-server';
import { Choice, type Option } from '@/ui/parts/choice';
import type { Notices } from '@/ui/parts/toast';
import { EntryMenu } from './entry-menu';

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

/** With so many or fewer nobody has to look for one. */
const MANY = 2;
type Order = 'changed' | 'name';
const ORDERS: readonly Option<Order>[] = [
  { value: 'changed', says: 'newest first' },
  { value: 'name', says: 'by name' },
];
/** Fetched when something is first deleted. */
let Toasts: ComponentType<ComponentProps<typeof Notices>> | undefined;

/** All layouts, and what can be done with each. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one list with what can be done to an entry.
export function LayoutList({ layouts }: { layouts: LayoutEntry[] }) {
  const router = useRouter();
  const [trouble, setTrouble] = useState<Trouble>();
  const [deleted, setDeleted] = useState<{ id: string; name: string; key: number }>();
  const [sought, setSought] = useState('');
  const [order, setOrder] = useState<Order>('changed');
  const form = useRef<HTMLLIElement>(null);
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
    if (!asked.ok) return;
    Toasts ??= (await import('@/ui/parts/toast')).Notices;
    setDeleted((before) => ({ ...entry, key: (before?.key ?? 0) + 1 }));
  };
  const restore = async () => {
    if (!deleted) return;
    setDeleted(undefined);
    await act(`Bringing back ${deleted.name}`, () => sendServer('POST', `/api/layouts/${deleted.id}/restore`));
  };
  const words = sought.trim().toLowerCase();
  const shown = layouts.filter(({ name }) => name.toLowerCase().includes(words));
  if (order === 'name') shown.sort((a, b) => a.name.localeCompare(b.name));
  const goToForm = () => {
    const name = form.current?.querySelector('input');
    name?.focus();
    name?.scrollIntoView({ block: 'center' });
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
      <div>
        <div>
          <h1 className="text-[1.2rem] font-bold">Your layouts</h1>
          <p className="mt-1 max-w-2xl text-ink2">
            Roblik works out from your tape measurements where to cut gaps, place detectors and signals, and when points
            may move, so that your trains are protected. Open Ondrel Valley to look round, or begin your own below: a
            name is enough.
          </p>
        </div>
        <div className="mt-3 flex flex-wrap gap-2">
          <button type="button" className="button button-main" onClick={goToForm}>
            <FilePlus2 size={15} aria-hidden /> New layout
          </button>
          {layouts.length > MANY && (
            <>
              <input
                type="search"
                className="field w-44"
                aria-label="Find a layout"
                placeholder="Find a layout"
                value={sought}
                onChange={(event) => setSought(event.target.value)}
              />
              <Choice
                label="Order"
                labelled="unseen"
                className="w-36"
                value={order}
                options={ORDERS}
                onChange={setOrder}
              />
            </>
          )}
          <button type="button" className="button" onClick={() => file.current?.click()}>
            <Upload size={15} aria-hidden /> Import a file
          </button>
        </div>
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
        {sought.trim() !== '' && (
          <p className="mt-4 text-ink2">
            {shown.length === 0 ? 'No layout is called so.' : `${shown.length} of ${layouts.length}`}
          </p>
        )}
        {trouble && <TroubleBox trouble={trouble} onClose={() => setTrouble(undefined)} />}
      </div>
      <ul className="mt-5 grid grid-cols-1 gap-4 sm:grid-cols-2">
        {shown.map((entry) => (
          <li key={entry.id} className="rounded-lg border border-line bg-sheet">
            <Link href={`/layouts/${entry.id}`} prefetch={false} className="block rounded-lg px-4 pt-3 hover:bg-raised">
              <span className="text-[1rem] font-semibold">{entry.name}</span>
              <span className="ml-2 text-ink3">{entry.facts}</span>
              {entry.picture}
            </Link>
            <div className="flex items-center gap-2 border-t border-hair px-4 py-2">
              <span className="grow text-ink3">changed {entry.changed}</span>
              <EntryMenu
                entry={entry}
                onCopy={() =>
                  void act(`Copying ${entry.name}`, () => sendServer('POST', `/api/layouts/${entry.id}/copy`))
                }
                onDelete={() => void remove(entry)}
              />
            </div>
          </li>
        ))}
        <li ref={form}>
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
      {Toasts && (
        <Toasts
          notice={deleted && { key: deleted.key, says: `${deleted.name} is deleted.` }}
          altText="Bring it back"
          onUndo={() => void restore()}
          onGone={() => setDeleted(undefined)}
        />
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
