import { expose } from 'comlink';
import {
  type AspectMatrix,
  Bench,
  checkDesign,
  type DesignView,
  type FailRow,
  proposeSignals,
  type RulesAbout,
  type RulesRead,
  type SchemeFigures,
  type SignalProposal,
  type SignalView,
  type Some,
  schemeFigures,
  type Trial,
  type Tried,
  viewDesign,
  viewSignal,
} from '@/core/design';
import { type BestAxles, bestAxles, fewestAxles, type SeeEverywhere, seenLimits } from '@/core/detection';
import { type DivideWishes, type Suggestion, suggestGaps } from '@/core/divide';
import type { Explanation } from '@/core/logic';
import type { LayoutDocument } from '@/core/survey';
import { readSurvey, type SurveyReading } from '@/core/walk';

let document: LayoutDocument | undefined;
let bench: Bench | undefined;

/** Compiles a document off the main thread, and tries things by hand on the last one compiled. */
const worker = {
  /** The fields of the document that are others than those of the one before; all of them the first time. */
  check(changed: Partial<LayoutDocument>): DesignView {
    for (const value of Object.values(changed)) Object.freeze(value);
    document = { ...document, ...changed } as LayoutDocument;
    const design = checkDesign(document);
    bench = new Bench(design);
    return viewDesign(document, design);
  },
  tryOut: (trial: Trial): Tried => bench!.try(trial),
  fails: (points: Trial['points'], some: Some): FailRow[] => bench!.fails(points, some),
  matrix: (points: Trial['points'], some: Some): AspectMatrix => bench!.matrix(points, some),
  explain: (rule: string): Explanation | undefined => bench!.explain(rule),
  signal: (id: string): SignalView | undefined => viewSignal(bench!.design, id),
  rulesAbout: (id: string): RulesAbout => bench!.rulesAbout(id),
  readRules: (id: string, text: string): RulesRead => bench!.readRules(id, text),
  valuesAbout: (id: string): Record<string, string> => bench!.valuesAbout(id),
  textAbout: (id: string): string => bench!.textAbout(id),
  /** The fewest resistor axles that make every train seen wherever it matters, and what that asks for. */
  seeEverywhere(): SeeEverywhere {
    const { scheme } = bench!.design;
    const limits = seenLimits(scheme.partition);
    return { limits, ...fewestAxles(scheme.document, limits) };
  },
  /** What at most so many axles do. */
  seeWith(count: number): BestAxles {
    const { scheme } = bench!.design;
    return bestAxles(scheme.document, seenLimits(scheme.partition), count);
  },
  proposeSignals: (): SignalProposal => proposeSignals(document!),
  figuresOf: (of: LayoutDocument): SchemeFigures => schemeFigures(of),
  suggest: (wishes: DivideWishes): Suggestion => suggestGaps(document!, wishes),
  readText: (text: string): SurveyReading => readSurvey(text, document!),
};

export type DesignWorker = typeof worker;
expose(worker);
