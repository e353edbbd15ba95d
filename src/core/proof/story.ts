import type { Aspect } from '../signals';
import { ASPECTS } from '../signals';
import type { Explorer } from './explore';
import type { ProofModel } from './model';
import { decodeMove, type Move } from './move';

/** How a step ends that changes nothing for anybody; a story can be told without it. */
export const UNNOTICED = 'goes on a little.';

/** One step of a story: what is done, in words, and how far a train runs in it. */
export interface StoryStep {
  move: Move;
  says: string;
  /** Distance that the train runs from where it was, in mm; 0 for other steps. */
  runMm: number;
}

/** Tells the way to a state and one step on from it, in words. */
export function tellStory(explorer: Explorer, to: number, last?: number): StoryStep[] {
  const { model } = explorer;
  const codes = [...explorer.path(to), ...(last === undefined ? [] : [last])];
  const state = new Int32Array(model.words);
  explorer.set.read(0, state);
  model.unpack(state);
  const steps: StoryStep[] = [];
  for (const code of codes) {
    steps.push(tell(model, decodeMove(code)));
    model.apply(code);
    model.unpack(model.pack());
  }
  return steps;
}

function tell(model: ProofModel, move: Move): StoryStep {
  const { document, scheme, compiled } = model;
  const blockNames = (blocks: number[]) => blocks.map((b) => scheme.partition.blocks[b]!.name).join(' and ');
  switch (move.kind) {
    case 'advance': {
      const train = model.trains[move.train]!;
      const from = train.placements[model.present.at[move.train]!]!;
      const advance = from.advances[move.way]!;
      const into = train.placements[advance.to]!;
      const entered = into.blocks.filter((b) => !from.blocks.includes(b));
      const left = from.blocks.filter((b) => !into.blocks.includes(b));
      const unseen = from.sections.filter((s) => !into.sections.includes(s));
      const parts: string[] = [];
      if (advance.signal >= 0) {
        const aspect: Aspect = ASPECTS[model.aspect(advance.signal)]!;
        const late = aspect === 'stop' ? 'though it has just gone to stop: too late to brake' : `at ${aspect}`;
        parts.push(`passes ${scheme.readings[advance.signal]!.signal.name} ${late}`);
      }
      if (entered.length > 0) parts.push(`comes into ${blockNames(entered)}`);
      if (left.length > 0) parts.push(`leaves ${blockNames(left)}`);
      if (unseen.length > 0 && left.length === 0) {
        const blocks = unseen.flatMap((s) => scheme.partition.sections[s]!.blocks);
        parts.push(`is no longer seen in ${blockNames(blocks)}, though a part of it is still there`);
      }
      if (parts.length === 0)
        parts.push(
          into.facing >= 0 && from.facing < 0
            ? `comes within braking distance of ${scheme.readings[into.facing]!.signal.name}`
            : UNNOTICED.slice(0, -1),
        );
      return { move, says: `${train.name} ${parts.join(', ')}.`, runMm: advance.runMm };
    }
    case 'timer': {
      const { why, name } = compiled.timerRules[move.timer]!;
      const ends = why ? (timerIsOn(model, name) ? why.no : why.yes) : `The timer of ${name} ends`;
      return { move, says: `${ends}.`, runMm: 0 };
    }
    case 'throw': {
      const to = move.diverging ? 'diverging' : 'straight';
      return { move, says: `Somebody asks for ${document.turnouts[move.turnout]!.name} to lie ${to}.`, runMm: 0 };
    }
    case 'arrive':
      return { move, says: `${document.turnouts[move.turnout]!.name} has moved over.`, runMm: 0 };
  }
}

/** A hold lets go of what is on; a delay brings on what is off. */
const timerIsOn = (model: ProofModel, rule: string) => model.valueOf(rule) === 1;
