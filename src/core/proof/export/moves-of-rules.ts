import { pulsing } from '../moves';
import type { WriteMove } from './moves-of-trains';

export const timerEnds: WriteMove = (text) => {
  text.rules.timers.forEach(({ word, ton }, i) => {
    const id = text.thing(`timer ${i}`);
    const counts = ton ? `memo[${word}] == 1 && memo[${word + 2}] == 0` : `memo[${word + 2}] == 1`;
    text.say(`  :: d_step { ${text.begins(id, true)} && ${counts} -> ${text.takes(id, true)}; ends[${i}] = 1 }`);
  });
};

export const pointsAreAskedFor: WriteMove = (text) => {
  text.model.motors.forEach((_, t) => {
    const id = text.thing(`points ${t}`);
    for (const [to, position] of [
      [0, 'straight'],
      [1, 'diverging'],
    ] as const) {
      const lies = text.model.on.has('throw back') ? `lies${t} % 2 != ${to}` : `lies${t} == ${1 - to}`;
      const ask = `${text.terminal('request', t, position)} = 1`;
      text.say(`  :: d_step { ${text.begins(id, true)} && ${lies} -> ${text.takes(id, true)}; ${ask} }`);
    }
  });
};

export const pointsArrive: WriteMove = (text) => {
  for (const t of text.model.motors.keys()) {
    const id = text.thing(`motor ${t}`);
    text.say(
      `  :: d_step { ${text.begins(id, true)} && lies${t} > 1 -> ${text.takes(id, true)}; lies${t} = lies${t} - 2 }`,
    );
  }
};

export const isHeldByHand: WriteMove = (text) => {
  for (const { slot } of text.model.rules.wiring.hands) {
    const id = text.thing(`hold ${slot}`);
    const turned = `value[${slot}] = 1 - value[${slot}]`;
    text.say(`  :: d_step { ${text.begins(id, false)} -> ${text.takes(id, false)}; ${turned} }`);
  }
};

export const isSaidToBeFree: WriteMove = (text) => {
  const { trains, rules } = text.model;
  for (const [nth, { block, slot, inside }] of rules.wiring.frees.entries()) {
    const there = trains.flatMap((_, t) => {
      const numbers = text.where(t, ({ blocks }) => blocks.includes(block));
      return numbers.length > 0 ? [text.among(t, numbers)] : [];
    });
    const may = `value[${inside}] == 1 && !(${text.either(there)})`;
    text.say(
      `  :: d_step { ${text.begins(text.thing(`free ${nth}`), false)} && ${may} -> ${text.takes(-1, false)}; value[${slot}] = 1 }`,
    );
  }
};

export const pulseTooMany: WriteMove = (text) => {
  for (const s of pulsing(text.model)) {
    const slot = text.terminal('detector', s);
    const id = text.thing(`pulse ${s}`);
    text.say(`  :: d_step { ${text.begins(id, false)} && ${slot} == 0 -> ${text.takes(id, false)}; extra = ${s + 1} }`);
  }
};
