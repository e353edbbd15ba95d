import { writeFileSync } from 'node:fs';
import { countAll, KEPT } from './bench/counts';

/** Keeps the counts of today in place of those before; one that has become more wants its reason in CHANGELOG.md. */
writeFileSync(
  new URL('./bench/counts.json', import.meta.url),
  `${JSON.stringify({ ...KEPT, ...countAll() }, null, 2)}\n`,
);
