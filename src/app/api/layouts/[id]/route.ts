import { readDocument } from '@/core/survey';
import { answer, guarded, readFields, refuse } from '@/server/answer';
import { loadLayout, saveLayout, setDeleted } from '@/server/layouts';

interface Context {
  params: Promise<{ id: string }>;
}
const GONE = 'That layout is no longer there.';

export async function GET(_request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return guarded(async () => {
    const layout = await loadLayout(id);
    return layout ? answer(layout) : refuse(404, GONE);
  });
}

/** Saves a document over the revision it was made from; answers 409 with the present one when that has moved on. */
export async function PUT(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  const fields = await readFields(request);
  const reading = readDocument(fields?.document);
  if (!reading.ok) return refuse(422, 'This version cannot be saved.', reading.faults);
  const base = fields?.revision;
  if (typeof base !== 'number' || !Number.isInteger(base))
    return refuse(400, 'The save does not say which version it was made from.');
  const token = typeof fields?.token === 'string' ? fields.token : '';
  return guarded(async () => {
    const result = await saveLayout(id, base, reading.document, token);
    if (result.ok) return answer({ revision: result.revision });
    if (result.reason === 'gone') return refuse(404, GONE);
    return answer({ problem: 'This layout was changed in another window.', current: result.current }, 409);
  });
}

export async function DELETE(_request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return guarded(async () => ((await setDeleted(id, true)) ? answer({}) : refuse(404, GONE)));
}
