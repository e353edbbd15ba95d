export type Severity = 'unsafe' | 'check' | 'note';

/** What can be wrong, each with the stage of the work in which it is put right. */
export const FINDING_KINDS = {
  'track without detection': 'survey',
  'two detectors in one section': 'survey',
  'block shorter than the longest train': 'survey',
  'train no detector sees': 'survey',
  'unseen tail': 'survey',
  'unseen over points': 'survey',
  'crossing read as a diamond': 'survey',
  'signal not at a block’s end': 'signal',
  'signal with nothing to protect': 'signal',
  'signal into undetected track': 'signal',
  'no signal at the end of a block': 'signal',
  'points without protection': 'signal',
  'two things with one name': 'signal',
  'signal inside clearance': 'signal',
  'train that cannot be placed': 'survey',
  'trains in each other’s way at the start': 'survey',
  'no block to spare on a circuit': 'survey',
  'braking longer than its warning': 'signal',
  'overhang over points': 'survey',
} as const;
export type FindingKind = keyof typeof FINDING_KINDS;

export interface Figure {
  name: string;
  value: string;
}

/** A proposed mend: what it does in words, and the edit that does it. */
export interface Remedy<Edit> {
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
  remedies: Remedy<Edit>[];
}

const ORDER: Record<Severity, number> = { unsafe: 0, check: 1, note: 2 };

/** Gravest first; within one gravity by id, so that the order never depends on how they were found. */
export function sortFindings<Edit>(findings: Finding<Edit>[]): Finding<Edit>[] {
  return [...findings].sort(
    (a, b) => ORDER[a.severity] - ORDER[b.severity] || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0),
  );
}
