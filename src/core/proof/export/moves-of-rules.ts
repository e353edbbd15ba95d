import { pulsing } from '../moves';
import type { WriteMove } from './moves-of-trains';

export const timerEnds: WriteMove = (text) => {
  text.rules.timers.forEach(({ word, ton }, i) => {
    const id = text.thing(`timer ${i}`);
    const counts = ton ? `memo[${word}] == 1 && memo[${word + 2}] == 0` : `memo[${word + 2}] == 1`;
    const motor = text.model.rules.wiring.outlasts[i];
    const may = motor === undefined ? counts : `${counts} && lies[${motor}] < 2`;
    text.say(`  :: d_step { ${text.begins(id)} && ${may} -> ${text.takes(id)}; ends[${i}] = 1 }`);
  });
};

export const pointsAreAskedFor: WriteMove = (text) => {
  text.model.motors.forEach((_, m) => {
    const id = text.thing(`points ${m}`);
    for (const [to, position] of [
      [0, 'straight'],
      [1, 'diverging'],
    ] as const) {
      const lies = text.model.on.has('throw back') ? `lies[${m}] % 2 != ${to}` : `lies[${m}] == ${1 - to}`;
      const ask = `${text.terminal('request', m, position)} = 1`;
      text.say(`  :: d_step { ${text.begins(id)} && ${lies} -> ${text.takes(id)}; ${ask} }`);
    }
  });
};

export const pointsArrive: WriteMove = (text) => {
  for (const m of text.model.motors.keys()) {
    const id = text.thing(`motor ${m}`);
    text.say(`  :: d_step { ${text.begins(id)} && lies[${m}] > 1 -> ${text.takes(id)}; lies[${m}] = lies[${m}] - 2 }`);
  }
};

export const isHeldByHand: WriteMove = (text) => {
  for (const { slot, fails: failing } of text.model.rules.wiring.hands) {
    if (failing) continue;
    text.say(`  :: d_step { ALONE -> ${text.takes(-1)}; value[${slot}] = 1 - value[${slot}] }`);
  }
};

export const pulseTooMany: WriteMove = (text) => {
  for (const s of pulsing(text.model)) {
    const slot = text.terminal('detector', s);
    text.say(`  :: d_step { ALONE && ${slot} == 0 -> ${text.takes(-1)}; extra = ${s + 1} }`);
  }
};

export const fails: WriteMove = (text) => {
  text.model.rules.wiring.hands.forEach(({ slot, fails: failing }, h) => {
    if (!failing) return;
    const id = text.thing(`fault ${h}`);
    text.say(`  :: d_step { ${text.begins(id)} -> ${text.takes(id)}; value[${slot}] = 1 - value[${slot}] }`);
  });
};

const route = (may: string, slot: number): string =>
  `  :: d_step { c_expr { (alone() && ${may}) } -> c_code { takes(-1); now.value[${slot}] = 1; } }`;

export const isSetByPeople: WriteMove = ({ say, model }) => {
  const { commanded } = model.rules.wiring;
  for (const { isSet, rivals, button } of commanded) {
    const none = [isSet, ...rivals.map((nth) => commanded[nth]!.isSet)].map((slot) => `now.value[${slot}] == 0`);
    say(route(none.join(' && '), button));
  }
};

export const isCancelled: WriteMove = ({ say, model }) => {
  const { commanded, cancelsAtAnyMoment } = model.rules.wiring;
  for (const { signal, isSet, cancel, byTrainsUnless } of commanded) {
    const away = cancelsAtAnyMoment ? '' : ` && is_away(${signal}, ${model.system.readings[signal]!.rear})`;
    const may = byTrainsUnless === undefined ? '' : ` && now.value[${byTrainsUnless}] == 1`;
    say(route(`now.value[${isSet}] == 1${may}${away}`, cancel));
  }
};

export const isGivenAPulse: WriteMove = ({ say, model }) => {
  for (const { pulse } of model.rules.wiring.pulsed)
    say(`  :: d_step { ALONE -> c_code { takes(-1); now.value[${pulse}] = 1; } }`);
};
