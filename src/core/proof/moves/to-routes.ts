import type { ProofModel } from '../model/model';
import type { MoveKind } from './kind';

const commandedIn = ({ rules }: ProofModel) => rules.wiring.commanded;
const isSet = (model: ProofModel, nth: number): boolean =>
  model.rules.valuesIn(model.ruleState)[commandedIn(model)[nth]!.isSet] === 1;
const nameOf = ({ system }: ProofModel, signal: number) => system.readings[signal]!.signal;
/** What was done has come to the rules after so many ticks. */
const SEEN_AFTER_TICKS = 2;

/** Somebody sets a route beside which none is set that conflicts. */
export const isSetByPeople: MoveKind = {
  byPeople: true,
  toRules: true,
  pairs: false,
  list(model, add) {
    for (const [nth, { rivals }] of commandedIn(model).entries())
      if (!isSet(model, nth) && !rivals.some((rival) => isSet(model, rival))) add(nth, 0);
  },
  take(model, nth) {
    model.rules.pulse(commandedIn(model)[nth]!.button);
    return true;
  },
  tell(model, nth) {
    const { signal, to } = commandedIn(model)[nth]!;
    return `Somebody sets ${nameOf(model, signal).name} to ${to}.`;
  },
  steer({ model, run, tell }, { index }) {
    const { signal, route } = commandedIn(model)[index]!;
    if (!tell({ kind: 'set route', signal: nameOf(model, signal).id, route })) return undefined;
    const from = run.tick;
    return () => run.tick >= from + SEEN_AFTER_TICKS;
  },
};

/** A train would set it again at once. */
const isSetAgain = ({ rules, ruleState }: ProofModel, unless: number | undefined): boolean =>
  unless !== undefined && rules.valuesIn(ruleState)[unless] !== 1;

/** Its signal is at stop, or no train stands in the block in rear of it, or has any part there still. */
const isAwayFrom = (model: ProofModel, signal: number): boolean =>
  model.isAtStop(signal) ||
  model.trains.every(
    ({ placements }, t) =>
      model.isOff(t) || !placements[model.present.at[t]!]!.blocks.includes(model.system.readings[signal]!.rear),
  );

/** Somebody cancels a route that is set. Where trains are decides whether he may, so that it is no step of the rules alone. */
export const isCancelled: MoveKind = {
  byPeople: true,
  pairs: false,
  list(model, add) {
    for (const [nth, { signal, byTrainsUnless }] of commandedIn(model).entries())
      if (
        isSet(model, nth) &&
        !isSetAgain(model, byTrainsUnless) &&
        (model.rules.wiring.cancelsAtAnyMoment || isAwayFrom(model, signal))
      )
        add(nth, 0);
  },
  take(model, nth) {
    model.rules.pulse(commandedIn(model)[nth]!.cancel);
    return true;
  },
  tell: (model, nth) => `Somebody cancels what is set from ${nameOf(model, commandedIn(model)[nth]!.signal).name}.`,
  steer({ model, run, tell }, { index }) {
    if (!tell({ kind: 'cancel routes', signal: nameOf(model, commandedIn(model)[index]!.signal).id })) return undefined;
    const from = run.tick;
    return () => run.tick >= from + SEEN_AFTER_TICKS;
  },
};
