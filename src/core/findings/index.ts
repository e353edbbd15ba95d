/** What is wrong or doubtful in a design: subject, plain sentence, figures and fixes, in one form for every stage. */
export {
  FINDING_KINDS,
  type Finding,
  type FindingKind,
  type Fix,
  GRAVITY,
  hazardOfFinding,
  isOpen,
  type Severity,
  STAGE_IDS,
  sortFindings,
  stageOfFinding,
} from './finding';
