import type { TenthUm } from '../measure';
import { type LayoutDocument, systemOf } from '../survey';
import type { SignalReading } from './routes';

/** How long before a signal at stop a train learns of it, by the shortest way there. */
export interface Warning {
  /** The signal at stop, by number. */
  stop: number;
  /** The signal that says so first. */
  by: number;
  /** From where its aspect is obeyed: the signal before that one. */
  from: number;
  length: TenthUm;
}

/**
 * Every way by which a stop is learnt of, each with its length. A train obeys the signal before it as soon as it has passed the one
 * before that. So a stop is known from the signal before the first one whose system can announce it from so far.
 */
export function warningsOf(document: LayoutDocument, readings: readonly SignalReading[]): Warning[] {
  const before = readings.map(() => [] as { from: number; length: TenthUm }[]);
  for (const { index, routes } of readings)
    for (const { ending, length } of routes)
      if (ending.kind === 'signal') before[ending.signal]!.push({ from: index, length });
  const farthest = readings.map(({ signal }) =>
    Math.max(
      ...systemOf(document, signal.system).aspects.map(({ stopsIn }) => (Number.isFinite(stopsIn) ? stopsIn : 0)),
    ),
  );
  const found: Warning[] = [];
  const walk = (stop: number, by: number, signals: number, length: TenthUm) => {
    for (const leg of before[by]!) {
      const whole = length + leg.length;
      const announces = farthest[leg.from]! > signals;
      if (announces) walk(stop, leg.from, signals + 1, whole);
      else found.push({ stop, by, from: leg.from, length: whole });
    }
  };
  for (const { index } of readings) walk(index, index, 0, 0);
  return found;
}
