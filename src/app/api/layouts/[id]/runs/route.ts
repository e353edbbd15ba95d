import { answer, guarded, readFields, refuse } from '@/server/answer';
import { loadLayout } from '@/server/layouts';
import { readRecording } from '@/server/read-recording';
import { keepRun, listRuns } from '@/server/runs';

interface Context {
  params: Promise<{ id: string }>;
}
const GONE = 'That layout is no longer there.';

export async function GET(_request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return guarded(async () => ((await loadLayout(id)) ? answer(await listRuns(id)) : refuse(404, GONE)));
}

/** Keeps a run under a name. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  const fields = await readFields(request);
  const recording = readRecording(fields);
  if (recording instanceof Response) return recording;
  const name = typeof fields?.name === 'string' ? fields.name.trim() : '';
  if (!name) return refuse(400, 'Give the run a name.');
  const hash = typeof fields?.hash === 'string' && /^[0-9a-f]{16}$/.test(fields.hash) ? fields.hash : undefined;
  if (!hash) return refuse(400, 'The trace of the run is missing.');
  return guarded(async () => {
    if (!(await loadLayout(id))) return refuse(404, GONE);
    return answer({ id: await keepRun(id, { ...recording, name, hash }) }, 201);
  });
}
