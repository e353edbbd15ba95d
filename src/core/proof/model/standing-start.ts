import { HAZARD_IDS, type HazardId, hazardOfEvent, hazardsNow, Rehearsal } from '../../simulation';
import type { System } from '../../system';

/** How long the trains stand before the proof begins, so that power-up is over. */
export const STANDING_TICKS = 1500;

/** A rehearsal in which all trains have stood until power-up is over, and what is wrong with how they stand. */
export function standingStart(system: System): { start: Rehearsal; hazards: HazardId[] } {
  const start = new Rehearsal(system, 0);
  for (const train of start.plant.trains) train.running = false;
  const met = new Set<HazardId>();
  for (let i = 0; i < STANDING_TICKS; i++)
    start.step((event) => {
      const hazard = hazardOfEvent(event);
      if (hazard) met.add(hazard);
    });
  for (const { id } of hazardsNow(start)) met.add(id);
  return { start, hazards: HAZARD_IDS.filter((hazard) => met.has(hazard)) };
}
