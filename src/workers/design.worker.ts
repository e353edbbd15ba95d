import { expose } from 'comlink';
import {
  type AspectMatrix,
  type AutomaticView,
  type AutomationProposals,
  allAutomatic,
  Bench,
  checkDesign,
  comparePoints,
  type FailRow,
  type FailureFixes,
  type HowManyTrains,
  howManyTrains,
  type InterlockingCheck,
  interlockingChecks,
  type LockingRow,
  type LockProposals,
  lockingTable,
  type OwnRuleRow,
  type OwnScheme,
  ownRuleList,
  ownSchemes,
  type PointsDivision,
  type PointsView,
  proposeAutomation,
  proposeLocks,
  proposeSignals,
  type RulesAbout,
  type RulesRead,
  type SchemeFigures,
  type SignalProposal,
  type SignalView,
  type Some,
  schemeFigures,
  type TrackTurnout,
  type Trial,
  type Tried,
  type TriedFixes,
  trackTurnouts,
  triedFixes,
  triedOnFailure,
  viewDesign,
  viewPoints,
  viewSignal,
} from '@/core/design';
import { type BestAxles, bestAxles, fewestAxles, type SeeEverywhere, seenLimits } from '@/core/detection';
import { type DivideWishes, type Suggestion, suggestGaps } from '@/core/divide';
import { type FaultGroup, faultsOf } from '@/core/faults';
import type { Fix } from '@/core/findings';
import { type Explanation, RuleProgramError } from '@/core/logic';
import { type Property, proofKey, type Steered } from '@/core/proof';
import type { Edit, LayoutDocument } from '@/core/survey';
import { type SurveyReading, surveyReading } from '@/core/walk';
import { type DocumentStep, FollowedDocument } from './document-step';
import { InSteps } from './in-steps';
import { Practice } from './practice';
import { SentView, type ViewStep } from './view-step';

const followed = new FollowedDocument();
const sent = new SentView();
/** The newest design that could be worked out; of an older document where the last step failed. */
let bench: Bench | undefined;
/** A text that is read, what is tried of ways of locking, and numbers of trains that are tried. */
const [reading, proposing, counting] = [new InSteps(), new InSteps(), new InSteps()];
/** An edit changes features more often than anything else. */
const practice = new Practice(
  () => tryCheck({ ...followed.document!, features: [...followed.document!.features] }),
  () => tryCheck(followed.document!),
);
/** What was worked out of the document as it is has given way to that of copies: it is worked out again once nothing more is tried. */
let restoring: ReturnType<typeof setTimeout> | undefined;
function restoreSoon(): void {
  clearTimeout(restoring);
  restoring = setTimeout(() => tryCheck(followed.document!), 300);
}
function tryCheck(document: LayoutDocument): void {
  try {
    viewDesign(document, checkDesign(document));
  } catch {
    /** What is wrong was told when it was checked. */
  }
}

/** What came of a step: how the design of that version is other than the one sent last, why there is none, or that the worker has another version than the step begins at. */
export type Checked = { version: number } & ({ view: ViewStep } | { problem: string } | { behind: true });

/** The locking table, what the prototype asks of it, and the turnouts that each track meets. */
export interface Locking {
  rows: LockingRow[];
  checks: InterlockingCheck[];
  turnouts: TrackTurnout[];
  /** What trains work. */
  automatic: AutomaticView[];
}

/** Compiles a document off the main thread, and tries things by hand on the last one compiled. */
const worker = {
  /** Goes on to the next version of the document. A step that fails leaves the last design to be asked about. */
  check(step: DocumentStep): Checked {
    const version = step.to;
    practice.later();
    if (!followed.take(step)) return { version, behind: true };
    try {
      const document = followed.document!;
      const design = checkDesign(document);
      const view = viewDesign(document, design);
      bench = new Bench(design);
      return { version, view: sent.step(view, version, step.from === 0) };
    } catch (error) {
      return { version, problem: error instanceof Error ? error.message : String(error) };
    }
  },
  /** What a proof of the design belongs to; undefined where its rules cannot be compiled. */
  key(): string | undefined {
    try {
      return proofKey(bench!.design.system);
    } catch (error) {
      if (error instanceof RuleProgramError) return undefined;
      throw error;
    }
  },
  tryOut: (trial: Trial): Tried => bench!.try(trial),
  fails: (points: Trial['points'], some: Some): FailRow[] => bench!.fails(points, some),
  matrix: (points: Trial['points'], some: Some): AspectMatrix => bench!.matrix(points, some),
  /** What can fail, and is known what comes of it. */
  faults: (): FaultGroup[] => faultsOf(bench!.design.system),
  explain: (rule: string): Explanation | undefined => bench!.explain(rule),
  signal: (id: string): SignalView | undefined => viewSignal(bench!.design, id),
  points: (id: string): PointsView | undefined => viewPoints(bench!.design, id),
  locking(): Locking {
    const rows = lockingTable(bench!.design);
    const { design } = bench!;
    return {
      rows,
      checks: interlockingChecks(design, rows),
      turnouts: trackTurnouts(design, rows),
      automatic: allAutomatic(design),
    };
  },
  /** Undefined where it was stopped, or where the layout is another meanwhile. */
  async proposeLocks(reached: (share: number) => void): Promise<LockProposals | undefined> {
    const { design } = bench!;
    const found = await proposing.run(proposeLocks(design), reached);
    restoreSoon();
    return bench!.design === design ? found : undefined;
  },
  stopProposing: () => proposing.stop(),
  /** For one train, two, and so on, what they come to by themselves. Undefined where it was stopped, or where the layout is another meanwhile. */
  async countTrains(most: number, reached: (share: number) => void): Promise<HowManyTrains | undefined> {
    const { design } = bench!;
    const found = await counting.run(howManyTrains(design, most), reached);
    restoreSoon();
    return bench!.design === design ? found : undefined;
  },
  /** What trains could work by themselves at each turnout. Undefined where it was stopped, or where the layout is another meanwhile. */
  async proposeAutomation(reached: (share: number) => void): Promise<AutomationProposals | undefined> {
    const { design } = bench!;
    const found = await counting.run(proposeAutomation(design), reached);
    restoreSoon();
    return bench!.design === design ? found : undefined;
  },
  stopCounting: () => counting.stop(),
  ownRules: (): OwnRuleRow[] => ownRuleList(bench!.design.system),
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
  ownSchemes: (): OwnScheme[] => ownSchemes(bench!.design.scheme.document),
  proposeSignals: (): SignalProposal => proposeSignals(bench!.design.scheme.document),
  /** What mends a finding of that id, each fix tried. */
  fixesOf(id: string): TriedFixes {
    const { scheme, findings } = bench!.design;
    const finding = findings.find((one) => one.id === id);
    restoreSoon();
    return finding ? triedFixes(scheme.document, findings, finding) : { offered: [], withheld: [] };
  },
  /** What mends a failure, each fix tried. */
  failureFixesOf(fixes: readonly Fix<Edit>[], property: Property, steered: Steered | undefined): FailureFixes {
    restoreSoon();
    return triedOnFailure(followed.document!, fixes, property, steered);
  },
  figuresOf: (of: LayoutDocument): SchemeFigures => schemeFigures(of),
  comparePoints(wishes: DivideWishes): PointsDivision[] {
    restoreSoon();
    return comparePoints(bench!.design.scheme.document, wishes);
  },
  suggest: (wishes: DivideWishes): Suggestion => suggestGaps(bench!.design.scheme.document, wishes),
  /** Undefined where another text is to be read before this one is, or none at all any more. */
  readText: (text: string, reached: (share: number) => void): Promise<SurveyReading | undefined> =>
    reading.run(surveyReading(text, followed.document!), reached),
  stopReading: () => reading.stop(),
};

export type DesignWorker = typeof worker;
expose(worker);
