import type { ProofModel } from '../model/model';
import type { MoveKind } from './kind';

/** Nobody need be in it: of a placement that is several in which nothing is noticed, one in which the train is not will do. */
const isEmpty = (model: ProofModel, block: number): boolean =>
  model.trains.every(
    ({ placements }, t) =>
      model.isOff(t) || placements[model.present.at[t]!]!.heldIn.some((held) => !held.includes(block)),
  );

/** Somebody looks at a block of which nothing notices that it is free, and says so; it is free. */
export const isSaidToBeFree: MoveKind = {
  byPeople: true,
  needs: 'say free',
  pairs: false,
  list(model, add) {
    const { rules } = model;
    for (const [nth, { block, inside }] of rules.wiring.frees.entries())
      if (rules.valuesIn(model.ruleState)[inside] === 1 && isEmpty(model, block)) add(nth, 0);
  },
  take(model, nth) {
    model.rules.pulse(model.rules.wiring.frees[nth]!.slot);
    return true;
  },
  tell: (model, nth) => `Somebody looks, and says that ${blockOf(model, nth).name} is free.`,
  steer({ model, run, tell }, { index }) {
    if (!tell({ kind: 'say', block: blockOf(model, index).id, free: true })) return undefined;
    const from = run.tick;
    return () => run.tick >= from + 2;
  },
};

const isOff = (model: ProofModel, motor: number): boolean =>
  model.trains.every(({ placements }, t) => model.isOff(t) || !placements[model.present.at[t]!]!.over.includes(motor));

/** Somebody looks, sees nothing near the points that are held until a train has arrived, and gives up its run. */
export const isGivenUp: MoveKind = {
  byPeople: true,
  needs: 'give up',
  pairs: false,
  list(model, add) {
    const { rules } = model;
    for (const [nth, { blocks, motors, underWay }] of rules.wiring.releases.entries()) {
      if (rules.valuesIn(model.ruleState)[underWay] !== 1) continue;
      if (blocks.every((block) => isEmpty(model, block)) && motors.every((motor) => isOff(model, motor))) add(nth, 0);
    }
  },
  take(model, nth) {
    model.rules.pulse(model.rules.wiring.releases[nth]!.slot);
    return true;
  },
  tell({ system, rules }, nth) {
    const { signal, to } = rules.wiring.releases[nth]!;
    return `Somebody looks, and gives up the run from ${system.readings[signal]!.signal.name} to ${to}.`;
  },
  steer({ model: { system, rules }, run, tell }, { index }) {
    const { signal, route } = rules.wiring.releases[index]!;
    if (!tell({ kind: 'give up', signal: system.readings[signal]!.signal.id, route })) return undefined;
    const from = run.tick;
    return () => run.tick >= from + 2;
  },
};

/** Somebody says of a block of which nothing notices what is in it that it is taken; whether it is or not. */
export const isSaidToBeTaken: MoveKind = {
  byPeople: true,
  needs: 'say taken',
  pairs: false,
  list(model, add) {
    const { rules } = model;
    for (const [nth, { inside }] of rules.wiring.frees.entries())
      if (rules.valuesIn(model.ruleState)[inside] !== 1) add(nth, 0);
  },
  take(model, nth) {
    model.rules.pulse(model.rules.wiring.frees[nth]!.taken);
    return true;
  },
  tell: (model, nth) => `Somebody says that a train is in ${blockOf(model, nth).name}.`,
  steer({ model, run, tell }, { index }) {
    if (!tell({ kind: 'say', block: blockOf(model, index).id, free: false })) return undefined;
    const from = run.tick;
    return () => run.tick >= from + 2;
  },
};

const blockOf = ({ system, rules }: ProofModel, nth: number) =>
  system.partition.blocks[rules.wiring.frees[nth]!.block]!;
