/** A thread that takes one task at a time: what a queue needs of a worker thread. */
export interface Thread<Task, Answer> {
  postMessage(task: Task): void;
  on(event: 'message' | 'error' | 'exit', listener: (answer: Answer) => void): unknown;
  off(event: 'message' | 'error' | 'exit', listener: (answer: Answer) => void): unknown;
  terminate(): Promise<unknown>;
}

/** Why a task has no answer. */
export type NoAnswer = 'busy' | 'too long' | 'failed';

interface Waiting<Task, Answer> {
  task: Task;
  tell(answer: Answer | NoAnswer): void;
}

/**
 * Tasks for one thread: those that come while it works wait, up to `mostWaiting`, and one more is told “busy”. A task that takes
 * longer than `limitMs` is given up and the thread with it; the next task begins another one.
 */
export class ThreadQueue<Task, Answer extends object> {
  private thread: Thread<Task, Answer> | undefined;
  private working = false;
  private readonly waiting: Waiting<Task, Answer>[] = [];

  constructor(
    private readonly start: () => Thread<Task, Answer>,
    private readonly mostWaiting: number,
    private readonly limitMs: number,
  ) {}

  run(task: Task): Promise<Answer | NoAnswer> {
    if (this.working && this.waiting.length >= this.mostWaiting) return Promise.resolve('busy');
    return new Promise((tell) => {
      this.waiting.push({ task, tell });
      this.next();
    });
  }

  private next(): void {
    const next = this.working ? undefined : this.waiting.shift();
    if (!next) return;
    this.working = true;
    this.thread ??= this.start();
    const { thread } = this;
    const end = (answer: Answer | NoAnswer) => {
      clearTimeout(timer);
      thread.off('message', end);
      thread.off('error', fail);
      thread.off('exit', fail);
      if (typeof answer === 'string') {
        this.thread = undefined;
        void thread.terminate();
      }
      this.working = false;
      next.tell(answer);
      this.next();
    };
    const fail = () => end('failed');
    const timer = setTimeout(() => end('too long'), this.limitMs);
    thread.on('message', end);
    thread.on('error', fail);
    thread.on('exit', fail);
    thread.postMessage(next.task);
  }
}
