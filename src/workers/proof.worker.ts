import { expose } from 'comlink';
import { type Cause, causesIn, leftOut } from '@/core/design';
import { type Fault, sayFault, withFault } from '@/core/faults';
import { type Proof, ProofModel, type ProofProgress, ProofRun, proofKey, type Switch } from '@/core/proof';
import { idsForNames, type LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';

/**
 * A proof with, for each thing that can happen, why, and the run of a rehearsal that was driven there. Its sentences have ids in the place of names
 * (`idsForNames`), so that whoever shows them calls everything as it is called now.
 */
export interface ProofReport extends Proof<Cause> {
  /** What could fail in it, at any moment; its key is that of the layout without this. */
  fault?: Fault & { says: string };
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
    fault: Fault | undefined,
    tell: (progress: ProofProgress) => void,
  ): Promise<ProofReport> {
    stopped = false;
    const unnamed = idsForNames(document);
    const system = compileSystem(unnamed);
    const run = new ProofRun(fault ? withFault(system, fault) : system, undefined, new Set(switches));
    let told = performance.now();
    while (!run.step(SLICE) && !stopped) {
      if (performance.now() - told < REPORT_MS) continue;
      told = performance.now();
      tell(run.progress);
      await new Promise((resolve) => setTimeout(resolve, 0));
    }
    const { failing } = run;
    for (const [done, property] of failing.entries()) {
      if (stopped) break;
      tell({ ...run.progress, driven: { done, of: failing.length } });
      await new Promise((resolve) => setTimeout(resolve, 0));
      run.steer(property);
    }
    /** Causes are told of what is wrong with a layout on which nothing fails. */
    const proof = run.result<Cause>(fault ? undefined : causesIn(unnamed));
    return {
      ...proof,
      assumptions: [...proof.assumptions, ...leftOut(document)],
      key: proofKey(system),
      ...(fault && { fault: { ...fault, says: sayFault(system, fault, true) } }),
    };
  },
  stop(): void {
    stopped = true;
  },
  /** The model for the Spin checker; written here, since pages may not start the emitted program. */
  async promela(document: LayoutDocument, switches: Switch[], fault: Fault | undefined): Promise<string> {
    const { writePromela } = await import('@/core/proof/export');
    const system = compileSystem(document);
    return writePromela(new ProofModel(fault ? withFault(system, fault) : system, new Set(switches)));
  },
};

export type ProofWorker = typeof worker;
expose(worker);
