/** So often a check is practised, and so long nothing must have been asked before each time. */
const TIMES = 10;
const PAUSE_MS = 150;

/**
 * Repeats what a worker will have to do at every edit, while nothing is asked of it. A person makes few edits, so that without this the
 * engine would still be running code that it has not optimised by the time the person waits for a verdict.
 */
export class Practice {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private times = 0;

  /** `once` does it on something that is like an edit; `last` leaves everything as it was before. */
  constructor(
    private readonly once: () => void,
    private readonly last: () => void,
  ) {}

  /** Something was asked: practising waits, and goes on once nothing more is asked. */
  later(): void {
    clearTimeout(this.timer);
    if (this.times > TIMES) return;
    this.timer = setTimeout(() => {
      if (this.times++ < TIMES) this.once();
      else this.last();
      this.later();
    }, PAUSE_MS);
  }
}
