import type { Aspect, AspectSystem } from './kind';
import { threeAspect } from './three-aspect';

/** Every aspect system, by the name that documents have for it. The first is the one a new signal gets. */
export const ASPECT_SYSTEMS = { 'three-aspect': threeAspect } as const satisfies Record<string, AspectSystem>;
export type AspectSystemId = keyof typeof ASPECT_SYSTEMS;
export const ASPECT_SYSTEM_IDS = Object.keys(ASPECT_SYSTEMS) as AspectSystemId[];

/** The aspects of some systems together, each once, the more restrictive first. Of none: those of the first system. */
export function aspectsOf(systems: readonly AspectSystemId[]): Aspect[] {
  const table: Record<string, AspectSystem> = ASPECT_SYSTEMS;
  const used = Object.keys(table).filter(
    (id, i) => systems.some((system) => system === id) || (systems.length === 0 && i === 0),
  );
  const found = new Map<string, Aspect>();
  for (const aspect of used.flatMap((id) => table[id]!.aspects))
    if (!found.has(aspect.id)) found.set(aspect.id, aspect);
  return [...found.values()].sort((a, b) => (a.stopsIn === b.stopsIn ? 0 : a.stopsIn - b.stopsIn));
}
