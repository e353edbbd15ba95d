import { faultsIn, sayFault } from '../faults';
import { HAZARD_IDS, HAZARDS, type HazardId, TICK_MS } from '../simulation';
import type { System } from '../system';
import { type CounterexampleStep, tellCounterexample } from './counterexample';
import { Explorer, type Failure } from './explore';
import { isLookedFor } from './hazards/hazard-bits';
import { ProofModel } from './model/model';
import { STANDING_TICKS } from './model/standing-start';
import { type Steered, steerAlong } from './steer';
import { STANDARD_SWITCHES, SWITCH_IDS, SWITCHES, type Switch } from './switches';

export type Property = HazardId | 'deadlock';

/** What each property says when it holds, and when it does not. */
export const PROPERTY_WORDS: Record<Property, { holds: string; fails: string }> = {
  ...HAZARDS,
  deadlock: {
    holds: 'It never happens that no train can ever get anywhere again.',
    fails: 'It can happen that no train can ever get anywhere again.',
  },
};
/** The order in which verdicts are told. */
export const PROPERTIES: Property[] = [...HAZARD_IDS, 'deadlock'];

export interface Verdict<Cause = never> {
  property: Property;
  /**
   * “holds” only when every state was looked at; “holds unless” when every state was, but for what comes after another hazard that
   * can happen and after which nothing can be told; “not looked at” where the explorer has nothing that would find it.
   */
  result: 'holds' | 'holds unless' | 'fails' | 'unfinished' | 'not looked at';
  counterexample?: CounterexampleStep[];
  /** It is so before anything has moved. */
  atTheStart?: boolean;
  /** Why, if whoever asked for the result can tell. */
  cause?: Cause;
  /** The rehearsal that was driven along the counterexample, if one was. */
  steered?: Steered;
  /** There is a shorter way, along which no rehearsal came to it. */
  notShortest?: true;
}

/** Tells why a counterexample ends as it does. */
export type Explain<Cause> = (
  model: ProofModel,
  property: Property,
  counterexample: CounterexampleStep[],
  moments: readonly Moment[],
) => Cause;

/** A state of a counterexample: that of the rules, by its number there, and where each train is, by its placement. */
export interface Moment {
  ruleState: number;
  at: readonly number[];
}

export interface ProofProgress {
  states: number;
  moves: number;
  /** States found whose steps have not been followed yet. */
  waiting: number;
  /** All states are found, and rehearsals are driven to so many of the things that can happen, of so many. */
  driven?: { done: number; of: number };
}

export interface Proof<Cause = never> extends ProofProgress {
  /** Of what runs, and of the prover: what was proved is true of whatever has both. */
  key: string;
  finished: boolean;
  verdicts: Verdict<Cause>[];
  /** Names of the trains it speaks of, and why others are not among them. */
  trains: string[];
  notPlaced: string[];
  /** Hazards after which nothing was looked at, in words: “no two trains touch”. */
  unless: string[];
  /** What was taken for granted; a proof holds under these and no further. */
  assumptions: string[];
}

/** Whether it can happen at all on such a layout; what cannot is not told of. */
function mayHappen(property: Property, system: System): boolean {
  if (property === 'deadlock') return true;
  const { found } = HAZARDS[property];
  return found.in !== 'nothing' || found.may(system);
}
/** Of what happens to trains nothing is known where there is none; nor whether they get anywhere where each has only one block to be in. */
function isLookedAt(property: Property, { trains }: ProofModel): boolean {
  if (property === 'deadlock')
    return trains.some(({ placements }) => new Set(placements.flatMap(({ blocks }) => blocks)).size > 1);
  if (!isLookedFor(property)) return false;
  const withoutTrains = ['rules', 'displayed'].includes(HAZARDS[property].found.in);
  return trains.length > 0 || withoutTrains;
}

/** What every proof takes for granted, whatever is switched on. */
const ASSUMPTIONS = [
  'A train may wait or be halted anywhere, go on at any moment, and takes no time; a timer may end at any moment once it counts.',
  'Drivers obey what they see: they know the line, see signals from where they need to stop, and stop a little before them. A train runs up to 12 % faster than surveyed, and brakes as surveyed.',
  'Anybody may ask for any turnout at any moment.',
  `Power has been on for ${(STANDING_TICKS * TICK_MS) / 1000} seconds before any train moves, so that detectors and timers have settled: nothing is said of trains that move sooner.`,
  'Lengths are as surveyed, to half a centimetre: where a train comes to two boundaries nearer together than that, detectors notice them in either order.',
  'A train that stands in a section that is cut off when the proof begins stays there until it has current; one that comes into such a section may still roll on, and whether it waits for power for ever is not looked at. Blades of points are taken to be at one place: the tips of a turnout, the middle of a slip.',
  'A train that has touched another, or whose rules do not settle, is not followed.',
];

/** What fails, if anything does. */
function faultless(system: System): string {
  const faults = faultsIn(system).map(({ fault }) => sayFault(system, fault, true));
  return faults.length === 0
    ? 'Detectors, motors and lamps do what they should.'
    : `Detectors, motors and lamps do what they should, but for this, at any moment: ${faults.join('; ')}.`;
}

/** Another number voids every proof made before: what the prover looks at, or how, has changed. */
const PROVER_VERSION = 6;
/** What a proof belongs to: what runs, and the version of the prover. */
export const proofKey = (system: System): string => `${PROVER_VERSION}-${system.key}`;

/** Looks at every state a layout can reach, a slice at a time, so that others get a turn and it can be stopped. */
export class ProofRun {
  readonly explorer: Explorer;
  private readonly steered = new Map<Property, ReturnType<typeof steerAlong>>();

  /** Throws RuleProgramError when the rules cannot be compiled. */
  constructor(
    system: System,
    private readonly mostStates = 5_000_000,
    private readonly on: ReadonlySet<Switch> = STANDARD_SWITCHES,
    /** Nobody touches anything but to start trains that wait for a pulse. */
    handsOff = false,
  ) {
    this.explorer = new Explorer(new ProofModel(system, on, handsOff));
  }

  get progress(): ProofProgress {
    const { states, moves, waiting } = this.explorer;
    return { states, moves, waiting };
  }

  /** Follows up to `states` more states. True when there is nothing more to do. */
  step(states: number): boolean {
    return this.explorer.run(states) || this.explorer.states >= this.mostStates;
  }

  /** What can happen, as far as it is known by now. */
  get failing(): Property[] {
    return PROPERTIES.filter((property) => this.failuresOf(property).length > 0);
  }
  /** The ways to something that can happen, the shortest first; only that one where it is so from the start. */
  private failuresOf(property: Property): readonly Failure[] {
    const { deadlock, hazards, furtherWays, model } = this.explorer;
    if (!isLookedAt(property, model)) return [];
    if (property === 'deadlock') return deadlock === undefined ? [] : [{ from: deadlock }];
    const failure = hazards.get(property);
    if (!failure) return [];
    return this.isAtTheStart(property) ? [failure] : [failure, ...(furtherWays.get(property) ?? [])];
  }
  private isAtTheStart(property: Property): boolean {
    const { hazards, model } = this.explorer;
    if (property === 'deadlock') return false;
    return hazards.get(property)?.move === undefined && model.startHazards.includes(property);
  }

  /** Drives rehearsals along the ways to something that can happen; told is the first way along which one comes to it, if there is such a way. */
  steer(property: Property): Steered {
    const found = steerAlong(this.explorer, property, this.failuresOf(property));
    this.steered.set(property, found);
    return found.run;
  }

  private failed<Cause>(property: Property, explain: Explain<Cause> | undefined): Verdict<Cause> {
    const { explorer } = this;
    const { model } = explorer;
    const steered = this.steered.get(property);
    const { from, move } = this.failuresOf(property)[steered?.nth ?? 0]!;
    const moments: Moment[] = [];
    const note = () => moments.push({ ruleState: model.ruleState, at: [...model.present.at] });
    const counterexample = tellCounterexample(explorer, from, move, note);
    return {
      property,
      result: 'fails',
      counterexample,
      ...(explain && { cause: explain(model, property, counterexample, moments) }),
      ...(this.isAtTheStart(property) && { atTheStart: true }),
      ...(steered && { steered: steered.run }),
      ...(steered && steered.nth > 0 && { notShortest: true }),
    };
  }

  /** What is known by now. `explain` is called with the model in the state to which the last step of a counterexample leads. */
  result<Cause = never>(explain?: Explain<Cause>): Proof<Cause> {
    const { explorer, on } = this;
    const { finished, hazards, model, ended } = explorer;
    /** The rules do not settle before anything moves, so that no step that they take part in is followed. */
    const never = hazards.get('rules never settle');
    const sawNothing = never !== undefined && never.move === undefined;
    const standing = !finished
      ? 'unfinished'
      : sawNothing
        ? 'not looked at'
        : ended.size > 0
          ? 'holds unless'
          : 'holds';
    const asked = PROPERTIES.filter((property) => mayHappen(property, model.system));
    const verdicts = asked.map((property): Verdict<Cause> => {
      if (!isLookedAt(property, model)) return { property, result: 'not looked at' };
      if (this.failuresOf(property).length > 0) return this.failed(property, explain);
      return { property, result: standing };
    });
    return {
      ...this.progress,
      key: proofKey(this.explorer.model.system),
      finished,
      verdicts,
      trains: model.trains.map(({ name }) => name),
      notPlaced: model.notPlaced,
      unless: [...ended].map((hazard) => HAZARDS[hazard].never),
      assumptions: [
        ...ASSUMPTIONS,
        faultless(model.system),
        ...SWITCH_IDS.map((id) => (on.has(id) ? `${SWITCHES[id].says}: tried.` : SWITCHES[id].without)),
      ],
    };
  }
}
