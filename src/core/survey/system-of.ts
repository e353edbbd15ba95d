import { ASPECT_SYSTEM_IDS, ASPECT_SYSTEMS, type AspectSystem, NOWHERE } from '../kinds';
import type { LayoutDocument } from './schema';

type Own = LayoutDocument['aspectSystems'][number];
const made = new WeakMap<Own, AspectSystem>();

/** A system that somebody made, as every other is. */
function asSystem(own: Own): AspectSystem {
  let system = made.get(own);
  if (!system) {
    const aspects = own.aspects.map((aspect) => ({ ...aspect, stopsIn: aspect.stopsIn ?? NOWHERE }));
    system = { ...own, aspects } as unknown as AspectSystem;
    made.set(own, system);
  }
  return system;
}

type Signalled = Pick<LayoutDocument, 'aspectSystems'>;

/** The aspect system of that id: one that comes with Roblik, or one of the layout's own; the first of all where there is none. */
export function systemOf({ aspectSystems }: Signalled, id: string): AspectSystem {
  const own = aspectSystems.find((system) => system.id === id);
  return own ? asSystem(own) : (ASPECT_SYSTEMS[id] ?? ASPECT_SYSTEMS[ASPECT_SYSTEM_IDS[0]!]!);
}

/** Every system that signals of a layout can have, by id. */
export const systemsFor = (document: Signalled): { id: string; system: AspectSystem; own: boolean }[] => [
  ...ASPECT_SYSTEM_IDS.map((id) => ({ id, system: systemOf(document, id), own: false })),
  ...document.aspectSystems.map((own) => ({ id: own.id, system: asSystem(own), own: true })),
];
