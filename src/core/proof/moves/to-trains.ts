import { meet } from '../proof-train';
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
  write(text) {
    for (const [t, { placements, tellings }] of text.model.trains.entries()) {
      const id = text.thing(`train ${t}`);
      for (const [p, { turns }] of placements.entries())
        for (const [choice, { to }] of turns.entries()) {
          const moved = `at${t} = ${to}; past${t} = 0; counted${t} = 0; todo = ${text.toLook(t, false)}`;
          const deed = [moved, ...text.told(t, tellings[p]![choice]!)].join('; ');
          text.say(`  :: d_step { ${text.begins(id, false)} && at${t} == ${p} -> ${text.takes(id, false)}; ${deed} }`);
        }
    }
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
  write(text) {
    for (const t of text.model.trains.keys()) {
      const may = `${text.begins(text.thing(`train ${t}`), false)} && past${t} > 0`;
      const stood = `past${t} = 0; counted${t} = 0; todo = ${text.toLook(t, true)}`;
      text.say(`  :: d_step { ${may} -> ${text.clear}; ${stood} }`);
    }
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
  write(text) {
    for (const [t, { placements }] of text.model.trains.entries()) {
      const id = text.thing(`train ${t}`);
      const off = placements.length;
      const deed = `at${t} = ${off}; past${t} = 0; counted${t} = 0; todo = ${text.toLook(t, false)}`;
      text.say(`  :: d_step { ${text.begins(id, false)} && at${t} != ${off} -> ${text.takes(id, false)}; ${deed} }`);
    }
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
  write(text) {
    const { trains } = text.model;
    for (const [t, train] of trains.entries()) {
      const id = text.thing(`train ${t}`);
      const taken = trains.flatMap((other, o) => {
        const there = o === t ? [] : text.where(o, (_, q) => meet(train.pieces, 0, other.pieces, q));
        return there.length > 0 ? [text.among(o, there)] : [];
      });
      const may = `at${t} == ${train.placements.length} && !(${text.either(taken)})`;
      const deed = [`at${t} = 0; todo = ${text.toLook(t, false)}`, ...text.told(t, train.toldAtStart)].join('; ');
      text.say(`  :: d_step { ${text.begins(id, false)} && ${may} -> ${text.takes(id, false)}; ${deed} }`);
    }
  },
};
