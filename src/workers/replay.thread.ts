import { parentPort } from 'node:worker_threads';
import { replay, type TimedCommand } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';

export interface ReplayTask {
  document: LayoutDocument;
  seed: number;
  ticks: number;
  commands: TimedCommand[];
}
export type ReplayAnswer = { hash: string; ticks: number } | { problem: string };

/** Runs whole rehearsals off the server's main thread, one after the other. */
parentPort?.on('message', ({ document, seed, ticks, commands }: ReplayTask) => {
  let answer: ReplayAnswer;
  try {
    const run = replay(compileSystem(document), seed, ticks, commands);
    answer = { hash: run.traceHash, ticks: run.tick };
  } catch (error) {
    answer = { problem: error instanceof Error ? error.message : 'It cannot be run.' };
  }
  parentPort!.postMessage(answer);
});
