import { sensorKind } from '../../kinds';
import type { ProofModel } from '../model/model';
import { MOVING } from '../model/rule-memory';
import type { Steering } from '../steer';
import type { MoveKind } from './kind';

/** Somebody who is refused asks again so often, and gives up after so long, in ticks; longer where a timer is to end in the same step. */
const [ASKS_AGAIN_TICKS, GIVES_UP_TICKS, GIVES_UP_WITH_A_TIMER_TICKS] = [10, 150, 750];
/** What was done has come to the rules after so many ticks. */
const SEEN_AFTER_TICKS = 2;

/** Somebody who is refused asks again, since what frees it may come a moment later, and at last gives up. `nth`: the step. */
function againUntil(
  { run, counterexample }: Steering,
  nth: number,
  done: () => boolean,
  again: () => void,
): () => boolean {
  const from = run.tick;
  const withTimer = counterexample[nth]!.deeds.some(({ valueWas }) => valueWas !== undefined);
  const givesUp = withTimer ? GIVES_UP_WITH_A_TIMER_TICKS : GIVES_UP_TICKS;
  return () => {
    const ticks = run.tick - from;
    if (ticks < SEEN_AFTER_TICKS) return false;
    if (done() || ticks >= givesUp) return true;
    if (ticks % ASKS_AGAIN_TICKS === 0) again();
    return false;
  };
}

/** A timer that counts ends; one that takes longer than a motor, only once that has moved over. */
export const timerEnds: MoveKind = {
  toRules: true,
  pairs: true,
  passesBy: true,
  list(model, add) {
    const { outlasts } = model.rules.wiring;
    for (let timer = 0; timer < model.rules.timerCount; timer++) {
      const motor = outlasts[timer];
      const moves = motor !== undefined && model.present.turnouts[motor]! >= MOVING;
      if (!moves && model.counts(timer)) add(timer, 0);
    }
  },
  take: (model, timer) => model.endTimer(timer),
  tell(model, timer) {
    const { why, name } = model.rules.wiring.compiled.timerRules[timer]!;
    /** A hold lets go of what is on; a delay brings on what is off. */
    const on = model.valueOf(name) === 1;
    return `${why ? (on ? why.no : why.yes) : `The timer of ${name} ends`}.`;
  },
  course(model, timer) {
    const { name } = model.rules.wiring.compiled.timerRules[timer]!;
    return { runMm: 0, longMm: 0, valueWas: model.valueOf(name) };
  },
  steer({ model, run }, { index, valueWas }) {
    const { name } = model.rules.wiring.compiled.timerRules[index]!;
    const { evaluator } = run.controller;
    return () => evaluator.valueOf(name) !== valueWas;
  },
};

/** Somebody asks for points to lie the other way. */
export const pointsAreAskedFor: MoveKind = {
  byPeople: true,
  toRules: true,
  pairs: true,
  list(model, add) {
    const { turnouts } = model.present;
    for (let t = 0; t < turnouts.length; t++) {
      const state = turnouts[t]!;
      if (state < MOVING || model.on.has('throw back')) add(t, state & 1 ? 0 : 1);
    }
  },
  take: (model, motor, diverging) => model.ask(motor, diverging),
  isRefused: (model, motor, effect) => model.rules.effects.wasLocked(effect, motor),
  tell(model, motor, diverging) {
    const back = model.present.turnouts[motor]! >= MOVING ? ', while it still moves' : '';
    const { name } = model.motors[motor]!;
    return `Somebody asks for ${name} to lie ${diverging === 1 ? 'diverging' : 'straight'}${back}.`;
  },
  steer(steering, { index, choice }, nth) {
    const { model, run, tell } = steering;
    const { id } = model.motors[index]!;
    const to = choice === 1 ? 'diverging' : 'straight';
    const ask = () => tell({ kind: 'throw', turnout: id, to });
    ask();
    return againUntil(steering, nth, () => run.process.drives(index) === to, ask);
  },
};

/** Points that move come to lie as they are driven. */
export const pointsArrive: MoveKind = {
  toRules: true,
  pairs: true,
  list(model, add) {
    const { turnouts } = model.present;
    for (let t = 0; t < turnouts.length; t++) if (turnouts[t]! >= MOVING) add(t, 0);
  },
  take(model, motor) {
    model.present.turnouts[motor]! -= MOVING;
    return true;
  },
  tell: (model, motor) => `${model.motors[motor]!.name} has moved over.`,
  steer: ({ run }, { index }) => {
    return () => run.plant.motors[index]!.position !== 'between';
  },
};

/** Of an input that is on or off for as long as somebody, or something, has it so. */
const works = (fails: boolean, pairs: boolean): MoveKind => ({
  ...(!fails && { byPeople: true }),
  toRules: true,
  pairs,
  list(model, add) {
    const { hands } = model.rules.wiring;
    for (let s = 0; s < hands.length; s++) if ((hands[s]!.fails === true) === fails) add(s, model.isHeld(s) ? 0 : 1);
  },
  take(model, hand) {
    model.rules.holdOrLetGo(hand);
    return true;
  },
  tell: (model, hand, on) => model.rules.wiring.hands[hand]!.says(on === 1),
  steer(steering, { index, choice }, nth) {
    const { model, run, tell } = steering;
    const { command, took } = model.rules.wiring.hands[index]!;
    const put = (on: boolean) => tell(command(on));
    put(choice === 1);
    const from = run.tick;
    if (!took || choice === 0) return () => run.tick >= from + SEEN_AFTER_TICKS;
    /** A button is let go before it is pressed again. */
    let pressed = true;
    const pressAgain = () => {
      pressed = !pressed;
      put(pressed);
    };
    return againUntil(steering, nth, () => pressed && took(run), pressAgain);
  },
});
/** An input that people work is put on by hand, or let go: a signal held, a post taken, a button pressed. */
export const isHeldByHand = works(false, false);
/** Something fails, or works again. */
export const fails = works(true, true);

/** A spot that gives pulses gives one, with nothing there. */
export const pulseTooMany: MoveKind = {
  toRules: true,
  needs: 'false pulses',
  pairs: false,
  list(model, add) {
    for (const s of pulsing(model)) if (!model.isOn('detector', s)) add(s, 0);
  },
  take(model, sensor) {
    model.rules.pulse(model.rules.wiring.detects[sensor]!);
    return true;
  },
  tell: (model, sensor) => `${model.system.sensors[sensor]!.name} gives a pulse too many.`,
  steer({ model, run, tell }, { index }) {
    if (!tell({ kind: 'fault', sensor: model.system.sensors[index]!.id, what: 'extra' })) return undefined;
    const from = run.tick;
    return () => run.tick >= from + SEEN_AFTER_TICKS;
  },
};

/** Sensors that give pulses, by number. */
export const pulsing = ({ system }: ProofModel): number[] =>
  system.sensors.flatMap(({ kind }, s) => (sensorKind(kind).pulses ? [s] : []));
