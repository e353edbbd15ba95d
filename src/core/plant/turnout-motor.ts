import type { PointsPosition } from './tape';

/** A motor of points, and how it lies: between its positions while it moves. */
export class TurnoutMotor {
  position: PointsPosition;
  private leftMs = 0;

  constructor(
    private target: 'straight' | 'diverging',
    private readonly throwMs: number,
  ) {
    this.position = target;
  }

  /** Sends it to a position; true when it starts to move. */
  send(to: 'straight' | 'diverging'): boolean {
    if (to === this.target) return false;
    this.target = to;
    this.leftMs = this.throwMs;
    this.position = 'between';
    return true;
  }

  /** Lets time pass; true when it has just arrived. */
  step(ms: number): boolean {
    if (this.position !== 'between') return false;
    this.leftMs -= ms;
    if (this.leftMs > 0) return false;
    this.position = this.target;
    return true;
  }
}
