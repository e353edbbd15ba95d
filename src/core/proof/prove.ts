import type { LayoutDocument } from '../survey';
import { Explorer } from './explore';
import { type Harm, ProofModel } from './model';
import { type StoryStep, tellStory } from './story';

export type Property = Harm | 'deadlock';

export interface Verdict {
  property: Property;
  /** “holds” only when every state was looked at. */
  result: 'holds' | 'fails' | 'unfinished';
  story?: StoryStep[];
}

export interface ProofProgress {
  states: number;
  moves: number;
  /** States found whose steps have not been followed yet. */
  waiting: number;
}

export interface Proof extends ProofProgress {
  finished: boolean;
  verdicts: Verdict[];
  trains: number;
  /** What was taken for granted; a proof holds under these and no further. */
  assumptions: string[];
}

/** The order in which verdicts are told. */
export const PROPERTIES: Property[] = [
  'two trains in a block',
  'opposing trains',
  'points moved under a train',
  'points lie wrong',
  'never settles',
  'deadlock',
];

const ASSUMPTIONS = [
  'A train may wait anywhere, go on at any moment, and takes no time; a timer may end at any moment once it counts.',
  'Drivers obey: a signal at stop is passed only when it fell after the train was within braking distance of it at proceed.',
  'Trains do not turn back, and nothing is put on or taken off the track.',
  'Anybody may throw any turnout at any moment; nobody holds a signal by hand.',
  'Lengths are as surveyed: of two events a few millimetres apart, only the order that follows from them is tried.',
  'Detectors, motors and lamps do what they should.',
  'Detectors react, and rules settle, before the next thing happens.',
];

/** Looks at every state a layout can reach, a slice at a time, so that others get a turn and it can be stopped. */
export class ProofRun {
  readonly explorer: Explorer;

  /** Throws RuleProgramError when the rules cannot be compiled. */
  constructor(
    document: LayoutDocument,
    private readonly mostStates = 5_000_000,
  ) {
    this.explorer = new Explorer(new ProofModel(document));
  }

  get progress(): ProofProgress {
    const { set, moves, waiting } = this.explorer;
    return { states: set.size, moves, waiting };
  }

  /** Follows up to `states` more states. True when there is nothing more to do. */
  step(states: number): boolean {
    return this.explorer.run(states) || this.explorer.set.size >= this.mostStates;
  }

  /** What is known by now. */
  result(): Proof {
    const { explorer } = this;
    const { finished, deadlock, harms, model } = explorer;
    const verdicts = PROPERTIES.map((property): Verdict => {
      if (property === 'deadlock') {
        if (deadlock !== undefined) return { property, result: 'fails', story: tellStory(explorer, deadlock) };
      } else {
        const failure = harms.get(property);
        if (failure) return { property, result: 'fails', story: tellStory(explorer, failure.from, failure.move) };
      }
      return { property, result: finished ? 'holds' : 'unfinished' };
    });
    return { ...this.progress, finished, verdicts, trains: model.trains.length, assumptions: ASSUMPTIONS };
  }
}
