import { writeFileSync } from 'node:fs';
import { glossaryText } from './glossary-text';

writeFileSync(new URL('../docs/glossary.md', import.meta.url), glossaryText());
