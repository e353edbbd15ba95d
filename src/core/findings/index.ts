/** What is wrong or doubtful in a design: subject, plain sentence, figures and remedies, in one form for every stage. */
export {
  FINDING_KINDS,
  type Finding,
  type FindingKind,
  harmOfFinding,
  type Remedy,
  type Severity,
  sortFindings,
} from './finding';
