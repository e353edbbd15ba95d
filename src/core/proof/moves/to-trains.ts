import { STARTS_AT } from '../model/placement';
import type { MoveKind } from './kind';

/** A train that may not turn back where it stands draws up so far, in mm, and tries again. */
const DRAWS_UP_MM = 10;

/** A train turns back, where it may. */
export const turnsBack: MoveKind = {
  byPeople: true,
  needs: 'turn back',
  pairs: false,
  list(model, add) {
    for (const [t, { placements }] of model.trains.entries()) {
      if (model.isOff(t)) continue;
      const { turns } = placements[model.present.at[t]!]!;
      for (let choice = 0; choice < turns.length; choice++) add(t, choice);
    }
  },
  take: (model, train, choice) => model.turnBack(train, choice),
  tell: (model, train) => `${model.trains[train]!.name} turns back.`,
  course(model, train, choice) {
    const { placements, longMm } = model.trains[train]!;
    const { to, standsMm, beyondMm } = placements[model.present.at[train]!]!.turns[choice]!;
    return { runMm: 0, longMm: longMm(to), turns: { standsMm, beyondMm } };
  },
  steer({ model, stretches, waitsAt, tell, until, rolling }, { index, longMm, turns: turn }) {
    const { id } = model.trains[index]!;
    const train = rolling(index);
    const { from } = stretches.get(index)!;
    const [near, far] = turn!.standsMm.map((mm) => from + mm) as [number, number];
    const drawUpTo = (goal: number) => {
      if (train.head < goal - 1) {
        tell({ kind: 'draw up', train: id, mm: goal - train.head });
        until(() => train.head >= goal - 1 || !train.running || train.stranded);
      }
      tell({ kind: 'run', train: id, on: false });
      return until(() => train.speed === 0);
    };
    let stoodAt = train.head;
    const turns = () => {
      stoodAt = train.head;
      return tell({ kind: 'turn back', train: id });
    };
    if (!drawUpTo(near + waitsAt * (far - near))) return undefined;
    while (!turns()) {
      /** A little further on it may. */
      if (train.head >= far || !drawUpTo(train.head + DRAWS_UP_MM) || train.head === stoodAt) return undefined;
    }
    stretches.set(index, { from: train.head - (turn!.beyondMm - (stoodAt - from)), longMm });
    return () => true;
  },
};

/** A train that was committed past something comes to a stand, and is committed past nothing that it must stop before. */
export const comesToAStand: MoveKind = {
  pairs: false,
  list(model, add) {
    for (let t = 0; t < model.trains.length; t++) if (!model.isOff(t) && model.canStand(t)) add(t, 0);
  },
  take: (model, train) => model.stand(train),
  tell: (model, train) => `${model.trains[train]!.name} comes to a stand.`,
  steer({ model, tell, rolling }, { index }) {
    tell({ kind: 'run', train: model.trains[index]!.id, on: false });
    return () => rolling(index).speed === 0;
  },
};

/** A train is lifted off the track, wherever it is. */
export const isLiftedOff: MoveKind = {
  byPeople: true,
  needs: 'lift',
  pairs: false,
  list(model, add) {
    for (let t = 0; t < model.trains.length; t++) if (!model.isOff(t)) add(t, 0);
  },
  take: (model, train) => model.lift(train),
  tell: (model, train) => `${model.trains[train]!.name} is lifted off the track.`,
  steer({ model, tell }, { index }) {
    return tell({ kind: 'lift off', train: model.trains[index]!.id }) ? () => true : undefined;
  },
};

/** A train is set down again where it began, on track that is free. */
export const isSetDown: MoveKind = {
  byPeople: true,
  needs: 'lift',
  pairs: false,
  list(model, add) {
    for (let t = 0; t < model.trains.length; t++) if (model.isOff(t) && model.isFreeToSetDown(t)) add(t, 0);
  },
  take: (model, train) => model.setDown(train),
  tell: (model, train) => `${model.trains[train]!.name} is set down where it began.`,
  steer({ model, stretches, tell, rolling }, { index }) {
    const { id, leadMm, longMm } = model.trains[index]!;
    if (!tell({ kind: 'set down', train: id })) return undefined;
    tell({ kind: 'run', train: id, on: false });
    stretches.set(index, { from: rolling(index).head + leadMm, longMm: longMm(STARTS_AT) });
    return () => true;
  },
};
