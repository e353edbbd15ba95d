import { readDocument } from '@/core/survey';
import { answer, guarded, readFields, refuse } from '@/server/answer';
import { keepAside, keepDraft, listRevisions, loadLayout } from '@/server/layouts';

interface Context {
  params: Promise<{ id: string }>;
}
const GONE = 'That layout is no longer there.';

/** Every version that is kept, newest first. */
export async function GET(_request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return guarded(async () => ((await loadLayout(id)) ? answer(await listRevisions(id)) : refuse(404, GONE)));
}

/**
 * Keeps a version under a name: the draft as it stands, or a document given with it that is not to become the draft, beside the version it
 * was looked at with; 409 with the present one when that has moved on.
 */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  const fields = await readFields(request);
  const name = typeof fields?.name === 'string' ? fields.name.trim().slice(0, 80) : '';
  if (!name) return refuse(400, 'Give the version a name.');
  if (fields?.document !== undefined) {
    const reading = readDocument(fields.document);
    if (!reading.ok) return refuse(422, 'This version cannot be kept.', reading.faults);
    const base = fields.revision;
    if (typeof base !== 'number' || !Number.isInteger(base))
      return refuse(400, 'It is not said beside which version this one is kept.');
    return guarded(async () => {
      const result = await keepAside(id, base, reading.document, name);
      if (result.ok) return answer({ revision: result.revision }, 201);
      if (result.reason === 'gone') return refuse(404, GONE);
      return answer({ problem: 'This layout was changed in another window.', current: result.current }, 409);
    });
  }
  return guarded(async () => {
    const number = await keepDraft(id, name);
    return number === undefined ? refuse(404, GONE) : answer({ number }, 201);
  });
}
