import { divideTrack } from '../../src/core/detection';
import { countBlockSteps, PlacementsOfTrain, ProofRun, type Switch } from '../../src/core/proof';
import type { LayoutDocument } from '../../src/core/survey';
import { compileSystem } from '../../src/core/system';
import { compileTrack } from '../../src/core/track';
import { learningOval, ring, withTrains } from '../../src/demo/learning-oval';
import { passingLoop } from '../../src/demo/passing-loop';
import { confirmedOf } from '../fuzz/confirmed';
import { explored } from '../fuzz/covering';
import { drawnLayout, systemOf } from '../fuzz/drawn-layout';
import type { CoreFigure } from './figure';

/** Trains without length on a ring, for the search alone. */
function ringOf(blocks: number, trains: number) {
  const document = ring('Counting', blocks, 100);
  const partition = divideTrack(document, compileTrack(document));
  const point = {
    lengthMm: 0,
    parts: { current: [{ from: 0, to: 0 }], metal: [], vehicle: [], magnet: [], nothing: [] },
    wheelsMm: [0, 0] as [number, number],
    pickUpsMm: [],
  };
  const motion = { brakingMm: 0, topMmPerS: 0, closes: false };
  const { placements } = new PlacementsOfTrain(partition, () => [], point, motion, false).from({
    tape: [{ piece: partition.pieces[1]!.index, exit: 1, from: 0, to: 1000 }],
    noseMm: 0,
  });
  const starts = Array.from({ length: trains }, (_, i) => placements.findIndex((p) => p.blocks[0] === i));
  return [{ placements, starts }];
}

const movesPerS = (blocks: number, trains: number) => () => {
  const groups = ringOf(blocks, trains);
  return () => {
    const from = performance.now();
    const { moves } = countBlockSteps(groups);
    return moves / (performance.now() - from) / 1000;
  };
};

const whole = (document: LayoutDocument, on?: ReadonlySet<Switch>) => () => () => {
  const run = new ProofRun(compileSystem(document), undefined, on);
  while (!run.step(10_000));
  return undefined;
};

const STATES = 400_000;
export const busyOval = () => new ProofRun(compileSystem(withTrains(ring('Oval', 12, 120), 4, 120)), STATES);

const [DRAWN_LAYOUTS, DRAWN_STATES] = [100, 20_000];
/** Of all that proofs of layouts drawn from the tables of kinds say can happen: in how many of a hundred a rehearsal driven there comes to it. */
function confirmedOfHundred(): number {
  let [told, confirmed] = [0, 0];
  for (let seed = 1; seed <= DRAWN_LAYOUTS; seed++) {
    const drawn = drawnLayout(seed);
    const known = explored(systemOf(drawn), DRAWN_STATES, drawn.on);
    if (!known) continue;
    const all = confirmedOf(known.proof);
    told += all.length;
    confirmed += all.filter((one) => one.confirmed).length;
  }
  return (100 * confirmed) / told;
}

export const proofFigures: readonly CoreFigure[] = [
  {
    name: 'failures told of 100 drawn layouts, confirmed by a run',
    unit: '%',
    least: 90,
    times: 1,
    warming: 0,
    ready: () => confirmedOfHundred,
  },
  {
    name: 'plant alone, ring of 20 blocks and 6 trains',
    unit: 'million moves a s',
    least: 5,
    times: 9,
    warming: 1,
    ready: movesPerS(20, 6),
  },
  {
    name: 'plant alone, 28 blocks and 8 trains, 3.1 million states',
    unit: 'million moves a s',
    times: 1,
    warming: 0,
    ready: movesPerS(28, 8),
  },
  {
    name: 'plant and program, oval of 12 blocks and 4 trains',
    unit: 'thousand states a s',
    least: 100,
    times: 2,
    warming: 1,
    ready: () => () => {
      const run = busyOval();
      const from = performance.now();
      while (!run.step(10_000));
      return (run.progress.states - run.progress.waiting) / (performance.now() - from);
    },
  },
  { name: 'learning oval, proved in', unit: 'ms', most: 200, times: 5, ready: whole(learningOval()) },
  {
    name: 'passing loop, two trains, proved in',
    unit: 'ms',
    most: 3000,
    times: 2,
    warming: 0,
    ready: whole(passingLoop(['up', 'down'])),
  },
  {
    name: 'the same with nothing switched on',
    unit: 'ms',
    times: 2,
    warming: 0,
    ready: whole(passingLoop(['up', 'down']), new Set()),
  },
];
