/** What else is asked meanwhile is answered between steps of so many ms. */
const STEP_MS = 60;

/** Something long that is done in steps, one at a time: it is given up once it is begun anew, or stopped. */
export class InSteps {
  private newest: Generator<number, unknown> | undefined;

  /** `reached`: told how far it is, from 0 to 1. Undefined where it was given up. */
  async run<Found>(work: Generator<number, Found>, reached: (share: number) => void): Promise<Found | undefined> {
    this.newest = work;
    for (;;) {
      const until = performance.now() + STEP_MS;
      let step = work.next();
      while (!step.done && performance.now() < until) step = work.next();
      if (step.done) return step.value;
      reached(step.value);
      await new Promise((resolve) => setTimeout(resolve));
      if (this.newest !== work) return undefined;
    }
  }

  stop(): void {
    this.newest = undefined;
  }
}
