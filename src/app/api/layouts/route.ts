import { newDocument, readDocument } from '@/core/survey';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { answer, guarded, readFields, refuse } from '@/server/answer';
import { createLayout } from '@/server/layouts';

/** Makes an empty layout, or a copy of an example. */
export async function POST(request: Request): Promise<Response> {
  const fields = await readFields(request);
  const example = EXAMPLES.find(({ id }) => id === fields?.example);
  if (example)
    return guarded(async () => answer({ id: await createLayout(exampleLayout(example), 'An example') }, 201));
  if (fields?.example !== undefined) return refuse(400, 'There is no such example.');
  const name = typeof fields?.name === 'string' ? fields.name.trim() : '';
  if (!name) return refuse(400, 'Give the layout a name.');
  if (name.length > 80) return refuse(400, 'That name is too long: 80 letters at most.');
  const document = {
    ...newDocument(name, 'H0', fields?.shownUnit === 'inch' ? 'inch' : 'cm'),
    ...(fields?.scale === undefined ? {} : { scale: fields.scale }),
  };
  const reading = readDocument(document);
  if (!reading.ok) return refuse(400, 'That cannot be a layout.', reading.faults);
  return guarded(async () => answer({ id: await createLayout(reading.document, 'Made') }, 201));
}
