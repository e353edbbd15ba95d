import { authoritySignal } from './authority-signal';
import { fourAspect } from './four-aspect';
import { junctionArms } from './junction-arms';
import { type Aspect, type AspectSystem, promisesFree } from './kind';
import { lowSignal } from './low-signal';
import { speedSignals } from './speed-signals';
import { threeAndSight } from './three-and-sight';
import { threeAspect } from './three-aspect';
import { turnoutIndicator } from './turnout-indicator';
import { twoAspect } from './two-aspect';

/** Every aspect system that comes with Roblik, by the name that documents have for it. The first is the one a new signal gets. */
export const ASPECT_SYSTEMS: Readonly<Record<string, AspectSystem>> = {
  'three-aspect': threeAspect,
  'two-aspect': twoAspect,
  'four-aspect': fourAspect,
  'speed-signals': speedSignals,
  'junction-arms': junctionArms,
  'turnout-indicator': turnoutIndicator,
  'low-signal': lowSignal,
  'authority-signal': authoritySignal,
  'three-and-sight': threeAndSight,
};
export const ASPECT_SYSTEM_IDS = Object.keys(ASPECT_SYSTEMS);

/** The aspects of some systems together, each once, the more restrictive first. Of none: those of the first system. */
export function aspectsOf(systems: readonly AspectSystem[]): Aspect[] {
  const used = systems.length > 0 ? [...new Set(systems)] : [ASPECT_SYSTEMS[ASPECT_SYSTEM_IDS[0]!]!];
  const found = new Map<string, Aspect>();
  for (const aspect of used.flatMap(({ aspects }) => aspects)) if (!found.has(aspect.id)) found.set(aspect.id, aspect);
  return [...found.values()].sort((a, b) => (a.stopsIn === b.stopsIn ? sure(a) - sure(b) : a.stopsIn - b.stopsIn));
}

const sure = ({ onSight = false }: Aspect): number => (onSight ? 0 : 1);

const first = (fits: (aspect: Aspect) => unknown): string =>
  ASPECT_SYSTEM_IDS.find((id) => ASPECT_SYSTEMS[id]!.aspects.some(fits)) ?? ASPECT_SYSTEM_IDS[0]!;
/** The first system that announces a stop two signals before, and the first that announces a speed. */
export const EARLY_SYSTEM = first(({ stopsIn }) => stopsIn === 2);
export const SPEED_SYSTEM = first(({ speedAtNext }) => speedAtNext);
/** The first that can say both that nothing stands on the way, and nothing of that. */
export const SIGHT_SYSTEM = ASPECT_SYSTEM_IDS.find((id) => {
  const { aspects } = ASPECT_SYSTEMS[id]!;
  return aspects.some(promisesFree) && aspects.some(({ onSight }) => onSight);
})!;
