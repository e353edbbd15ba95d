import { randomUUID } from 'node:crypto';
import { sharedText } from '@/core/design';
import { type Beat, type Command, type Member, type Opening, SharedRun } from '@/core/simulation';
import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';

/** So often everybody is told how far the run has come. */
const BEAT_MS = 60;
/** With nobody left it waits so long for one who is coming back. */
const EMPTY_MS = 20_000;
/** A line that is silent for longer is taken for dead on the way. */
const ALIVE_MS = 15_000;
/** Who has not been heard of for longer is lost; a page that is out of sight speaks once a minute. */
const SILENT_MS = 75_000;
const MOST_RUNS = 50;

type Send = (event: 'opening' | 'beat' | 'alive', value: Opening | Beat | Record<string, never>) => void;

/** A run that the server owns: its clock, and lines to everybody who takes part. */
class HostedRun {
  private readonly run: SharedRun;
  private readonly document: string;
  private readonly lines = new Map<string, { send: Send; end(): void; heardAt: number }>();
  private readonly timer: ReturnType<typeof setInterval>;
  private last = performance.now();
  private emptySince: number | undefined = performance.now();
  private toldAt = performance.now();

  constructor(
    document: LayoutDocument,
    private readonly seed: number,
    private readonly end: () => void,
  ) {
    this.document = sharedText(document);
    this.run = new SharedRun(compileSystem(document).posts);
    this.timer = setInterval(() => this.goOn(), BEAT_MS);
    this.timer.unref();
  }

  private goOn(): void {
    const now = performance.now();
    const isGoing = this.run.isGoing;
    this.run.pass(now - this.last);
    this.last = now;
    for (const { end, heardAt } of [...this.lines.values()]) if (now - heardAt > SILENT_MS) end();
    if (this.emptySince !== undefined && now - this.emptySince > EMPTY_MS) {
      clearInterval(this.timer);
      this.end();
    } else if (isGoing) this.tell();
    else if (now - this.toldAt > ALIVE_MS) this.send('alive', {});
  }
  private tell(): void {
    this.send('beat', this.run.beat());
  }
  private send(...told: Parameters<Send>): void {
    this.toldAt = performance.now();
    for (const { send } of [...this.lines.values()]) send(...told);
  }

  /** Somebody comes in; what ends that, or undefined where it is full. `end`: closes the line of somebody who is lost. */
  join(name: string, send: Send, end: () => void): (() => void) | undefined {
    const member = randomUUID();
    if (!this.run.join(member, name)) return undefined;
    /** What others have still to hear comes first, so that it is not told twice. */
    this.tell();
    this.lines.set(member, { send, end, heardAt: performance.now() });
    this.emptySince = undefined;
    send('opening', { ...this.run.whole, member, document: this.document, seed: this.seed });
    this.tell();
    return () => {
      this.lines.delete(member);
      this.run.leave(member);
      if (this.run.isEmpty) {
        this.emptySince = performance.now();
        this.run.setTimes(0);
      }
      this.tell();
    };
  }

  /** Somebody is still there; false where they take no part. */
  hear(by: string): boolean {
    const line = this.lines.get(by);
    if (line) line.heardAt = performance.now();
    return line !== undefined;
  }
  command(by: string, command: Command): string | undefined {
    const problem = this.run.command(by, command);
    this.tell();
    return problem;
  }
  handOver(by: string, post: string, to: string): string | undefined {
    const problem = this.run.handOver(by, post, to);
    this.tell();
    return problem;
  }
  /** Undefined where that person takes no part. */
  setTimes(by: string, times: number): string | undefined {
    if (!this.lines.has(by)) return 'You no longer take part in this run.';
    this.run.setTimes(times);
    this.tell();
    return undefined;
  }
  get members(): Member[] {
    return this.run.whole.members;
  }
}

/** Every part of the server has the same ones, however often its code is loaded. */
const known = globalThis as typeof globalThis & { roblikSharedRuns?: Map<string, HostedRun> };
known.roblikSharedRuns ??= new Map();
const runs = known.roblikSharedRuns;

/** The run of a layout that several people share, if there is one. */
export const sharedRun = (layout: string): HostedRun | undefined => runs.get(layout);

/** Begins one; a sentence where that cannot be. */
export function beginShared(layout: string, document: LayoutDocument, seed: number): string | undefined {
  if (runs.has(layout)) return 'Somebody has begun a run of this layout already: join it.';
  if (runs.size >= MOST_RUNS) return 'The server has as many runs as it can. Try again later.';
  runs.set(layout, new HostedRun(document, seed, () => runs.delete(layout)));
  return undefined;
}
