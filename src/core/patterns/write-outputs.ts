import { OUTPUTS, type OutputKind } from '../kinds';
import { combine, gather } from './gather';
import * as names from './names';
import type { RuleBook } from './rule-book';
import type { Scheme } from './scheme';
import type { PlaceOf, WorkedOutput } from './slots';

/** Where outputs can be, in the order of their numbers: what patterns are asked about, and what the rules call it. */
const PLACES: Readonly<Record<OutputKind['of'], (scheme: Scheme) => { place: unknown; thing: names.Named }[]>> = {
  signal: ({ readings }) => readings.map((place) => ({ place, thing: place.signal })),
  motor: ({ partition }) => partition.graph.motors.map((place) => ({ place, thing: place })),
  section: ({ partition }) => partition.sections.map((place) => ({ place, thing: names.headOf(partition, place) })),
  sensor: ({ document }) => document.sensors.map((place) => ({ place, thing: place })),
};

/** Every output that patterns alone work, where any of them says what it is. */
export function writeOutputs(scheme: Scheme, book: RuleBook): void {
  for (const [id, kind] of Object.entries<OutputKind>(OUTPUTS)) {
    if (kind.otherwise === undefined) continue;
    const slot = id as WorkedOutput;
    PLACES[kind.of](scheme).forEach(({ place, thing }, index) => {
      const terms = gather(slot, scheme, place as PlaceOf<WorkedOutput>, book.declarations);
      if (terms.length === 0) return;
      book.output([slot, index], names.output(slot, thing), slot, combine(slot, terms), {
        about: thing.id,
        yes: kind.says?.(thing.name) ?? `${thing.name}: {}`,
        no: '',
      });
    });
  }
}
