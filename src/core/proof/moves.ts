import type { ProofModel } from './model';
import type { Switch } from './switches';

/** A step is one number: its kind in the uppermost byte, below it 16 bits say which thing, and 8 which choice. */
export const encodeMove = (kind: number, index: number, choice: number) => (kind << 24) | (index << 8) | choice;
export const kindOf = (code: number): number => code >> 24;
export const indexOf = (code: number): number => (code >> 8) & 0xffff;
export const choiceOf = (code: number): number => code & 0xff;

/** A kind of step: when it can be taken, and what it changes before the rules are scanned. */
export interface MoveKind {
  name: string;
  /** What must be switched on for it. */
  needs?: Switch;
  /** It leaves the trains where they are, and can be taken whatever they do. */
  toRules?: boolean;
  /** Two of these may fall into one scan. */
  pairs: boolean;
  /** Adds the steps of this kind that can be taken from the present state. */
  list(model: ProofModel, add: (index: number, choice: number) => void): void;
  /** Changes the plant, or what people ask. True when the rules must be scanned. */
  take(model: ProofModel, index: number, choice: number): boolean;
}

/** Places of kinds in MOVES that others speak of. */
export const [ADVANCE, THROW] = [0, 2] as const;
/** The kind of two things within one scan; it has no place in MOVES. */
export const TOGETHER = 100;

const moving = (state: number) => state >= 2;

/** Every kind of step but two at once, which is made of these. */
export const MOVES: readonly MoveKind[] = [
  {
    name: 'goes on',
    pairs: true,
    list(model, add) {
      model.trains.forEach((train, t) => {
        const { at } = model.present;
        if (model.isOff(t)) return;
        const { advances } = train.placements[at[t]!]!;
        for (let way = 0; way < advances.length; way++) if (model.mayAdvance(t, advances[way]!)) add(t, way);
      });
    },
    take: (model, train, way) => model.advance(train, way),
  },
  {
    name: 'timer ends',
    toRules: true,
    pairs: true,
    list(model, add) {
      for (let timer = 0; timer < model.rules.timerCount; timer++) if (model.counts(timer)) add(timer, 0);
    },
    take: (model, timer) => model.pulseTimer(timer),
  },
  {
    name: 'points are asked for',
    toRules: true,
    pairs: true,
    list(model, add) {
      const { turnouts } = model.present;
      for (let t = 0; t < turnouts.length; t++) {
        const state = turnouts[t]!;
        if (!moving(state) || model.on.has('throw back')) add(t, state & 1 ? 0 : 1);
      }
    },
    take: (model, turnout, diverging) => model.ask(turnout, diverging),
  },
  {
    name: 'points arrive',
    toRules: true,
    pairs: true,
    list(model, add) {
      const { turnouts } = model.present;
      for (let t = 0; t < turnouts.length; t++) if (moving(turnouts[t]!)) add(t, 0);
    },
    take(model, turnout) {
      model.present.turnouts[turnout]! -= 2;
      return true;
    },
  },
  {
    name: 'turns back',
    needs: 'turn back',
    pairs: false,
    list(model, add) {
      model.trains.forEach((train, t) => {
        if (model.isOff(t)) return;
        const { turns } = train.placements[model.present.at[t]!]!;
        for (let choice = 0; choice < turns.length; choice++) add(t, choice);
      });
    },
    take: (model, train, choice) => model.turnBack(train, choice),
  },
  {
    name: 'comes to a stand',
    pairs: false,
    list(model, add) {
      for (let t = 0; t < model.trains.length; t++) if (!model.isOff(t) && model.canStand(t)) add(t, 0);
    },
    take: (model, train) => model.stand(train),
  },
  {
    name: 'is held by hand',
    toRules: true,
    needs: 'hold',
    pairs: false,
    list(model, add) {
      for (let s = 0; s < model.rules.wiring.holds.length; s++) add(s, model.isHeld(s) ? 0 : 1);
    },
    take: (model, signal) => model.holdOrLetGo(signal),
  },
  {
    name: 'is lifted off',
    needs: 'lift',
    pairs: false,
    list(model, add) {
      for (let t = 0; t < model.trains.length; t++) if (!model.isOff(t)) add(t, 0);
    },
    take: (model, train) => model.lift(train),
  },
  {
    name: 'is set down',
    needs: 'lift',
    pairs: false,
    list(model, add) {
      for (let t = 0; t < model.trains.length; t++) if (model.isOff(t) && model.isFreeToSetDown(t)) add(t, 0);
    },
    take: (model, train) => model.setDown(train),
  },
];
