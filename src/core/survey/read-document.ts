import { ValidationError } from 'yup';
import { DOCUMENT_VERSION, migrateDocument } from './migrate-document';
import { type Fault, referenceFaults } from './reference-faults';
import { DOCUMENT_FORMAT, documentSchema, type LayoutDocument } from './schema';

export type DocumentReading = { ok: true; document: LayoutDocument } | { ok: false; faults: Fault[] };

const LARGEST_CHARACTERS = 16 * 1024 * 1024;
const MOST_FAULTS = 50;

const whole = (problem: string, remedy: string): DocumentReading => ({
  ok: false,
  faults: [{ place: 'the file', problem, remedy }],
});

/** Reads a file's text into a document, or names every fault in it. Nothing of a faulty file is ever used. */
export function readDocumentText(text: string): DocumentReading {
  if (text.length > LARGEST_CHARACTERS) {
    return whole(
      'It is larger than 16 MB.',
      'A layout file is a few hundred kilobytes at most. Check that you chose the right file.',
    );
  }
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    const where = error instanceof Error ? error.message : 'it ends in the middle';
    return whole(
      `It is not JSON (${where.slice(0, 120)}).`,
      'Choose a file that Roblik exported; it ends in .roblik.json.',
    );
  }
  return readDocument(value);
}

/** Checks an unknown value against the schema and then every reference and distance in it. */
export function readDocument(value: unknown): DocumentReading {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) {
    return whole('It is JSON, but not a layout.', `A layout begins with "format": "${DOCUMENT_FORMAT}".`);
  }
  const head = value as { format?: unknown; version?: unknown };
  if (head.format !== DOCUMENT_FORMAT) {
    return whole('It is JSON, but not a layout.', `A layout begins with "format": "${DOCUMENT_FORMAT}".`);
  }
  if (typeof head.version === 'number' && head.version > DOCUMENT_VERSION) {
    return whole(
      `It was written by a newer Roblik (document version ${head.version}; this one reads up to ${DOCUMENT_VERSION}).`,
      'Update Roblik, then import it again.',
    );
  }
  let document: LayoutDocument;
  try {
    document = documentSchema.validateSync(migrateDocument(value as Record<string, unknown>), {
      abortEarly: false,
      strict: true,
    }) as unknown as LayoutDocument;
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return { ok: false, faults: limit(inner.map(asFault)) };
  }
  const faults = referenceFaults(document);
  return faults.length > 0 ? { ok: false, faults: limit(faults) } : { ok: true, document };
}

function asFault(error: ValidationError): Fault {
  const place = error.path || 'the file';
  const problem = error.message.replace('this ', '');
  return { place, problem: `It ${problem}.`, remedy: `Mend ${place} in the file, or export it again.` };
}

function limit(faults: Fault[]): Fault[] {
  if (faults.length <= MOST_FAULTS) return faults;
  const more = faults.length - MOST_FAULTS;
  return [
    ...faults.slice(0, MOST_FAULTS),
    { place: 'the file', problem: `${more} more faults are not listed.`, remedy: 'Mend the ones above first.' },
  ];
}

/** The document as text for a file: stable field order, two-space indent, so that two exports compare line by line. */
export function writeDocumentText(document: LayoutDocument): string {
  return `${JSON.stringify(document, null, 2)}\n`;
}
