import type {
  AspectMatrix,
  AutomationProposals,
  DesignView,
  FailRow,
  FailureFixes,
  HowManyTrains,
  LockProposals,
  OwnRuleRow,
  OwnScheme,
  PointsDivision,
  PointsView,
  RulesAbout,
  RulesRead,
  SchemeFigures,
  SignalProposal,
  SignalView,
  Some,
  Trial,
  Tried,
  TriedFixes,
} from '@/core/design';
import type { BestAxles, SeeEverywhere } from '@/core/detection';
import type { DivideWishes, Suggestion } from '@/core/divide';
import type { FaultGroup } from '@/core/faults';
import type { Fix } from '@/core/findings';
import type { Explanation } from '@/core/logic';
import type { Property, Steered } from '@/core/proof';
import type { Edit, LayoutDocument } from '@/core/survey';
import type { SurveyReading } from '@/core/walk';
import type { Locking } from '@/workers/design.worker';
import type { Proved } from './verdict-line';
import type { StageTraits } from './view';

/** A design with the document it was computed from: the two are shown together or not at all. */
export interface Designed extends DesignView {
  document: LayoutDocument;
  /** The System’s key: worked out only where there is a proof to compare with. */
  key?: string;
}

/** Asks why a name of the rules has its present value. */
export type Explain = (rule: string) => Promise<Explanation | undefined>;

/** What is computed from the document, and what is tried with it by hand. */
export interface DesignSlice {
  /** The newest design there is; of another document than the present one, it is about to be replaced. */
  design?: Designed;
  /** Why there is no design of the present document, where working it out has failed; the last one stays. */
  designProblem?: string;
  /** The newest proof; of another document than the present one it is out of date. */
  proved?: Proved;
  /** The newest one in which something could fail. */
  provedFailing?: Proved;
  trial: Trial;
  /** What comes of the trial; nothing until it is asked for. */
  tried?: Tried & { document: LayoutDocument };
  explainTrial?: Explain;
  /** What each signal shows to a train that comes to it while another stands in a block, with the points lying so. */
  matrixOf?: (points: Trial['points'], some: Some) => Promise<AspectMatrix>;
  /** What each signal has when something fails, with the points lying so. */
  failsOf?: (points: Trial['points'], some: Some) => Promise<FailRow[]>;
  /** What can fail, and is known what comes of it. */
  listFaults?: () => Promise<FaultGroup[]>;
  /** What a signal protects. */
  lookUpSignal?: (id: string) => Promise<SignalView | undefined>;
  /** What holds the motors of points. */
  lookUpPoints?: (id: string) => Promise<PointsView | undefined>;
  /** The locking table: a row for each route; what the prototype asks of it; and the turnouts that each track meets. */
  lockingTable?: () => Promise<Locking>;
  /** All rules of somebody’s own. */
  ownRules?: () => Promise<OwnRuleRow[]>;
  /** The rules about a thing, to be changed; what a changed text of them does; and what they are now. */
  rulesAbout?: (id: string) => Promise<RulesAbout>;
  readRules?: (id: string, text: string) => Promise<RulesRead>;
  valuesAbout?: (id: string) => Promise<Record<string, string>>;
  /** The rules about a thing, as text. */
  textAbout?: (id: string) => Promise<string>;
  /** The fewest resistor axles that make every train seen wherever it matters. */
  seeEverywhere?: () => Promise<SeeEverywhere>;
  /** What at most so many resistor axles do. */
  seeWith?: (count: number) => Promise<BestAxles>;
  /** Where signals could be placed, and what speaks for each. */
  proposeSignals?: () => Promise<SignalProposal>;
  /** What mends a finding, by its id: each fix is tried on a copy. */
  /** Points as parts of blocks, and in sections of their own. */
  comparePoints?: (wishes: DivideWishes) => Promise<PointsDivision[]>;
  /** Undefined where it was stopped, or begun anew. */
  proposeLocks?: (reached: (share: number) => void) => Promise<LockProposals | undefined>;
  stopProposing?: () => void;
  /** For one train, two, and so on, what they come to by themselves; undefined where it was stopped, or begun anew. */
  countTrains?: (most: number, reached: (share: number) => void) => Promise<HowManyTrains | undefined>;
  /** What trains could work by themselves; it is stopped with the counting. */
  proposeAutomation?: (reached: (share: number) => void) => Promise<AutomationProposals | undefined>;
  stopCounting?: () => void;
  fixesOf?: (id: string) => Promise<TriedFixes>;
  /** What mends a failure: each fix is tried on a copy, with the run that led to it. */
  failureFixesOf?: (
    fixes: readonly Fix<Edit>[],
    property: Property,
    steered: Steered | undefined,
  ) => Promise<FailureFixes>;
  /** Three ways to protect the whole layout, drawn up from its track and what was decided. */
  ownSchemes?: () => Promise<OwnScheme[]>;
  /** What a way to protect the layout takes, costs and leaves. */
  figuresOf?: (of: LayoutDocument) => Promise<SchemeFigures>;
  /** Where to cut the track so that it is divided as is wished for. */
  suggest?: (wishes: DivideWishes) => Promise<Suggestion>;
  /** What is asked of that division otherwise than usual, as long as the window is open. */
  wishes?: Partial<DivideWishes>;
  /** What a text of phrases would add to the layout. */
  /** Undefined where the reading was stopped, by `stopReading` or by the next text. */
  readText?: (text: string, reached: (share: number) => void) => Promise<SurveyReading | undefined>;
  stopReading?: () => void;
}
/** What comes of the trial with the design that is shown. */
export const shownTried = ({ tried, design }: Pick<DesignSlice, 'tried' | 'design'>): Tried | undefined =>
  tried && tried.document === design?.document ? tried : undefined;

/** It begins with the trains where they stand. */
export const FIRST_TRIAL: Trial = { trains: true, occupied: [], points: {} };

/**
 * The document that the sheet and everything derived show: the design’s own, so that no two edits are ever mixed. A design of
 * an empty layout says nothing, so there the present document is shown at once.
 */
export const shownDocument = ({
  design,
  document,
}: Pick<DesignSlice, 'design'> & { document: LayoutDocument }): LayoutDocument =>
  design && design.document.lines.length > 0 ? design.document : document;

const TRACKS = ['lines', 'joins', 'turnouts', 'crossings'] as const;
/** Two documents of the very same track: what stands on it can differ. */
export const sameTrack = (one: LayoutDocument, other: LayoutDocument): boolean =>
  TRACKS.every((list) => one[list] === other[list]);

/**
 * The document that the sheet draws. Where things are edited it is the present one as long as its track is that of the design: what
 * was placed or moved is seen at once, and blocks follow.
 */
export const drawnDocument = (
  state: Pick<DesignSlice, 'design'> & { document: LayoutDocument; stage: StageTraits },
): LayoutDocument => {
  const { design, document, stage } = state;
  return stage.edits && design && sameTrack(design.document, document) ? document : shownDocument(state);
};
