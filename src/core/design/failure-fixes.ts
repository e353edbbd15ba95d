import type { Fix } from '../findings';
import type { Property, Steered } from '../proof';
import { HAZARDS, type HazardId, hazardOfEvent, hazardsNow, type Recording, Rehearsal } from '../simulation';
import { applyEdit, type Edit, type LayoutDocument } from '../survey';
import { compileSystem } from '../system';
import { checkDesign } from './check-design';
import type { TriedFix, TriedFixes } from './tried-fixes';

/** A fix of a failure that was tried; nothing is proved by it. */
export interface FailureFix extends TriedFix {
  /** The run that came to the hazard no longer does; false where no run came to it. */
  mendsRun: boolean;
}
export interface FailureFixes {
  offered: FailureFix[];
  withheld: TriedFixes['withheld'];
}

/**
 * Fixes of a failure, each on a copy: offered are those after which the run that led to the hazard no longer does, if one did, and
 * that bring no unsafe finding and no other hazard in that run. Whether it can still come about otherwise, only a proof can tell.
 */
export function triedOnFailure(
  document: LayoutDocument,
  fixes: readonly Fix<Edit>[],
  property: Property,
  steered: Steered | undefined,
): FailureFixes {
  const run = property !== 'deadlock' && steered?.confirmed ? steered : undefined;
  const before = new Set(unsafeIn(document).map(({ id }) => id));
  const metBefore = run && hazardsMet(document, run);
  const tried: FailureFixes = { offered: [], withheld: [] };
  for (const fix of fixes) {
    const done = applyEdit(document, fix.edit);
    if (!done.ok) continue;
    const after = done.change.document;
    const met = run && hazardsMet(after, run);
    if (met?.has(property as HazardId)) continue;
    const unsafe = unsafeIn(after).filter(({ id }) => !before.has(id));
    const others = [...(met ?? [])].filter((hazard) => !metBefore!.has(hazard));
    const brings = [
      ...unsafe.map(({ says }) => says),
      ...others.map((hazard) => `In the same run then: ${HAZARDS[hazard].fails}`),
    ];
    if (brings.length > 0) tried.withheld.push({ ...fix, brings });
    else tried.offered.push({ ...fix, brings, mendsRun: run !== undefined });
  }
  return tried;
}

const unsafeIn = (document: LayoutDocument) =>
  checkDesign(document).findings.filter(({ severity }) => severity === 'unsafe');

/** All hazards that a run comes to. A command to what is no longer there is refused, and the run goes on. */
function hazardsMet(document: LayoutDocument, { seed, ticks, commands }: Recording): Set<HazardId> {
  const run = new Rehearsal(compileSystem(document), seed);
  const met = new Set<HazardId>();
  let given = 0;
  while (run.tick < ticks) {
    for (; given < commands.length && commands[given]!.tick <= run.tick; given++) run.command(commands[given]!.command);
    run.step((event) => {
      const hazard = hazardOfEvent(event);
      if (hazard) met.add(hazard);
    });
    for (const { id } of hazardsNow(run)) met.add(id);
  }
  return met;
}
