import { type Expr, name } from '../logic';
import type { SignalReading } from '../signals';

/** The first blocks beyond signals. */
export const aheadOf = (signals: readonly SignalReading[]): number[] => [
  ...new Set(
    signals.flatMap(({ routes, rear }) =>
      routes.flatMap(({ blocks }) => blocks.find(({ block }) => block !== rear)?.block ?? []),
    ),
  ),
];

/** Something begins to be so; what is so at power-up does not. */
export const rises = (of: string): Expr => ({ op: 'R_TRIG', in: name(of), starts: true });
