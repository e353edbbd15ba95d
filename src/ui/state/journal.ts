import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { LayoutDocument, Step } from '@/core/survey';
import { afterPaint } from './after-paint';
import { broughtUp, type JournalState } from './journal-state';

interface Kept extends Omit<JournalState, 'past' | 'future' | 'base' | 'document'> {
  /** Only in journals of earlier versions; since then each is kept by itself, and written when it is another. */
  base?: LayoutDocument;
  document?: LayoutDocument;
  layout: string;
  tab: string;
  /** Of `total` steps kept, this many are done; the rest can be done again. */
  position: number;
  total: number;
  at: number;
}

interface Schema extends DBSchema {
  journals: { key: string; value: Kept; indexes: { layout: string } };
  steps: { key: [string, number]; value: Step };
  bases: { key: string; value: LayoutDocument };
  documents: { key: string; value: LayoutDocument };
}

const TAB_KEY = 'roblik-window';
/** A journal with nothing unsaved is thrown away after this long. */
const KEEP_MS = 14 * 24 * 3600 * 1000;

let database: Promise<IDBPDatabase<Schema>> | undefined;
const open = () => {
  database ??= openDB<Schema>('roblik', 3, {
    upgrade(db, from) {
      if (from < 1) {
        db.createObjectStore('journals').createIndex('layout', 'layout');
        db.createObjectStore('steps');
      }
      if (from < 2) db.createObjectStore('bases');
      db.createObjectStore('documents');
    },
    /** A newer page wants it: this one opens it anew when it has something to keep. */
    blocking(_now, _wanted, event) {
      (event.target as IDBDatabase).close();
      database = undefined;
    },
  });
  return database;
};
const newTab = () =>
  [...crypto.getRandomValues(new Uint8Array(9))].map((byte) => byte.toString(16).padStart(2, '0')).join('');

/** Names this very page holds, each with what lets it go. */
const claimed = new Map<string, () => void>();

/** Takes a window's name until it is let go or the page ends; false when another window has it. */
async function claim(tab: string): Promise<boolean> {
  if (!navigator.locks) return true;
  return new Promise((resolve) => {
    void navigator.locks.request(`roblik-window ${tab}`, { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      return lock ? new Promise<void>((letGo) => claimed.set(tab, letGo)) : undefined;
    });
  });
}

/** One window's journal of one layout. */
export class Journal {
  private written: Step[] = [];
  private writtenBase: LayoutDocument | undefined;
  private writtenDocument: LayoutDocument | undefined;
  private latest: JournalState | undefined;
  private writing: Promise<void> | undefined;

  private constructor(
    readonly layout: string,
    /** Names the window; saves carry it, so that an answer lost on the way is known for one’s own save. */
    readonly tab: string,
    readonly found: JournalState | undefined,
  ) {
    if (found) this.written = [...found.past, ...found.future];
  }

  private get key(): string {
    return `${this.layout} ${this.tab}`;
  }

  /** This window's journal, or else one with unsaved edits whose window is gone. */
  static async open(layout: string): Promise<Journal> {
    const db = await open();
    const mine = sessionStorage.getItem(TAB_KEY);
    if (mine && (await claim(mine))) return new Journal(layout, mine, await read(db, `${layout} ${mine}`));
    const others = (await db.getAllFromIndex('journals', 'layout', layout)).sort((a, b) => b.at - a.at);
    for (const kept of others) {
      if (!kept.unsaved) {
        if (kept.at < Date.now() - KEEP_MS) await forget(db, `${layout} ${kept.tab}`);
        continue;
      }
      if (!(await claim(kept.tab))) continue;
      sessionStorage.setItem(TAB_KEY, kept.tab);
      return new Journal(layout, kept.tab, await read(db, `${layout} ${kept.tab}`));
    }
    const tab = newTab();
    await claim(tab);
    sessionStorage.setItem(TAB_KEY, tab);
    return new Journal(layout, tab, undefined);
  }

  /** Lets the window’s name go, so that the same window can take it up again without being loaded anew. */
  close(): void {
    claimed.get(this.tab)?.();
    claimed.delete(this.tab);
  }

  /** Keeps a state; many in a row are written as the last of them. Rejects when the browser refuses to keep it. */
  keep(state: JournalState): Promise<void> {
    this.latest = state;
    this.writing ??= this.write().finally(() => {
      this.writing = undefined;
    });
    return this.writing;
  }

  private async write(): Promise<void> {
    const db = await open();
    while (this.latest) {
      /** Copying a large document takes a moment: not the one in which the edit is drawn. */
      await afterPaint();
      const state = this.latest;
      this.latest = undefined;
      const steps = [...state.past, ...state.future];
      const transaction = db.transaction(['journals', 'steps', 'bases', 'documents'], 'readwrite');
      const store = transaction.objectStore('steps');
      const asked: Promise<unknown>[] = [];
      steps.forEach((step, i) => {
        if (this.written[i] !== step) asked.push(store.put(step, [this.key, i]));
      });
      if (this.written.length > steps.length)
        asked.push(store.delete(IDBKeyRange.bound([this.key, steps.length], [this.key, this.written.length])));
      const { past, future, base, document, ...rest } = state;
      if (base !== this.writtenBase) asked.push(transaction.objectStore('bases').put(base, this.key));
      if (document !== this.writtenDocument) asked.push(transaction.objectStore('documents').put(document, this.key));
      const kept: Kept = {
        ...rest,
        layout: this.layout,
        tab: this.tab,
        position: past.length,
        total: past.length + future.length,
        at: Date.now(),
      };
      asked.push(transaction.objectStore('journals').put(kept, this.key));
      await Promise.all([...asked, transaction.done]);
      this.written = steps;
      this.writtenBase = base;
      this.writtenDocument = document;
    }
  }
}

async function read(db: IDBPDatabase<Schema>, key: string): Promise<JournalState | undefined> {
  const kept = await db.get('journals', key);
  if (!kept) return undefined;
  const steps = kept.total === 0 ? [] : await db.getAll('steps', IDBKeyRange.bound([key, 0], [key, kept.total - 1]));
  const { revision, unsaved, position } = kept;
  const base = kept.base ?? (await db.get('bases', key))!;
  const document = kept.document ?? (await db.get('documents', key))!;
  return broughtUp({
    document,
    base,
    revision,
    unsaved,
    past: steps.slice(0, position),
    future: steps.slice(position),
  });
}

async function forget(db: IDBPDatabase<Schema>, key: string): Promise<void> {
  await db.delete('journals', key);
  await db.delete('bases', key);
  await db.delete('documents', key);
  await db.delete('steps', IDBKeyRange.bound([key, 0], [key, Number.MAX_SAFE_INTEGER]));
}
