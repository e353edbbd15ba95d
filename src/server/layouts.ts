import { createHash, randomBytes } from 'node:crypto';
import type { ResultSetHeader, RowDataPacket } from 'mysql2';
import type { Connection } from 'mysql2/promise';
import {
  compareDocuments,
  type LayoutDocument,
  readDocument,
  readDocumentText,
  writeDocumentText,
} from '@/core/survey';
import { pool } from './pool';

export interface StoredLayout {
  id: string;
  name: string;
  /** Grows by one with every save; a save names the one it was made from. */
  revision: number;
  updatedAt: string;
  /** What the window that saved it called its save. */
  token: string;
  document: LayoutDocument;
}

/** A version of a layout that is kept for good. */
export interface Revision {
  number: number;
  at: string;
  /** What was done since the revision before it. */
  note: string;
  /** Given by a person; empty when it was kept at a pause. */
  name: string;
}

export type SaveResult =
  | { ok: true; revision: number }
  | { ok: false; reason: 'gone' }
  | { ok: false; reason: 'conflict'; current: StoredLayout };

const LETTERS = 'abcdefghijkmnpqrstuvwxyz23456789';
/** A short id that nobody has. */
export const newId = () => [...randomBytes(12)].map((byte) => LETTERS[byte % LETTERS.length]).join('');
const hashOf = (text: string) => createHash('sha256').update(text).digest('hex');

interface LayoutRow extends RowDataPacket {
  id: string;
  name: string;
  revision: number;
  updated_at: Date;
  save_token: string;
  document: string;
}

const COLUMNS = 'id, name, revision, updated_at, save_token, document';
/** Editing that goes on after this long starts a new revision. */
const PAUSE_MS = Number(process.env.ROBLIK_PAUSE_MS ?? 60_000);
const LONGEST_NOTE = 400;

interface DraftRow extends RowDataPacket {
  document: string;
  revision: number;
  rested: string;
}
interface RevisionRow extends RowDataPacket {
  number: number;
  note: string;
  name: string;
  created_at: Date;
}

/** Documents already checked, by layout and revision: a stored revision never changes. */
const checked = new Map<string, StoredLayout>();
const MOST_CHECKED = 60;

function fromRow(row: LayoutRow): StoredLayout {
  const key = `${row.id} ${row.revision}`;
  const known = checked.get(key);
  if (known) return known;
  const reading = readDocument(JSON.parse(row.document));
  if (!reading.ok) throw new Error(`Layout ${row.id} in the database is damaged: ${reading.faults[0]?.problem}`);
  const layout = {
    id: row.id,
    name: row.name,
    revision: row.revision,
    updatedAt: row.updated_at.toISOString(),
    token: row.save_token,
    document: reading.document,
  };
  if (checked.size >= MOST_CHECKED) checked.clear();
  checked.set(key, layout);
  return layout;
}

/** All layouts that are not deleted, last changed first. */
export async function listLayouts(): Promise<StoredLayout[]> {
  const [rows] = await pool().query<LayoutRow[]>(
    `SELECT ${COLUMNS} FROM layouts WHERE deleted_at IS NULL ORDER BY updated_at DESC, id`,
  );
  return rows.map(fromRow);
}

/** One layout, or undefined when there is none or it is deleted. */
export async function loadLayout(id: string): Promise<StoredLayout | undefined> {
  const [rows] = await pool().execute<LayoutRow[]>(
    `SELECT ${COLUMNS} FROM layouts WHERE id = ? AND deleted_at IS NULL`,
    [id],
  );
  return rows[0] && fromRow(rows[0]);
}

/** Stores a new layout with its first revision and returns its id. The document must have been checked. */
export async function createLayout(document: LayoutDocument, note: string): Promise<string> {
  const id = newId();
  const text = writeDocumentText(document);
  await inTransaction(async (connection) => {
    await connection.execute('INSERT INTO layouts (id, name, revision, document) VALUES (?, ?, 1, ?)', [
      id,
      document.name,
      text,
    ]);
    await keepRevision(connection, id, 1, text, '', note);
  });
  return id;
}

/**
 * Saves the draft over the one it was made from and no other: two windows never overwrite each other silently. A draft that
 * had rested for a while is kept as a revision first.
 */
export async function saveLayout(
  id: string,
  base: number,
  document: LayoutDocument,
  token: string,
): Promise<SaveResult> {
  const text = writeDocumentText(document);
  const saved = await inTransaction(async (connection) => {
    const [[draft]] = await connection.execute<DraftRow[]>(
      'SELECT document, TIMESTAMPDIFF(MICROSECOND, updated_at, CURRENT_TIMESTAMP(3)) / 1000 AS rested FROM layouts WHERE id = ? AND revision = ? AND deleted_at IS NULL FOR UPDATE',
      [id, base],
    );
    if (!draft) return false;
    if (Number(draft.rested) >= PAUSE_MS) await keepRevision(connection, id, base, draft.document);
    await connection.execute(
      'UPDATE layouts SET document = ?, name = ?, revision = revision + 1, save_token = ?, updated_at = CURRENT_TIMESTAMP(3) WHERE id = ?',
      [text, document.name, token.slice(0, 40), id],
    );
    return true;
  });
  return saved ? { ok: true, revision: base + 1 } : refusedFor(id);
}

/** Keeps the draft as it stands as a revision, with a person's name for it; undefined when there is no such layout. */
export async function keepDraft(id: string, name: string): Promise<number | undefined> {
  return inTransaction(async (connection) => {
    const [[draft]] = await connection.execute<DraftRow[]>(
      'SELECT document, revision FROM layouts WHERE id = ? AND deleted_at IS NULL FOR UPDATE',
      [id],
    );
    if (!draft) return undefined;
    await keepRevision(connection, id, draft.revision, draft.document, name);
    return draft.revision;
  });
}

/**
 * Keeps a document that never became the draft: the side of a conflict that was not chosen. Only over the draft that was looked at, since
 * what is chosen is saved over the number that this gives.
 */
export async function keepAside(id: string, base: number, document: LayoutDocument, name: string): Promise<SaveResult> {
  const kept = await inTransaction(async (connection) => {
    const [result] = await connection.execute<ResultSetHeader>(
      'UPDATE layouts SET revision = revision + 2 WHERE id = ? AND revision = ? AND deleted_at IS NULL',
      [id, base],
    );
    if (result.affectedRows === 0) return false;
    await keepRevision(connection, id, base + 1, writeDocumentText(document), name);
    return true;
  });
  return kept ? { ok: true, revision: base + 2 } : refusedFor(id);
}

/** Another has saved meanwhile, or the layout is gone. */
async function refusedFor(id: string): Promise<SaveResult> {
  const current = await loadLayout(id);
  return current ? { ok: false, reason: 'conflict', current } : { ok: false, reason: 'gone' };
}

/** All revisions of a layout, newest first. */
export async function listRevisions(id: string): Promise<Revision[]> {
  const [rows] = await pool().execute<RevisionRow[]>(
    'SELECT number, note, name, created_at FROM revisions WHERE layout = ? ORDER BY number DESC',
    [id],
  );
  return rows.map(({ number, note, name, created_at }) => ({ number, note, name, at: created_at.toISOString() }));
}

/** The document of a revision, or undefined when there is none. */
export async function loadRevision(id: string, number: number): Promise<LayoutDocument | undefined> {
  const [rows] = await pool().execute<(RowDataPacket & { document: string })[]>(
    'SELECT document FROM revisions WHERE layout = ? AND number = ?',
    [id, number],
  );
  if (!rows[0]) return undefined;
  const reading = readDocument(JSON.parse(rows[0].document));
  if (!reading.ok) throw new Error(`Revision ${number} of ${id} is damaged: ${reading.faults[0]?.problem}`);
  return reading.document;
}

/** Marks a layout as deleted, or takes that back; false when there is no such layout. */
export async function setDeleted(id: string, deleted: boolean): Promise<boolean> {
  const [result] = await pool().execute<ResultSetHeader>(
    'UPDATE layouts SET deleted_at = IF(?, CURRENT_TIMESTAMP(3), NULL) WHERE id = ? AND (deleted_at IS NULL) = ?',
    [deleted ? 1 : 0, id, deleted ? 1 : 0],
  );
  return result.affectedRows > 0;
}

/** Keeps a document as a revision; one that is kept already only takes the name. Its note says how it differs from the last. */
async function keepRevision(
  connection: Connection,
  id: string,
  number: number,
  text: string,
  name = '',
  note?: string,
): Promise<void> {
  const says = note ?? (await differenceFromLast(connection, id, number, text));
  await connection.execute(
    "INSERT INTO revisions (layout, number, parent, content_hash, document, note, name) SELECT ?, ?, MAX(number), ?, ?, ?, ? FROM revisions WHERE layout = ? ON DUPLICATE KEY UPDATE name = IF(VALUES(name) = '', revisions.name, VALUES(name))",
    [id, number, hashOf(text), text, says.slice(0, LONGEST_NOTE), name.slice(0, 80), id],
  );
}

/** What was done since the last revision before this one, in words. */
async function differenceFromLast(connection: Connection, id: string, number: number, text: string): Promise<string> {
  const [[last]] = await connection.execute<(RowDataPacket & { document: string })[]>(
    'SELECT document FROM revisions WHERE layout = ? AND number < ? ORDER BY number DESC LIMIT 1',
    [id, number],
  );
  const [before, after] = [readDocumentText(last?.document ?? text), readDocumentText(text)];
  if (!before.ok || !after.ok) return '';
  const differences = compareDocuments(before.document, after.document);
  return differences.length === 0 ? 'As before' : differences.map((d) => d.says).join('; ');
}

async function inTransaction<T>(work: (connection: Connection) => Promise<T>): Promise<T> {
  const connection = await pool().getConnection();
  try {
    await connection.beginTransaction();
    const result = await work(connection);
    await connection.commit();
    return result;
  } catch (error) {
    await connection.rollback().catch(() => {});
    throw error;
  } finally {
    connection.release();
  }
}
