import { readDocumentText } from '@/core/survey';
import { answer, guarded, readBody, refuse } from '@/server/answer';
import { createLayout } from '@/server/layouts';

/** Takes a layout file whole, or names its faults and takes nothing of it. */
export async function POST(request: Request): Promise<Response> {
  const text = await readBody(request);
  if (text === undefined)
    return refuse(413, 'That file is larger than 20 MB. A layout file is a few hundred kilobytes at most.');
  const reading = readDocumentText(text);
  if (!reading.ok) return refuse(422, 'Nothing was imported. Mend these in the file and try again:', reading.faults);
  return guarded(async () => answer({ id: await createLayout(reading.document, 'Imported') }, 201));
}
