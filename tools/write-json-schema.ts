import { writeFileSync } from 'node:fs';
import { layoutJsonSchema } from './json-schema';

writeFileSync(
  new URL('../docs/layout.schema.json', import.meta.url),
  `${JSON.stringify(layoutJsonSchema(), null, 2)}\n`,
);
