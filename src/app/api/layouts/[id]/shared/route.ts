import { readDocument } from '@/core/survey';
import { answer, guarded, readFields, refuse } from '@/server/answer';
import { loadLayout } from '@/server/layouts';
import { beginShared, sharedRun } from '@/server/shared-runs';

interface Context {
  params: Promise<{ id: string }>;
}

/** Who takes part in the run of a layout that is shared now; none where there is no such run. */
export async function GET(_request: Request, { params }: Context): Promise<Response> {
  const run = sharedRun((await params).id);
  return answer({ isRunning: run !== undefined, members: run?.members.map(({ name }) => name) ?? [] });
}

/** Begins a run that others can join. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return guarded(async () => {
    const fields = await readFields(request);
    const reading = readDocument(fields?.document);
    if (!reading.ok) return refuse(422, 'This layout cannot be run.', reading.faults);
    const { seed } = fields ?? {};
    if (typeof seed !== 'number' || !Number.isInteger(seed) || seed < 0 || seed > 0xffffffff)
      return refuse(400, 'The run number must be a whole number.');
    if (!(await loadLayout(id))) return refuse(404, 'That layout is no longer there.');
    const problem = beginShared(id, reading.document, seed);
    return problem ? refuse(409, problem) : answer({}, 201);
  });
}
