import { expose } from 'comlink';
import { type Cause, causesIn } from '@/core/design';
import {
  type Proof,
  ProofModel,
  type ProofProgress,
  ProofRun,
  type Property,
  type Steered,
  type Switch,
  steerCounterexample,
} from '@/core/proof';
import { idsForNames, type LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';

/**
 * A proof with, for each thing that can happen, why, and the run of the rehearsal that comes to it. Its sentences have ids in the place of names
 * (`idsForNames`), so that whoever shows them calls everything as it is called now.
 */
export interface ProofReport extends Proof<Cause> {
  steered: Partial<Record<Property, Steered>>;
}

/** States followed between two looks at whether to stop. */
const SLICE = 500;
const REPORT_MS = 200;

let stopped = false;

const worker = {
  /** Looks at every state, telling how far it is; a proof that is stopped says what it knows by then. */
  async prove(
    document: LayoutDocument,
    switches: Switch[],
    tell: (progress: ProofProgress) => void,
  ): Promise<ProofReport> {
    stopped = false;
    const unnamed = idsForNames(document);
    const run = new ProofRun(compileSystem(unnamed), undefined, new Set(switches));
    let told = performance.now();
    while (!run.step(SLICE) && !stopped) {
      if (performance.now() - told < REPORT_MS) continue;
      told = performance.now();
      tell(run.progress);
      await new Promise((resolve) => setTimeout(resolve, 0));
    }
    const proof = run.result(causesIn(unnamed));
    const steered: ProofReport['steered'] = {};
    for (const { property, counterexample } of proof.verdicts)
      if (counterexample) steered[property] = steerCounterexample(run.explorer.model, property, counterexample);
    return { ...proof, steered };
  },
  stop(): void {
    stopped = true;
  },
  /** The model for the Spin checker; written here, since pages may not start the emitted program. */
  async promela(document: LayoutDocument, switches: Switch[]): Promise<string> {
    const { writePromela } = await import('@/core/proof/export');
    return writePromela(new ProofModel(compileSystem(document), new Set(switches)));
  },
};

export type ProofWorker = typeof worker;
expose(worker);
