import { expose } from 'comlink';
import { checkDesign, type Design, type Trial, tryByHand, viewDesign } from '@/core/design';
import type { LayoutDocument } from '@/core/survey';

let held: { document: LayoutDocument; design: Design } | undefined;

/** Compiles a document off the main thread, and tries things by hand on the last one compiled. */
const worker = {
  check(document: LayoutDocument, trial: Trial) {
    held = { document, design: checkDesign(document) };
    return { view: viewDesign(document, held.design), values: worker.tryOut(trial) };
  },
  tryOut(trial: Trial): Record<string, number> {
    if (!held || held.design.findings.some((f) => f.kind === 'two things with one name')) return {};
    return tryByHand(held.document, held.design, trial);
  },
};

export type DesignWorker = typeof worker;
expose(worker);
