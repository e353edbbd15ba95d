/** Sensors that miss a pulse, by the slot of their input: this one, the next, or the one after the present one. */
export class MissedPulses {
  private readonly missing = new Map<number, 'now' | 'next' | 'after this'>();

  /** The next pulse is missed; one that is being given now is not. */
  missNext(slot: number, detected: number): void {
    this.missing.set(slot, detected === 1 ? 'after this' : 'next');
  }

  /** What a sensor says of what it should notice: nothing while it misses a pulse, which ends with that. */
  noticed(slot: number, detected: number): number {
    const missing = this.missing.get(slot);
    if (missing === undefined) return detected;
    if (detected === 1) {
      if (missing === 'after this') return 1;
      this.missing.set(slot, 'now');
    } else if (missing === 'after this') this.missing.set(slot, 'next');
    else if (missing === 'now') this.missing.delete(slot);
    return 0;
  }
}
