import type { MoveKind } from './kind';

/** What has been done has come to the rules after so many ticks. */
const SEEN_AFTER_TICKS = 2;

/** Somebody gives a pulse that automatic working waits for. */
export const isGivenAPulse: MoveKind = {
  needs: 'automatic',
  byPeople: true,
  toRules: true,
  pairs: false,
  list(model, add) {
    for (const nth of model.rules.wiring.pulsed.keys()) add(nth, 0);
  },
  take(model, nth) {
    model.rules.pulse(model.rules.wiring.pulsed[nth]!.pulse!);
    return true;
  },
  tell: (model, nth) => `Somebody gives ${model.rules.wiring.pulsed[nth]!.name} a pulse.`,
  steer({ model, run, tell }, { index }) {
    const { id, what } = model.rules.wiring.pulsed[index]!;
    if (!tell({ kind: 'give pulse', thing: id, what })) return undefined;
    const from = run.tick;
    return () => run.tick >= from + SEEN_AFTER_TICKS;
  },
};
