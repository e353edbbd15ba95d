import type { MoveKind } from './kind';

/** A train turns back, where it may. */
export const turnsBack: MoveKind = {
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
    const { to } = placements[model.present.at[train]!]!.turns[choice]!;
    return { runMm: 0, longMm: longMm(to), late: false, rests: false };
  },
  steer({ model, due, waitsAt, tell, until, rolling }, { index, longMm }) {
    const { id } = model.trains[index]!;
    const train = rolling(index);
    tell({ kind: 'run', train: id, on: false });
    if (!until(() => train.speed === 0) || !tell({ kind: 'turn back', train: id })) return undefined;
    due.set(index, train.head - waitsAt * longMm);
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
  needs: 'lift',
  pairs: false,
  list(model, add) {
    for (let t = 0; t < model.trains.length; t++) if (!model.isOff(t)) add(t, 0);
  },
  take: (model, train) => model.lift(train),
  tell: (model, train) => `${model.trains[train]!.name} is lifted off the track.`,
  steer({ model, due, tell }, { index }) {
    due.delete(index);
    return tell({ kind: 'lift off', train: model.trains[index]!.id }) ? () => true : undefined;
  },
};

/** A train is set down again where it began, on track that is free. */
export const isSetDown: MoveKind = {
  needs: 'lift',
  pairs: false,
  list(model, add) {
    for (let t = 0; t < model.trains.length; t++) if (model.isOff(t) && model.isFreeToSetDown(t)) add(t, 0);
  },
  take: (model, train) => model.setDown(train),
  tell: (model, train) => `${model.trains[train]!.name} is set down where it began.`,
  steer({ model, tell }, { index }) {
    const { id } = model.trains[index]!;
    if (!tell({ kind: 'set down', train: id })) return undefined;
    tell({ kind: 'run', train: id, on: false });
    return () => true;
  },
};
