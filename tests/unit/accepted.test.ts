import { describe, expect, test } from 'vitest';
import { proposeSignals } from '@/core/design';
import { suggestGaps, usualWishes } from '@/core/divide';
import { FINDING_KINDS, type FindingKind } from '@/core/findings';
import { ProofRun, STANDARD_SWITCHES } from '@/core/proof';
import { compileSystem } from '@/core/system';
import { PLANS, planned } from '@/demo/plans';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { randomPoints } from '../../tools/fuzz/random-points';
import { withAllAccepted } from './accepted';
import { randomLine } from './random-line';
import { randomPlan } from './random-plan';
import { ofSweep } from './sweep';

const many = <T>(count: number, make: (seed: number) => T): T[] => Array.from({ length: count }, (_, i) => make(i + 1));
/** Bare track of every form. */
const SURVEYS = [
  ...many(ofSweep(120), randomPlan),
  ...many(ofSweep(60), randomPoints),
  ...many(ofSweep(120), randomLayout),
  ...many(ofSweep(40), randomLine),
  ...PLANS.map(planned),
];
/** What gaps, detectors, axles and signals cannot mend: where trains start, what trains are, and what nobody can see of them. */
const NOT_THEIRS: readonly FindingKind[] = [
  'trains in each other’s way at the start',
  'train that cannot be placed',
  'no block to spare on a circuit',
  'start before points that lie against it',
  'braking longer than its warning',
];
const OF_HOPELESS: readonly FindingKind[] = [
  'unseen tail',
  'unseen tail at clearance',
  'unseen over points',
  'overhang over points',
  'train no detector sees',
];

describe('everything accepted that Detect and Signal propose', () => {
  test('leaves no unsafe finding that they could mend, and nothing more to propose', () => {
    let looked = 0;
    for (const survey of SURVEYS) {
      const { document, findings, suggestion, hopeless } = withAllAccepted(survey);
      looked += document.features.length;
      const says = survey.name;
      expect(proposeSignals(document).signals, says).toEqual([]);
      expect(suggestGaps(document, usualWishes(document)).cuts, says).toEqual([]);
      for (const finding of findings) {
        const told = `${says}: ${finding.says}`;
        /** Track too short for any train is listed by Detect; nobody can be held there. */
        const tooShort = suggestion.short.length > 0 || suggestion.impossible !== undefined;
        if (finding.kind === 'points without protection' && finding.severity !== 'note')
          expect(tooShort, told).toBe(true);
        else if (finding.severity === 'unsafe' && OF_HOPELESS.includes(finding.kind))
          expect(hopeless.length, told).toBeGreaterThan(0);
        else if (finding.severity === 'unsafe') expect(NOT_THEIRS, told).toContain(finding.kind);
        /** What they themselves have placed is not found fault with. */
        expect(['gap in the other rail', 'signal not at a block’s end', 'cut inside clearance'], told).not.toContain(
          finding.kind,
        );
        if (finding.kind === 'signal with nothing to protect') expect(finding.says).toMatch(/has no way on/);
      }
    }
    expect(looked).toBeGreaterThan(500);
  });

  test('of trains that do not turn back the proof then finds nothing that was not told', () => {
    const on = new Set([...STANDARD_SWITCHES].filter((one) => one !== 'turn back'));
    let [proved, failed] = [0, 0];
    for (const survey of [...many(ofSweep(60), randomPoints), ...many(ofSweep(120), randomLayout)]) {
      const { document, findings } = withAllAccepted(survey);
      if (findings.some(({ severity }) => severity === 'unsafe')) continue;
      const run = new ProofRun(compileSystem(document), 20_000, on);
      while (!run.step(5000));
      const { verdicts } = run.result();
      const hazards = findings.map(({ kind }) => (FINDING_KINDS[kind] as { hazard?: string }).hazard);
      /** Where nobody turns back, who has run to the end of the track stays there. */
      const failing = verdicts.filter(({ property, result }) => result === 'fails' && property !== 'deadlock');
      for (const { property } of failing) expect(hazards, `${survey.name}: ${property}`).toContain(property);
      if (failing.length > 0) failed += 1;
      else proved += 1;
    }
    expect(proved).toBeGreaterThan(20);
    expect(failed).toBe(0);
  });
});
