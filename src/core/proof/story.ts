import { ASPECTS } from '../signals';
import { countedOn } from './bound';
import type { Explorer } from './explore';
import type { ProofModel } from './model';
import { choiceOf, indexOf, kindOf, MOVES } from './moves';

/** How a step ends that changes nothing for anybody; a story can be told without it. */
export const UNNOTICED = 'goes on a little.';

/** One thing that is done in a step: its kind by number in MOVES, which thing, and which choice. */
export interface Deed {
  kind: number;
  index: number;
  choice: number;
  /** How far a train runs in it, from the beginning of one placement to that of the next, and how long the next is, in mm. */
  runMm: number;
  longMm: number;
  /** It passes a signal at stop. */
  late: boolean;
}

/** One step of a story, in words: one thing that is done, or two within one scan. */
export interface StoryStep {
  says: string;
  deeds: Deed[];
}

/** Tells the way to a state and one step on from it, in words. `at` is called with the model before each step, and after the last. */
export function tellStory(explorer: Explorer, to: number, last?: number, at?: () => void): StoryStep[] {
  const { model } = explorer;
  const codes = [...explorer.path(to), ...(last === undefined ? [] : [last])];
  const state = new Int32Array(model.words);
  explorer.set.read(0, state);
  model.unpack(state);
  const steps: StoryStep[] = [];
  for (const code of codes) {
    at?.();
    const parts = model.partsOf(code);
    const says = parts.map((part) => tellDeed(model, part));
    const together = says.map((text, i) => (i === 0 ? text : text[0]!.toUpperCase() + text.slice(1)));
    steps.push({
      says: parts.length === 1 ? together[0]! : `At once: ${together.join(' ')}`,
      deeds: parts.map((part) => deedOf(model, part)),
    });
    model.apply(code);
    model.unpack(model.pack());
  }
  at?.();
  return steps;
}

function deedOf(model: ProofModel, code: number): Deed {
  const [kind, index, choice] = [kindOf(code), indexOf(code), choiceOf(code)];
  const nothing = { kind, index, choice, runMm: 0, longMm: 0, late: false };
  const { name } = MOVES[kind]!;
  if (name !== 'goes on' && name !== 'turns back') return nothing;
  const train = model.trains[index]!;
  const from = train.placements[model.present.at[index]!]!;
  const longOf = (placement: number) => train.placements[placement]!.noseMm[1] - train.placements[placement]!.noseMm[0];
  if (name === 'turns back') return { ...nothing, longMm: longOf(from.turns[choice]!.to) };
  const { runMm, passes, to } = from.advances[choice]!;
  const late = passes.some((thing) => model.aspect(from.before[thing]!.signal) === 0);
  return { ...nothing, runMm, longMm: longOf(to), late };
}

/** A thing that is done, in a sentence. */
function tellDeed(model: ProofModel, code: number): string {
  const { document, scheme } = model;
  const [index, choice] = [indexOf(code), choiceOf(code)];
  const train = () => model.trains[index]!.name;
  const turnout = () => document.turnouts[index]!.name;
  switch (MOVES[kindOf(code)]!.name) {
    case 'goes on':
      return tellAdvance(model, index, choice);
    case 'timer ends': {
      const { why, name } = model.rules.wiring.compiled.timerRules[index]!;
      /** A hold lets go of what is on; a delay brings on what is off. */
      const on = model.valueOf(name) === 1;
      return `${why ? (on ? why.no : why.yes) : `The timer of ${name} ends`}.`;
    }
    case 'points are asked for': {
      const back = model.present.turnouts[index]! >= 2 ? ', while it still moves' : '';
      return `Somebody asks for ${turnout()} to lie ${choice === 1 ? 'diverging' : 'straight'}${back}.`;
    }
    case 'points arrive':
      return `${turnout()} has moved over.`;
    case 'turns back':
      return `${train()} turns back.`;
    case 'comes to a stand':
      return `${train()} comes to a stand.`;
    case 'is held by hand': {
      const { name } = scheme.readings[index]!.signal;
      return choice === 1 ? `Somebody holds ${name} at stop.` : `Somebody lets ${name} work again.`;
    }
    case 'is lifted off':
      return `${train()} is lifted off the track.`;
    default:
      return `${train()} is set down where it began.`;
  }
}

function tellAdvance(model: ProofModel, index: number, way: number): string {
  const { scheme } = model;
  const blockNames = (blocks: number[]) => blocks.map((b) => scheme.partition.blocks[b]!.name).join(' and ');
  const signalName = (signal: number) => scheme.readings[signal]!.signal.name;
  const train = model.trains[index]!;
  const from = train.placements[model.present.at[index]!]!;
  const advance = from.advances[way]!;
  if (advance.offTheEnd) return `${train.name} runs off the end of the track.`;
  const into = train.placements[advance.to]!;
  const parts: string[] = [];
  for (const thing of advance.passes) {
    const { signal } = from.before[thing]!;
    const aspect = ASPECTS[model.aspect(signal)]!;
    const late = countedOn(model.present.bound[index]!, thing)
      ? 'though it has just gone to stop: too late to brake'
      : 'at stop: nothing had told it in time';
    parts.push(`passes ${signalName(signal)} ${aspect === 'stop' ? late : `at ${aspect}`}`);
  }
  for (const { turnout, position } of advance.turnouts)
    if (model.present.turnouts[turnout] !== position)
      parts.push(`runs onto ${model.document.turnouts[turnout]!.name}, which lies wrong`);
  const entered = into.blocks.filter((b) => !from.blocks.includes(b));
  const left = from.blocks.filter((b) => !into.blocks.includes(b));
  const unseen = from.sections.filter((s) => !into.sections.includes(s));
  if (entered.length > 0) parts.push(`comes into ${blockNames(entered)}`);
  if (left.length > 0) parts.push(`leaves ${blockNames(left)}`);
  const hidden = unseen.flatMap((s) => scheme.partition.sections[s]!.blocks).filter((b) => into.blocks.includes(b));
  if (hidden.length > 0) parts.push(`is no longer seen in ${blockNames(hidden)}, though a part of it is still there`);
  const known = from.before.map(({ signal }) => signal);
  const [near] = into.before.filter(({ signal }) => signal >= 0 && !known.includes(signal));
  if (parts.length === 0)
    parts.push(near ? `comes within braking distance of ${signalName(near.signal)}` : UNNOTICED.slice(0, -1));
  return `${train.name} ${parts.join(', ')}.`;
}
