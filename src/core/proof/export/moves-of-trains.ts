import { meet } from '../model/proof-train';
import type { PromelaText } from './promela-text';

/** Writes the steps of one kind as alternatives of the Promela model’s loop. */
export type WriteMove = (text: PromelaText) => void;

export const goesOn: WriteMove = (text) => {
  const { say, does, whenever } = text;
  for (const [t, { placements }] of text.model.trains.entries()) {
    const id = text.thing(`train ${t}`);
    for (const [p, { before, advances }] of placements.entries())
      for (const { to, gates, passes, carry, turnouts, seen, offTheEnd } of advances) {
        const may = [text.begins(id, seen), `at${t} == ${p}`];
        for (const gate of gates) {
          const { signal, over } = before[gate]!;
          const proceed = signal < 0 ? '' : ` || !${text.isAtStop(signal)}`;
          may.push(`(past${t} > ${gate} || !${text.coming(over)}${proceed})`);
        }
        for (const { motor, position, facing } of turnouts)
          if (facing) may.push(`(lies${motor} > 1 || lies${motor} == ${position})`);
        if (offTheEnd) {
          say(`  :: d_step { ${may.join(' && ')} -> ${text.clear}; ${does('leaves the track')} }`);
          continue;
        }
        const deeds = passes.map((thing) =>
          whenever(
            text.isAtStop(before[thing]!.signal),
            `if :: counted${t} & ${1 << thing} -> ${does('passes a signal that dropped')} :: else -> ${does('passes a stop unannounced')} fi`,
          ),
        );
        for (const { motor, position } of turnouts)
          deeds.push(whenever(`lies${motor} != ${position}`, does('meets wrong points')));
        deeds.push(`at${t} = ${to}; past = 0; counted = 0`);
        carry.forEach((now, i) => {
          if (now < 0) return;
          deeds.push(whenever(`past${t} > ${i} && past < ${now + 1}`, `past = ${now + 1}`));
          deeds.push(whenever(`counted${t} & ${1 << i}`, `counted = counted | ${1 << now}`));
        });
        deeds.push(`past${t} = past; counted${t} = counted; past = 0; counted = 0`);
        deeds.push(`todo = ${text.toLook(t, !seen)}`);
        const after = seen ? text.takes(id, true) : `${text.clear}; skip`;
        say(`  :: d_step { ${may.join(' && ')} -> ${after}; ${deeds.join('; ')} }`);
      }
  }
};

export const turnsBack: WriteMove = (text) => {
  for (const [t, { placements, tellings }] of text.model.trains.entries()) {
    const id = text.thing(`train ${t}`);
    for (const [p, { turns }] of placements.entries())
      for (const [choice, { to }] of turns.entries()) {
        const moved = `at${t} = ${to}; past${t} = 0; counted${t} = 0; todo = ${text.toLook(t, false)}`;
        const deed = [moved, ...text.told(t, tellings[p]![choice]!)].join('; ');
        text.say(`  :: d_step { ${text.begins(id, false)} && at${t} == ${p} -> ${text.takes(id, false)}; ${deed} }`);
      }
  }
};

export const comesToAStand: WriteMove = (text) => {
  for (const t of text.model.trains.keys()) {
    const may = `${text.begins(text.thing(`train ${t}`), false)} && past${t} > 0`;
    const stood = `past${t} = 0; counted${t} = 0; todo = ${text.toLook(t, true)}`;
    text.say(`  :: d_step { ${may} -> ${text.clear}; ${stood} }`);
  }
};

export const isLiftedOff: WriteMove = (text) => {
  for (const [t, { placements }] of text.model.trains.entries()) {
    const id = text.thing(`train ${t}`);
    const off = placements.length;
    const deed = `at${t} = ${off}; past${t} = 0; counted${t} = 0; todo = ${text.toLook(t, false)}`;
    text.say(`  :: d_step { ${text.begins(id, false)} && at${t} != ${off} -> ${text.takes(id, false)}; ${deed} }`);
  }
};

export const isSetDown: WriteMove = (text) => {
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
};
