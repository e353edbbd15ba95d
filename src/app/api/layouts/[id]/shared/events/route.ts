import { refuse } from '@/server/answer';
import { sharedRun } from '@/server/shared-runs';

interface Context {
  params: Promise<{ id: string }>;
}

/** The line on which somebody takes part in a shared run, as server-sent events (WHATWG HTML): once it is lost, they are gone. */
export async function GET(request: Request, { params }: Context): Promise<Response> {
  const run = sharedRun((await params).id);
  if (!run) return refuse(404, 'No run of this layout is shared now.');
  const name = new URL(request.url).searchParams.get('name') ?? '';
  const text = new TextEncoder();
  let leave: (() => void) | undefined;
  const gone = () => {
    leave?.();
    leave = undefined;
  };
  const body = new ReadableStream<Uint8Array>({
    start(line) {
      const send: Parameters<typeof run.join>[1] = (event, value) => {
        try {
          line.enqueue(text.encode(`event: ${event}\ndata: ${JSON.stringify(value)}\n\n`));
        } catch {
          gone();
        }
      };
      const end = () => {
        gone();
        line.close();
      };
      leave = run.join(name, send, end);
      if (!leave) {
        line.enqueue(text.encode('event: full\ndata: {}\n\n'));
        line.close();
      }
    },
    cancel: gone,
  });
  request.signal.addEventListener('abort', gone);
  return new Response(body, {
    headers: { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' },
  });
}
