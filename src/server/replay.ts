import { Worker } from 'node:worker_threads';
import type { ReplayAnswer, ReplayTask } from '@/workers/replay.thread';
import { answer, refuse } from './answer';
import { ThreadQueue } from './thread-queue';

const MOST_WAITING = 4;
/** An hour of the largest layout that was ever tried took less. */
const LIMIT_MS = 60_000;

const queue = new ThreadQueue<ReplayTask, ReplayAnswer>(
  () => {
    const thread = new Worker(new URL('../workers/replay.thread.ts', import.meta.url));
    thread.unref();
    return thread;
  },
  MOST_WAITING,
  LIMIT_MS,
);

/** Runs a rehearsal again in a thread of its own; says so when too many wait already, or when it takes too long. */
export async function replayInThread(task: ReplayTask): Promise<Response> {
  const done = await queue.run(task);
  if (done === 'busy') return refuse(429, 'The server is busy with other runs. Try again in a minute.');
  if (done === 'too long') return refuse(413, 'This run takes the server longer than a minute, so it was given up.');
  if (done === 'failed') return refuse(500, 'The run broke off on the server; what happened is in its log.');
  return 'problem' in done ? refuse(422, done.problem) : answer(done);
}
