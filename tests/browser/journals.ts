import { expect, type Page } from '@playwright/test';
import { applyChange, type LayoutDocument, readDocument, type Step } from '../../src/core/survey';

/** What a window keeps of a layout: its document, and the steps that led to it. */
interface KeptJournal {
  document: LayoutDocument;
  done: Step[];
}

/** What the windows of this browser keep of a layout. */
export async function journalsOf(page: Page, id: string): Promise<KeptJournal[]> {
  return page.evaluate(async (id) => {
    const answer = <T>(asked: IDBRequest<T>) =>
      new Promise<T>((resolve) => {
        asked.onsuccess = () => resolve(asked.result);
      });
    const database = await answer(indexedDB.open('roblik'));
    const stores = database.transaction(['journals', 'steps', 'documents']);
    const keys = await answer(stores.objectStore('journals').getAllKeys());
    const kept = await answer(stores.objectStore('journals').getAll());
    const found = [];
    for (const [i, { layout, position }] of kept.entries()) {
      if (layout !== id) continue;
      const document = await answer(stores.objectStore('documents').get(keys[i]!));
      const range = IDBKeyRange.bound([keys[i], 0], [keys[i], position]);
      const steps = await answer(stores.objectStore('steps').getAll(range));
      found.push({ document, done: steps.slice(0, position) });
    }
    return found;
  }, id);
}

/** The core's own replay of what was done, back to where the journal begins and on again, comes to the same document. */
export function replays({ document, done }: KeptJournal): void {
  const begun = done.reduceRight((d, { inverse }) => applyChange(d, inverse), document);
  expect(readDocument(begun).ok).toBe(true);
  expect(done.reduce((d, { patches }) => applyChange(d, patches), begun)).toEqual(document);
}
