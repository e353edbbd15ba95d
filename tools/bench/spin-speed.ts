import { ProofModel, ProofRun } from '../../src/core/proof';
import { writePromela } from '../../src/core/proof/export';
import { compileSystem } from '../../src/core/system';
import { passingLoop } from '../../src/demo/passing-loop';
import { spinAll } from '../spin';
import { calibrate } from './calibrate';
import type { Figure, Measured } from './figure';

const OURS: Figure = { name: 'passing loop, nothing switched on: our states', unit: 'k/s' };
const SPINS: Figure = { name: 'the same by Spin’s verifier, compiled -O2', unit: 'k/s' };
const TURNS = 3;

/** How many states a second the proof and Spin’s verifier of the exported model look at; both of one layout, in turns, the best of each. */
export function spinSpeed(): (Figure & Measured)[] {
  const system = compileSystem(passingLoop(['up', 'up']));
  const model = writePromela(new ProofModel(system, new Set()));
  const calibration = calibrate();
  let [ours, spins] = [0, 0];
  for (let turn = 0; turn < TURNS; turn++) {
    const run = new ProofRun(system, undefined, new Set());
    const from = performance.now();
    while (!run.step(10_000)) {}
    ours = Math.max(ours, run.explorer.states / (performance.now() - from));
    const { states, ms } = spinAll(model);
    spins = Math.max(spins, states / ms);
  }
  return [
    { ...OURS, value: ours, calibration },
    { ...SPINS, value: spins, calibration },
  ];
}
