import { answer, guarded, refuse } from '@/server/answer';
import { loadRevision } from '@/server/layouts';

/** The document of one kept version. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ id: string; number: string }> },
): Promise<Response> {
  const { id, number } = await params;
  return guarded(async () => {
    const document = /^\d{1,9}$/.test(number) ? await loadRevision(id, Number(number)) : undefined;
    return document ? answer({ document }) : refuse(404, 'That version is not kept.');
  });
}
