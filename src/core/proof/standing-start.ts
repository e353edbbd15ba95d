import { HARM_IDS, type HarmId, harmOfEvent, harmsNow, Rehearsal } from '../simulation';
import type { System } from '../system';

/** How long the trains stand before the proof begins, so that power-up is over. */
export const STANDING_TICKS = 1500;

/** A rehearsal in which all trains have stood until power-up is over, and what is wrong with how they stand. */
export function standingStart(system: System): { start: Rehearsal; harms: HarmId[] } {
  const start = new Rehearsal(system, 0);
  for (const train of start.plant.trains) train.running = false;
  const met = new Set<HarmId>();
  for (let i = 0; i < STANDING_TICKS; i++)
    start.step((event) => {
      const harm = harmOfEvent(event);
      if (harm) met.add(harm);
    });
  for (const { id } of harmsNow(start)) met.add(id);
  return { start, harms: HARM_IDS.filter((harm) => met.has(harm)) };
}
