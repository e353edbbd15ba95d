import { createHash, randomBytes } from 'node:crypto';
import type { ResultSetHeader, RowDataPacket } from 'mysql2';
import type { Connection } from 'mysql2/promise';
import { type LayoutDocument, readDocument, writeDocumentText } from '@/core/survey';
import { pool } from './pool';

export interface StoredLayout {
  id: string;
  name: string;
  /** Grows by one with every save; a save names the one it was made from. */
  revision: number;
  updatedAt: string;
  document: LayoutDocument;
}

export type SaveResult =
  | { ok: true; revision: number }
  | { ok: false; reason: 'gone' }
  | { ok: false; reason: 'conflict'; current: StoredLayout };

const LETTERS = 'abcdefghijkmnpqrstuvwxyz23456789';
const newId = () => [...randomBytes(12)].map((byte) => LETTERS[byte % LETTERS.length]).join('');
const hashOf = (text: string) => createHash('sha256').update(text).digest('hex');

interface LayoutRow extends RowDataPacket {
  id: string;
  name: string;
  revision: number;
  updated_at: Date;
  document: string;
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
    document: reading.document,
  };
  if (checked.size >= MOST_CHECKED) checked.clear();
  checked.set(key, layout);
  return layout;
}

/** All layouts that are not deleted, last changed first. */
export async function listLayouts(): Promise<StoredLayout[]> {
  const [rows] = await pool().query<LayoutRow[]>(
    'SELECT id, name, revision, updated_at, document FROM layouts WHERE deleted_at IS NULL ORDER BY updated_at DESC, id',
  );
  return rows.map(fromRow);
}

/** One layout, or undefined when there is none or it is deleted. */
export async function loadLayout(id: string): Promise<StoredLayout | undefined> {
  const [rows] = await pool().execute<LayoutRow[]>(
    'SELECT id, name, revision, updated_at, document FROM layouts WHERE id = ? AND deleted_at IS NULL',
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
    await keepRevision(connection, id, 1, null, text, note);
  });
  return id;
}

/** Saves over the revision it was made from and no other: two tabs never overwrite each other silently. */
export async function saveLayout(
  id: string,
  base: number,
  document: LayoutDocument,
  note: string,
): Promise<SaveResult> {
  const text = writeDocumentText(document);
  const saved = await inTransaction(async (connection) => {
    const [result] = await connection.execute<ResultSetHeader>(
      'UPDATE layouts SET document = ?, name = ?, revision = revision + 1, updated_at = CURRENT_TIMESTAMP(3) WHERE id = ? AND revision = ? AND deleted_at IS NULL',
      [text, document.name, id, base],
    );
    if (result.affectedRows === 0) return false;
    await keepRevision(connection, id, base + 1, base, text, note);
    return true;
  });
  if (saved) return { ok: true, revision: base + 1 };
  const current = await loadLayout(id);
  return current ? { ok: false, reason: 'conflict', current } : { ok: false, reason: 'gone' };
}

/** Marks a layout as deleted, or takes that back; false when there is no such layout. */
export async function setDeleted(id: string, deleted: boolean): Promise<boolean> {
  const [result] = await pool().execute<ResultSetHeader>(
    'UPDATE layouts SET deleted_at = IF(?, CURRENT_TIMESTAMP(3), NULL) WHERE id = ? AND (deleted_at IS NULL) = ?',
    [deleted ? 1 : 0, id, deleted ? 1 : 0],
  );
  return result.affectedRows > 0;
}

async function keepRevision(
  connection: Connection,
  id: string,
  number: number,
  parent: number | null,
  text: string,
  note: string,
): Promise<void> {
  await connection.execute(
    'INSERT INTO revisions (layout, number, parent, content_hash, document, note) VALUES (?, ?, ?, ?, ?, ?)',
    [id, number, parent, hashOf(text), text, note.slice(0, 400)],
  );
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
