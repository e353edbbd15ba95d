import { asItWas } from './draft';
import { LISTS } from './lists';
import type { Vehicle } from './lists/vehicles';
import { freshId } from './new-document';
import { refuse } from './refused';
import type { LayoutDocument } from './schema';
import { LONGEST_NAME } from './schema-parts';

/**
 * Where a resistor axle is fitted: on the nth of the vehicles that trains make of one entry of the roster, front first, and which of its
 * axles. Vehicles of one entry are alike, so that the first of a train is taken to be the first of every other.
 */
export interface AxlePlace {
  vehicle: string;
  nth: number;
  axle: number;
}

/**
 * Fits resistor axles at such places of the draft. Where only some of the vehicles of an entry get one, these become an entry of their own,
 * and trains are made of both; a wheelset of plastic is changed for one of metal.
 */
export function fitAxles(document: LayoutDocument, places: readonly AxlePlace[]): string {
  const before = asItWas(document);
  const added: string[] = [];
  for (const id of new Set(places.map(({ vehicle }) => vehicle))) {
    const entry = before.vehicles.find((one) => one.id === id) ?? refuse('That vehicle is no longer there.');
    if (entry.takesNone) refuse(`${entry.name} can take no resistor axle, as the roster says.`);
    const most = Math.max(0, ...before.trains.map(({ vehicles }) => vehicles.filter((one) => one === id).length));
    /** Which axles of each of its vehicles; those that get the same are alike. */
    const axlesOf = Array.from({ length: most }, (_, nth) =>
      places
        .filter((place) => place.vehicle === id && place.nth === nth)
        .map(({ axle }) => axle)
        .sort((a, b) => a - b)
        .join(),
    );
    const becomes = new Map<string, string>();
    const alike = [...new Set(axlesOf)];
    for (const axles of alike) {
      const fitted = axles === '' ? [] : axles.split(',').map(Number);
      if (fitted.some((axle) => !entry.axles[axle])) refuse(`${entry.name} has no such axle any more.`);
      if (fitted.length === 0 || alike.length === 1) becomes.set(axles, id);
      if (fitted.length === 0) continue;
      const changed = withResistors(entry, fitted);
      if (alike.length === 1) Object.assign(document.vehicles.find((one) => one.id === id)!, changed);
      else {
        const fresh = freshId(before, LISTS.vehicles.prefix, added);
        added.push(fresh);
        becomes.set(axles, fresh);
        document.vehicles.push({ ...changed, id: fresh, name: nameFor(document, entry.name) });
      }
    }
    before.trains.forEach(({ vehicles }, t) => {
      let nth = 0;
      vehicles.forEach((one, i) => {
        if (one !== id) return;
        document.trains[t]!.vehicles[i] = becomes.get(axlesOf[nth]!)!;
        nth += 1;
      });
    });
    const used = document.trains.some(({ vehicles }) => vehicles.includes(id));
    if (!used) document.vehicles = document.vehicles.filter((one) => one.id !== id);
  }
  return `Fit ${places.length === 1 ? 'a resistor axle' : `${places.length} resistor axles`}`;
}

const withResistors = (vehicle: Vehicle, fitted: readonly number[]): Vehicle => ({
  ...vehicle,
  axles: vehicle.axles.map((axle, i) =>
    fitted.includes(i)
      ? { ...axle, feeds: axle.feeds === 'nothing' ? 'resistor' : axle.feeds, plastic: undefined }
      : axle,
  ),
});

/** “Empty wagon with resistor axle”, or with a number where there is one of that name. */
function nameFor({ vehicles }: LayoutDocument, name: string): string {
  const names = new Set(vehicles.map((one) => one.name));
  const called = (n: number) => {
    const behind = ` with resistor axle${n === 1 ? '' : ` ${n}`}`;
    return `${name.slice(0, LONGEST_NAME.train - behind.length)}${behind}`;
  };
  for (let n = 1; ; n++) if (!names.has(called(n))) return called(n);
}
