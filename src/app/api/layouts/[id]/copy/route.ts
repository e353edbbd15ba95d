import { answer, guarded, refuse } from '@/server/answer';
import { createLayout, loadLayout } from '@/server/layouts';

export async function POST(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return guarded(async () => {
    const layout = await loadLayout(id);
    if (!layout) return refuse(404, 'That layout is no longer there.');
    const name = `${layout.name.slice(0, 73)} (copy)`;
    return answer({ id: await createLayout({ ...layout.document, name }, `Copied from ${layout.name}`) }, 201);
  });
}
