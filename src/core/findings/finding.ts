export type Severity = 'unsafe' | 'check' | 'note';

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
  kind: string;
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
