import { isCommand } from '@/core/simulation';
import { answer, guarded, readFields, refuse } from '@/server/answer';
import { sharedRun } from '@/server/shared-runs';

interface Context {
  params: Promise<{ id: string }>;
}
const FASTEST = 50;

/** What somebody who takes part tells the run: a command, how fast it goes, that a post is handed over, or only that they are still there. */
export async function POST(request: Request, { params }: Context): Promise<Response> {
  const { id } = await params;
  return guarded(async () => {
    const run = sharedRun(id);
    if (!run) return refuse(404, 'No run of this layout is shared now.');
    const { member, command, times, handOver, alive } = (await readFields(request)) ?? {};
    if (typeof member !== 'string') return refuse(400, 'It is not said who tells that.');
    const isHeard = run.hear(member);
    if (alive === true) return told(isHeard ? undefined : 'You no longer take part in this run.');
    if (isCommand(command)) return told(run.command(member, command));
    if (typeof times === 'number' && times >= 0 && times <= FASTEST) return told(run.setTimes(member, times));
    const { post, to } = (handOver ?? {}) as { post?: unknown; to?: unknown };
    if (typeof post === 'string' && typeof to === 'string') return told(run.handOver(member, post, to));
    return refuse(400, 'That is nothing which can be told to a run.');
  });
}

const told = (problem: string | undefined): Response => (problem ? refuse(409, problem) : answer({}));
