export type Severity = 'unsafe' | 'check' | 'note';

/** The stages of the work in which findings are put right, each kind in one. */
export const STAGE_IDS = ['survey', 'traffic', 'detect', 'signal', 'lock'] as const;
export type StageId = (typeof STAGE_IDS)[number];

/**
 * What can be wrong, each with the stage in which it is put right and the hazard of the proof that it can lead to. A proof speaks of the trains as they start now, a finding of any; the two are told beside each other.
 */
export const FINDING_KINDS = {
  'track without detection': { stage: 'detect' },
  'two detectors in one section': { stage: 'detect' },
  'one detector for several blocks': { stage: 'detect' },
  'block shorter than the longest train': { stage: 'survey' },
  'train no detector sees': { stage: 'detect', hazard: 'two trains in a block' },
  'spot that can miss a train': { stage: 'detect' },
  'spot on the inside of a curve': { stage: 'detect' },
  'car too light for sure contact': { stage: 'detect' },
  'unseen tail': { stage: 'detect', hazard: 'trains touch' },
  'unseen over points': { stage: 'detect', hazard: 'points moved under a train' },
  'overhang over points': { stage: 'detect', hazard: 'points moved under a train' },
  'crossing read as a diamond': { stage: 'survey' },
  'track end without a buffer': { stage: 'survey' },
  'train that cannot be placed': { stage: 'survey' },
  'trains in each other’s way at the start': { stage: 'survey' },
  'start before points that lie against it': { stage: 'survey', hazard: 'points set wrong' },
  'no block to spare on a circuit': { stage: 'traffic' },
  'signal not at a block’s end': { stage: 'signal' },
  'signal with nothing to protect': { stage: 'signal' },
  'signal into undetected track': { stage: 'signal' },
  'signal with too many routes': { stage: 'signal' },
  'no signal at the end of a block': { stage: 'signal', hazard: 'two trains in a block' },
  'points without protection': { stage: 'signal', hazard: 'points set wrong' },
  'points whose position is assumed': { stage: 'lock', hazard: 'points set wrong' },
  'points that nothing holds': { stage: 'lock', hazard: 'points moved under a train' },
  'side of a route that nothing guards': { stage: 'lock' },
  'arrival that nothing tells': { stage: 'lock' },
  'automatic working that cannot be there': { stage: 'lock' },
  'points thrown whatever locks them': { stage: 'lock', hazard: 'points moved under a train' },
  'signal that looks at nothing ahead': { stage: 'lock', hazard: 'trains touch' },
  'train longer than from stop mark to clearance point': { stage: 'lock', hazard: 'points moved under a train' },
  'signal inside clearance': { stage: 'signal', hazard: 'trains touch' },
  'braking longer than its warning': { stage: 'signal', hazard: 'stop not announced in time' },
  'two things with one name': { stage: 'survey' },
  'one vehicle in two places': { stage: 'survey' },
  'way of working that does not exist': { stage: 'survey' },
  'line that meets nothing': { stage: 'survey' },
  'cut inside clearance': { stage: 'survey' },
  'cut between points too near for it': { stage: 'survey' },
  'unseen tail at clearance': { stage: 'detect', hazard: 'trains touch' },
  'leg that leads nowhere': { stage: 'survey' },
  'tapes that disagree': { stage: 'survey' },
  'things that overlap': { stage: 'survey' },
  'curve tighter than a vehicle takes': { stage: 'survey' },
  'clearance too short for a vehicle’s throw': { stage: 'survey', hazard: 'trains touch' },
  'brakes not measured on a gradient': { stage: 'survey' },
  'lift-out without protection': { stage: 'survey' },
  'double track without directions': { stage: 'traffic' },
  'track that meets itself the other way round': { stage: 'survey' },
  'reversing section shorter than a train': { stage: 'survey' },
  'gap in the other rail': { stage: 'survey' },
  'section without a feeder': { stage: 'survey' },
  'two boosters in one section': { stage: 'survey' },
  'boosters joined by a rail': { stage: 'survey' },
  'feeder of no booster': { stage: 'survey' },
  'reversing section that nothing reverses': { stage: 'survey' },
  'detector too dull for a resistor axle': { stage: 'detect', hazard: 'two trains in a block' },
  'detector that leakage occupies': { stage: 'detect' },
  'detector that joins the two poles': { stage: 'detect' },
  'block inferred from spots alone': { stage: 'detect' },
  'block inferred from spots at one end only': { stage: 'detect' },
  'block inferred by counting': { stage: 'detect' },
  'train that a count loses': { stage: 'detect', hazard: 'two trains in a block' },
  'block inferred by a timer': { stage: 'detect', hazard: 'two trains in a block' },
  'timer shorter than a train takes': { stage: 'detect', hazard: 'two trains in a block' },
  'timer that nothing sets off': { stage: 'detect', hazard: 'two trains in a block' },
  'toggle that can fall out of step': { stage: 'detect', hazard: 'two trains in a block' },
  'board that nothing sets': { stage: 'detect', hazard: 'two trains in a block' },
  'block released by the nose': { stage: 'detect', hazard: 'two trains in a block' },
  'train longer than a block of a chain': { stage: 'detect', hazard: 'two trains in a block' },
  'chain that stays at stop': { stage: 'detect' },
  'virtual end': { stage: 'detect', hazard: 'two trains in a block' },
  'spots farther apart than a train is long': { stage: 'detect', hazard: 'two trains in a block' },
  'two sensors at one place': { stage: 'detect' },
  'hold longer than a train takes': { stage: 'detect' },
  'detector blind at a closed throttle': { stage: 'detect', hazard: 'two trains in a block' },
  'aspects alike without colours': { stage: 'signal' },
  'lamp that fails to a less restrictive aspect': { stage: 'signal', hazard: 'two trains in a block' },
  'wiring that fails to a false clear': { stage: 'signal', hazard: 'two trains in a block' },
  'limit of speed that nobody announces': { stage: 'signal' },
  'one head for several tracks': { stage: 'signal' },
  'rule of your own that does not work': { stage: 'signal' },
  'head that a curve hides': { stage: 'signal' },
  'head where nobody sees it': { stage: 'signal' },
  'lamp that passes for a signal': { stage: 'signal' },
  'signal that holds no train': { stage: 'signal', hazard: 'two trains in a block' },
  'permission by an aspect that says too much': { stage: 'signal', hazard: 'proceed over a train' },
  'detector that needs current in the track': { stage: 'detect', hazard: 'two trains in a block' },
} as const satisfies Record<string, { stage: StageId; hazard?: string }>;
export type FindingKind = keyof typeof FINDING_KINDS;

/** The stage in which a kind of finding is put right. */
export const stageOfFinding = (kind: FindingKind): StageId => FINDING_KINDS[kind].stage;

/** The hazard of a proof that a kind of finding can lead to. */
export const hazardOfFinding = (kind: FindingKind): string | undefined =>
  (FINDING_KINDS[kind] as { hazard?: string }).hazard;

export interface Figure {
  name: string;
  value: string;
}

/** A proposed mend: what it does in words, and the edit that does it. */
export interface Fix<Edit> {
  says: string;
  edit: Edit;
}

/** Something wrong or doubtful in a design. Generic over the edit type, so that it knows no survey. */
export interface Finding<Edit> {
  /** Stable across runs: kind and subject. */
  id: string;
  kind: FindingKind;
  severity: Severity;
  /** The id of the thing in the document it concerns. */
  subject: string;
  says: string;
  figures: Figure[];
  /** What to do, when no edit can do it for the person. */
  advice?: string;
  fixes: Fix<Edit>[];
  /** Why somebody lives with it, where somebody does; and what it said when they decided that, where that was not the same. */
  accepted?: string;
  saidThen?: string;
}

/** Whether it asks somebody to do something: it is more than a note, and nobody lives with it. */
export const isOpen = ({ severity, accepted }: Pick<Finding<unknown>, 'severity' | 'accepted'>): boolean =>
  severity !== 'note' && accepted === undefined;

/** The higher, the graver. */
export const GRAVITY: Record<Severity, number> = { unsafe: 2, check: 1, note: 0 };
const placeOf = ({ severity, accepted }: Pick<Finding<unknown>, 'severity' | 'accepted'>): number =>
  accepted === undefined ? -GRAVITY[severity] : -GRAVITY.note;

/** Gravest first, accepted ones among the notes; within one gravity by id, so that the order never depends on how they were found. */
export function sortFindings<Edit>(findings: Finding<Edit>[]): Finding<Edit>[] {
  return [...findings].sort((a, b) => placeOf(a) - placeOf(b) || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));
}
