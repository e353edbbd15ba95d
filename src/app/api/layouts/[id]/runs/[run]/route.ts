import { answer, guarded, refuse } from '@/server/answer';
import { deleteRun, loadRun } from '@/server/runs';

interface Context {
  params: Promise<{ id: string; run: string }>;
}
const GONE = 'That run is no longer there.';

export async function GET(_request: Request, { params }: Context): Promise<Response> {
  const { id, run } = await params;
  return guarded(async () => {
    const kept = await loadRun(id, run);
    return kept ? answer(kept) : refuse(404, GONE);
  });
}

export async function DELETE(_request: Request, { params }: Context): Promise<Response> {
  const { id, run } = await params;
  return guarded(async () => ((await deleteRun(id, run)) ? answer({}) : refuse(404, GONE)));
}
