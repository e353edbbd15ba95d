import { PROPERTY_WORDS, standingStart } from '../proof';
import { asTyped, type LayoutDocument, type Train } from '../survey';
import { checkDesign, type Design } from './check-design';
import { type Cycle, type CycleStep, exploreCycle, type Rehearsed, rehearsing, roundOf, timedRound } from './cycle';
import { waitingPlaces } from './waiting-places';

/** Before a signal a train waits with its nose this far from it: 5 cm. */
const BEFORE_SIGNAL = 500_000;
const SEEDS = 6;
const MINUTES = 15;
/** More steps than this nobody reads. */
const MOST_STEPS = 60;

/** How many rehearsals ended so, and after how many seconds the first of them did. */
export interface Ended {
  runs: number;
  afterS: number | undefined;
}

/** What so many trains come to by themselves. */
export interface SoManyTrains {
  count: number;
  /** Their names; those that stand for more trains than there are come last. */
  trains: string[];
  /** All states that were looked at, and whether these are all that there are. */
  states: number;
  finished: boolean;
  /** The ways in which trains can wait, the first of them, and how many there are. */
  steps: CycleStep[];
  stepCount: number;
  /** Steps that come again for ever, where it is never open which comes next. */
  round: number[] | undefined;
  /** How trains can come to a stand for ever, or touch, told; undefined where they do not in any state that was looked at. */
  stuck: string[] | undefined;
  hit: string[] | undefined;
  /** What else can go wrong, in sentences. */
  besides: string[];
  rehearsed: { of: number; minutes: number; runs: number; waits: Ended; hit: Ended };
  /** A round that the first rehearsal came into, with its times. */
  timed: Rehearsed['passed'] | undefined;
}

/** For 1, 2, 3 … trains, what they come to. */
export interface HowManyTrains {
  rows: SoManyTrains[];
  /** From so many on there is no room before signals. */
  noRoomFor: number | undefined;
  /** Names of all blocks, by number, and of the points that remember a turn. */
  blocks: string[];
  turns: string[];
}

/**
 * Explores and rehearses the layout with one train, two, three, and so on: its own in the order in which they are listed, and then copies of the last, before
 * signals where nothing stands. Yields how far it is, from 0 to 1. Throws RuleProgramError when the rules cannot be compiled.
 */
export function* howManyTrains(whole: Design, most: number): Generator<number, HowManyTrains> {
  const { document, partition } = whole.scheme;
  const named = {
    blocks: partition.blocks.map(({ name }) => name),
    turns: waitingPlaces(whole).turns.map(({ name }) => name),
  };
  const rows: SoManyTrains[] = [];
  for (let count = 1; count <= most; count++) {
    const design = withTrains(document, count);
    if (!design) return { ...named, rows, noRoomFor: count };
    const share = (part: number) => (count - 1 + part) / most;
    const exploring = exploreCycle(design);
    let step = exploring.next();
    for (; !step.done; step = exploring.next()) yield share(0.5 * step.value);
    const runs: Rehearsed[] = [];
    for (let seed = 1; seed <= SEEDS; seed++) {
      const work = rehearsing(design, seed, MINUTES);
      let run = work.next();
      for (; !run.done; run = work.next()) yield share(0.5 + (0.5 * (seed - 1 + run.value)) / SEEDS);
      runs.push(run.value);
    }
    rows.push(rowOf(design, step.value, runs));
  }
  return { ...named, rows, noRoomFor: undefined };
}

function rowOf(design: Design, cycle: Cycle, runs: readonly Rehearsed[]): SoManyTrains {
  const ended = (how: Rehearsed['ends']): Ended => {
    const all = runs.filter(({ ends }) => ends === how);
    return { runs: all.length, afterS: all[0]?.afterS };
  };
  const { trains } = design.scheme.document;
  const tell = (story: Cycle['hit']) => story?.map(({ says }) => says);
  return {
    count: trains.length,
    trains: trains.map(({ name }) => name),
    states: cycle.states,
    finished: cycle.finished,
    steps: cycle.steps.slice(0, MOST_STEPS),
    stepCount: cycle.steps.length,
    round: roundOf(cycle),
    stuck: tell(cycle.stuck),
    hit: tell(cycle.hit),
    besides: cycle.hazards.map((hazard) => PROPERTY_WORDS[hazard].fails),
    rehearsed: {
      of: runs.length,
      minutes: MINUTES,
      runs: ended('runs').runs,
      waits: ended('waits'),
      hit: ended('hit'),
    },
    timed: timedRound(runs[0]!),
  };
}

/** The layout with so many trains; undefined where there is no train to copy, or no more room before signals. */
export function withTrains(document: LayoutDocument, count: number): Design | undefined {
  const placed = document.trains.filter(({ start }) => start);
  let design = checkDesign({ ...document, trains: placed.slice(0, count) });
  if (placed.length === 0 || !stands(design)) return undefined;
  while (design.scheme.document.trains.length < count) {
    const more = withOneMore(design, placed.at(-1)!);
    if (!more) return undefined;
    design = more;
  }
  return design;
}

/** Every train is on the track, and none is in the way of another. */
function stands({ system }: Design): boolean {
  const { start, hazards } = standingStart(system);
  return (
    start.plant.notPlaced.length === 0 &&
    !hazards.includes('trains touch') &&
    !hazards.includes('two trains in a block')
  );
}

function withOneMore({ scheme }: Design, like: Train): Design | undefined {
  const { document, readings } = scheme;
  const nth = document.trains.length + 1;
  for (const { signal } of readings) {
    const at = signal.at.tenthUm + (signal.governs === 'up' ? -BEFORE_SIGNAL : BEFORE_SIGNAL);
    if (at < 0) continue;
    const start = { line: signal.line, at: asTyped(at, document.shownUnit), facing: signal.governs };
    const one: Train = { ...like, id: `${like.id}-${nth}`, name: `Train ${nth}`, start };
    const design = checkDesign({ ...document, trains: [...document.trains, one] });
    if (stands(design)) return design;
  }
  return undefined;
}
