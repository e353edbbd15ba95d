import type { ResultSetHeader, RowDataPacket } from 'mysql2';
import type { KeptRun, KeptRunRow } from '@/core/design';
import type { TimedCommand } from '@/core/simulation';
import { readDocument, writeDocumentText } from '@/core/survey';
import { newId } from './layouts';
import { pool } from './pool';

type Row = RowDataPacket & Omit<KeptRunRow, 'at'> & { created_at: Date; commands: string; document: string };

/** Keeps a run of a layout and returns its id. Throws when there is no such layout. */
export async function keepRun(layout: string, run: KeptRun): Promise<string> {
  const id = newId();
  await pool().execute(
    'INSERT INTO runs (id, layout, name, seed, ticks, commands, document, hash) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
    [
      id,
      layout,
      run.name.slice(0, 80),
      run.seed,
      run.ticks,
      JSON.stringify(run.commands),
      writeDocumentText(run.document),
      run.hash,
    ],
  );
  return id;
}

/** The runs of a layout, newest first. */
export async function listRuns(layout: string): Promise<KeptRunRow[]> {
  const [rows] = await pool().execute<Row[]>(
    'SELECT id, name, seed, ticks, hash, created_at FROM runs WHERE layout = ? ORDER BY created_at DESC, place DESC',
    [layout],
  );
  return rows.map(({ id, name, seed, ticks, hash, created_at }) => ({
    id,
    name,
    seed,
    ticks,
    hash,
    at: created_at.toISOString(),
  }));
}

/** A kept run, or undefined when there is none. */
export async function loadRun(layout: string, id: string): Promise<KeptRun | undefined> {
  const [[row]] = await pool().execute<Row[]>(
    'SELECT name, seed, ticks, commands, document, hash FROM runs WHERE layout = ? AND id = ?',
    [layout, id],
  );
  if (!row) return undefined;
  const reading = readDocument(JSON.parse(row.document));
  if (!reading.ok) throw new Error(`Run ${id} in the database is damaged: ${reading.faults[0]?.problem}`);
  const { name, seed, ticks, hash } = row;
  return { name, seed, ticks, hash, commands: JSON.parse(row.commands) as TimedCommand[], document: reading.document };
}

/** Deletes a run; false when there was none. */
export async function deleteRun(layout: string, id: string): Promise<boolean> {
  const [result] = await pool().execute<ResultSetHeader>('DELETE FROM runs WHERE layout = ? AND id = ?', [layout, id]);
  return result.affectedRows > 0;
}
