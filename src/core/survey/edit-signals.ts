import type { TenthUm } from '../measure';
import { asItWas, thingOf } from './draft';
import { FEATURES } from './feature-kinds';
import { named, nextName } from './free-names';
import { LISTS } from './lists';
import type { OwnAspectSystem } from './lists/aspect-systems';
import { asTyped, freshId } from './new-document';
import { refuse } from './refused';
import type { Facing, LayoutDocument } from './schema';
import { systemOf } from './system-of';

/** What an input reads, a signal shows and a section has when its wire or relay fails. */
export interface Wiring {
  sensors?: 'occupied' | 'free';
  signals?: 'stop' | 'clear';
  relays?: 'off' | 'fed';
}

/** What can be decided about what signals show. */
export type SignalEdit =
  /** A system of the layout's own: a new one without an id, or one that is there, as a whole. */
  | { do: 'put aspect system'; system: Omit<OwnAspectSystem, 'id'>; id?: string }
  /** The system that signals show their aspects by. */
  | { do: 'signal by'; ids: readonly string[]; system: string }
  /** How sensors and signals are wired: what each has when something breaks. */
  | { do: 'wire'; ids: readonly string[]; wiring: Wiring }
  /** Several at once, each with the next free name. */
  | { do: 'add signals'; signals: readonly { line: string; at: TenthUm; governs: Facing; system: string }[] };

/** Does it to the draft; what was done, in words. */
export function editSignals(document: LayoutDocument, edit: SignalEdit): string {
  switch (edit.do) {
    case 'put aspect system': {
      const name = named(edit.system.name, LISTS.aspectSystems.longestName!, 'An aspect system needs a name.');
      const [fault] = systemFaults(document, edit);
      if (fault) refuse(fault);
      const { id } = edit;
      if (id === undefined) {
        const fresh = freshId(asItWas(document), LISTS.aspectSystems.prefix);
        document.aspectSystems.push({ ...edit.system, name, id: fresh });
        return `Add aspect system ${name}`;
      }
      const there = document.aspectSystems.findIndex((system) => system.id === id);
      if (there < 0) return refuse('That aspect system is no longer there.');
      document.aspectSystems[there] = { ...edit.system, name, id };
      return `Change aspect system ${name}`;
    }
    case 'wire':
      if (edit.ids.length === 0) refuse('There is nothing to wire yet.');
      for (const id of edit.ids) {
        const { sensors, signals, relays } = edit.wiring;
        const sensor = thingOf(document, 'sensors', id);
        const signal = thingOf(document, 'features', id);
        if (sensor) {
          if (sensors) sensor.broken = sensors;
        } else if (signal?.kind === 'signal') {
          if (signals) signal.broken = signals;
          if (relays) signal.relay = relays;
        } else refuse('Not all of them are there any more.');
      }
      return `Wire ${edit.ids.length === 1 ? 'it' : `${edit.ids.length} things`} to fail to ${Object.values(edit.wiring).join(', ')}`;
    case 'add signals': {
      for (const { line, at, governs, system } of edit.signals) {
        const there = document.features.some(
          (f) => f.kind === 'signal' && f.line === line && f.at.tenthUm === at && f.governs === governs,
        );
        if (there) refuse('A signal already stands at one of these places.');
        document.features.push({
          id: freshId(document, FEATURES.signal.prefix),
          kind: 'signal',
          name: nextName(document, 'S', ...document.features.flatMap((f) => (f.kind === 'signal' ? [f.name] : []))),
          line,
          at: asTyped(at, document.shownUnit),
          governs,
          system,
          certainty: 'tentative',
        });
      }
      return edit.signals.length === 1 ? 'Place a proposed signal' : `Place ${edit.signals.length} proposed signals`;
    }
    case 'signal by': {
      const { name } = systemOf(asItWas(document), edit.system);
      for (const id of edit.ids) {
        const signal = thingOf(document, 'features', id);
        if (signal?.kind !== 'signal') return refuse('Not all of them are there any more.');
        signal.system = edit.system;
      }
      const [only] = edit.ids.length === 1 ? edit.ids : [];
      const signal = only && thingOf(document, 'features', only);
      const who = signal && 'name' in signal ? signal.name : `${edit.ids.length} signals`;
      return `Let ${who} signal by ${name}`;
    }
  }
}

/** What is wrong with a system that somebody wants: two that bear one name, or what the schema says of it. */
function systemFaults(
  document: LayoutDocument,
  { system, id }: Extract<SignalEdit, { do: 'put aspect system' }>,
): string[] {
  const others = asItWas(document).aspectSystems.filter((other) => other.id !== id);
  if (others.some(({ name }) => name === system.name.trim())) return [`There is already a system ${system.name}.`];
  try {
    LISTS.aspectSystems.schema.validateSync({ ...system, id: id ?? 'as0' }, { strict: true });
    return [];
  } catch (error) {
    return [error instanceof Error ? error.message : String(error)];
  }
}
