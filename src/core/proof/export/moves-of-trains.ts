import type { PromelaText } from './promela-text';

/** Writes the steps of one kind as alternatives of the Promela model’s loop. */
export type WriteMove = (text: PromelaText) => void;

/** A step that is wholly in C: whether it may be taken, and what it does. Spin takes an expression without parentheses for one with side effects. */
const step = (may: string, does: string): string => `  :: d_step { c_expr { (${may}) } -> c_code { ${does} } }`;

export const goesOn: WriteMove = ({ say, model }) => {
  for (const [t, { placements }] of model.trains.entries()) {
    const most = Math.max(0, ...placements.map(({ advances }) => advances.length));
    for (let way = 0; way < most; way++) say(step(`may_advance(${t}, ${way})`, `advance(${t}, ${way});`));
  }
};

export const turnsBack: WriteMove = ({ say, model }) => {
  for (const [t, { placements }] of model.trains.entries()) {
    const most = Math.max(0, ...placements.map(({ turns }) => turns.length));
    for (let choice = 0; choice < most; choice++) say(step(`may_turn(${t}, ${choice})`, `turn(${t}, ${choice});`));
  }
};

export const comesToAStand: WriteMove = (text) => {
  for (const t of text.model.trains.keys()) {
    const stood = `past[${t}] = 0; counted[${t}] = 0; todo = ${text.toLook(t, true)}`;
    text.say(`  :: d_step { ALONE && past[${t}] > 0 -> c_code { clear(); }; ${stood} }`);
  }
};

export const isLiftedOff: WriteMove = (text) => {
  for (const [t, { placements }] of text.model.trains.entries()) {
    const off = placements.length;
    const deed = `at[${t}] = ${off}; past[${t}] = 0; counted[${t}] = 0; todo = ${text.toLook(t, false)}`;
    text.say(`  :: d_step { ALONE && at[${t}] != ${off} -> ${text.takes(-1)}; ${deed} }`);
  }
};

export const isSetDown: WriteMove = ({ say, model }) => {
  for (const t of model.trains.keys()) say(step(`may_set_down(${t})`, `set_down(${t});`));
};

export const isSaidToBeFree: WriteMove = ({ say, model }) => {
  for (const nth of model.rules.wiring.frees.keys()) say(step(`may_say_free(${nth})`, `say_free(${nth});`));
};

export const isSaidToBeTaken: WriteMove = ({ say, model }) => {
  for (const nth of model.rules.wiring.frees.keys()) say(step(`may_say_taken(${nth})`, `say_taken(${nth});`));
};

export const isGivenUp: WriteMove = ({ say, model }) => {
  for (const { slot, underWay, blocks, motors } of model.rules.wiring.releases) {
    const looks = [...blocks.map((block) => `is_empty(${block})`), ...motors.map((motor) => `is_off(${motor})`)];
    const empty = looks.map((one) => ` && ${one}`).join('');
    say(step(`alone() && now.value[${underWay}] == 1${empty}`, `takes(-1); now.value[${slot}] = 1;`));
  }
};
