import { writeDocumentText } from '@/core/survey';
import { guarded, refuse } from '@/server/answer';
import { loadLayout } from '@/server/layouts';

/** The document as a file. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const { id } = await params;
  return guarded(async () => {
    const layout = await loadLayout(id);
    if (!layout) return refuse(404, 'That layout is no longer there.');
    const file = `${
      layout.name
        .replace(/[^A-Za-z0-9]+/g, '-')
        .replace(/^-|-$/g, '')
        .toLowerCase() || 'layout'
    }.roblik.json`;
    return new Response(writeDocumentText(layout.document), {
      headers: {
        'Content-Type': 'application/json; charset=utf-8',
        'Content-Disposition': `attachment; filename="${file}"`,
        'Cache-Control': 'no-store',
      },
    });
  });
}
