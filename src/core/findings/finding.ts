export type Severity = 'unsafe' | 'check' | 'note';

/**
 * What can be wrong, each with the hazard of the proof that it can lead to. A proof speaks of the trains as they start now, a finding of any; the two are told beside each other.
 */
export const FINDING_KINDS = {
  'track without detection': {},
  'two detectors in one section': {},
  'block shorter than the longest train': {},
  'train no detector sees': { hazard: 'two trains in a block' },
  'spot that can miss a train': {},
  'unseen tail': { hazard: 'trains touch' },
  'unseen over points': { hazard: 'points moved under a train' },
  'overhang over points': { hazard: 'points moved under a train' },
  'crossing read as a diamond': {},
  'track end without a buffer': {},
  'train that cannot be placed': {},
  'trains in each other’s way at the start': {},
  'no block to spare on a circuit': {},
  'signal not at a block’s end': {},
  'signal with nothing to protect': {},
  'signal into undetected track': {},
  'signal with too many routes': {},
  'no signal at the end of a block': { hazard: 'two trains in a block' },
  'points without protection': { hazard: 'points set wrong' },
  'signal inside clearance': { hazard: 'trains touch' },
  'braking longer than its warning': { hazard: 'stop not announced in time' },
  'two things with one name': {},
  'way of working that does not exist': {},
  'line that meets nothing': {},
  'cut inside clearance': {},
  'leg that leads nowhere': {},
  'tapes that disagree': {},
  'things that overlap': {},
  'curve tighter than a vehicle takes': {},
  'clearance too short for a vehicle’s throw': { hazard: 'trains touch' },
  'brakes not measured on a gradient': {},
  'lift-out without protection': {},
  'double track without directions': {},
  'track that meets itself the other way round': {},
  'reversing section shorter than a train': {},
  'gap in the other rail': {},
  'section without a feeder': {},
  'two boosters in one section': {},
  'boosters joined by a rail': {},
  'feeder of no booster': {},
  'reversing section that nothing reverses': {},
  'detector too dull for a resistor axle': { hazard: 'two trains in a block' },
  'detector that leakage occupies': {},
  'block inferred from spots alone': {},
  'block inferred from spots at one end only': {},
  'block inferred by counting': {},
  'train that a count loses': { hazard: 'two trains in a block' },
  'block inferred by a timer': { hazard: 'two trains in a block' },
  'timer shorter than a train takes': { hazard: 'two trains in a block' },
  'timer that nothing sets off': { hazard: 'two trains in a block' },
  'toggle that can fall out of step': { hazard: 'two trains in a block' },
  'board that nothing sets': { hazard: 'two trains in a block' },
  'block released by the nose': { hazard: 'two trains in a block' },
  'train longer than a block of a chain': { hazard: 'two trains in a block' },
  'chain that stays at stop': {},
  'virtual end': { hazard: 'two trains in a block' },
  'spots farther apart than a train is long': { hazard: 'two trains in a block' },
  'two sensors at one place': {},
  'hold longer than a train takes': {},
  'detector blind at a closed throttle': { hazard: 'two trains in a block' },
  'aspects alike without colours': {},
  'lamp that fails to a less restrictive aspect': { hazard: 'two trains in a block' },
  'wiring that fails to a false clear': { hazard: 'two trains in a block' },
  'limit of speed that nobody announces': {},
  'one head for several tracks': {},
  'rule of your own that does not work': {},
  'head that a curve hides': {},
  'head where nobody sees it': {},
  'lamp that passes for a signal': {},
  'signal that holds no train': { hazard: 'two trains in a block' },
  'permission by an aspect that says too much': { hazard: 'proceed over a train' },
  'detector that needs current in the track': { hazard: 'two trains in a block' },
} as const satisfies Record<string, { hazard?: string }>;
export type FindingKind = keyof typeof FINDING_KINDS;

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
}

const ORDER: Record<Severity, number> = { unsafe: 0, check: 1, note: 2 };

/** Gravest first; within one gravity by id, so that the order never depends on how they were found. */
export function sortFindings<Edit>(findings: Finding<Edit>[]): Finding<Edit>[] {
  return [...findings].sort(
    (a, b) => ORDER[a.severity] - ORDER[b.severity] || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0),
  );
}
