import { HAZARD_IDS, type HazardId, hazardOfEvent, hazardsNow, Rehearsal } from '../../simulation';
import type { System } from '../../system';

/** How long the trains stand before the proof begins, so that power-up is over. */
export const STANDING_TICKS = 1500;
/** A pulse has come to the rules after so many ticks. */
const PULSED_TICKS = 2;

/**
 * A rehearsal in which all trains have stood until power-up is over, and what is wrong with how they stand. `pulsed`: then each signal that is released by
 * pulses, and before which a train stands, is given one.
 */
export function standingStart(
  system: System,
  { pulsed = false, seed = 0 }: { pulsed?: boolean; seed?: number } = {},
): { start: Rehearsal; hazards: HazardId[] } {
  const start = new Rehearsal(system, seed);
  for (const train of start.plant.trains) train.running = false;
  const met = new Set<HazardId>();
  const stand = (ticks: number) => {
    for (let i = 0; i < ticks; i++)
      start.step((event) => {
        const hazard = hazardOfEvent(event);
        if (hazard) met.add(hazard);
      });
  };
  stand(STANDING_TICKS);
  if (pulsed) {
    giveFirstPulses(start);
    stand(PULSED_TICKS);
  }
  for (const { id } of hazardsNow(start)) met.add(id);
  return { start, hazards: HAZARD_IDS.filter((hazard) => met.has(hazard)) };
}

/** A person starts the trains that wait for a pulse, each once. */
function giveFirstPulses({ system, controller }: Rehearsal): void {
  for (const { at, id, pulse } of system.automatic) {
    const reading = at === 'signal' ? system.readings.find(({ signal }) => signal.id === id) : undefined;
    if (reading && pulse !== undefined && controller.isOn('occupied', reading.rear)) controller.pulse(pulse);
  }
}
