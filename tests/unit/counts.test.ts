import { readFileSync } from 'node:fs';
import { expect, test } from 'vitest';
import { countAll, KEPT } from '../../tools/bench/counts';

/**
 * What does not depend on the machine’s mood is held here, not in times: tools/bench/counts.json keeps each count. One that becomes more is
 * raised there, with its reason in CHANGELOG.md under “Counts”; one that becomes less is lowered there.
 */
test('states, moves, questions, probes, bytes and equations are what is kept', () => {
  const counted = countAll();
  expect(Object.fromEntries(Object.keys(counted).map((name) => [name, KEPT[name]]))).toEqual(counted);
});
test('CHANGELOG says under which heading raised counts are explained', () => {
  expect(readFileSync(new URL('../../CHANGELOG.md', import.meta.url), 'utf8')).toMatch(/^### Counts$/m);
});
