import { answer, guarded, refuse } from '@/server/answer';
import { setDeleted } from '@/server/layouts';

/** Takes a deletion back. */
export async function POST(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return guarded(async () =>
    (await setDeleted(id, false)) ? answer({}) : refuse(404, 'There is no deleted layout to bring back.'),
  );
}
