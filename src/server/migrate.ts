import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Connection } from 'mysql2/promise';

/** Brings the database up to date by the numbered files in `folder`, each once and in order. Returns those applied. */
export async function migrate(connection: Connection, folder: string): Promise<string[]> {
  await connection.query(
    'CREATE TABLE IF NOT EXISTS migrations (name VARCHAR(100) NOT NULL PRIMARY KEY) ENGINE=InnoDB',
  );
  const [rows] = await connection.query('SELECT name FROM migrations');
  const done = new Set((rows as { name: string }[]).map((row) => row.name));
  const applied: string[] = [];
  for (const file of readdirSync(folder)
    .filter((f) => f.endsWith('.sql'))
    .sort()) {
    if (done.has(file)) continue;
    const statements = readFileSync(join(folder, file), 'utf8').split(/;\s*$/m);
    for (const statement of statements) if (statement.trim()) await connection.query(statement);
    await connection.execute('INSERT INTO migrations (name) VALUES (?)', [file]);
    applied.push(file);
  }
  return applied;
}
