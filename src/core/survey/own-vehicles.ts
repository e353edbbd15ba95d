import { asItWas } from './draft';
import { LISTS } from './lists';
import type { Train } from './lists/trains';
import type { Vehicle } from './lists/vehicles';
import { freshId } from './new-document';
import type { LayoutDocument } from './schema';
import { LONGEST_NAME } from './schema-parts';

/** A place in a train, from the nose, which is 0. */
export interface Use {
  train: Train;
  place: number;
}

/** Vehicles that trains have more than once, each with its uses in the order of the trains. */
export function sharedVehicles({ vehicles, trains }: Pick<LayoutDocument, 'vehicles' | 'trains'>) {
  const uses = new Map<string, Use[]>();
  for (const train of trains)
    train.vehicles.forEach((id, place) => {
      uses.set(id, [...(uses.get(id) ?? []), { train, place }]);
    });
  return vehicles.flatMap((vehicle) => {
    const of = uses.get(vehicle.id) ?? [];
    return of.length > 1 ? [{ vehicle, uses: of }] : [];
  });
}

/** Every use of a vehicle after its first gets a vehicle like it, next to it in the roster; of all that are shared where none is named. Returns how many are new. */
export function giveOwnVehicles(document: LayoutDocument, only?: string): number {
  const now = asItWas(document);
  const added: string[] = [];
  const names = new Set(now.vehicles.map(({ name }) => name));
  for (const { vehicle, uses } of sharedVehicles(now)) {
    if (only !== undefined && vehicle.id !== only) continue;
    const copies = uses.slice(1).map(({ train, place }): Vehicle => {
      const id = freshId(now, LISTS.vehicles.prefix, added);
      added.push(id);
      const own = document.trains.find((one) => one.id === train.id)!;
      own.vehicles = own.vehicles.map((was, i) => (i === place ? id : was));
      return { ...structuredClone(vehicle), id, name: nextLike(vehicle.name, names) };
    });
    const at = document.vehicles.findIndex(({ id }) => id === vehicle.id);
    document.vehicles.splice(at + 1, 0, ...copies);
  }
  return added.length;
}

/** “Coach 2” after “Coach”, or after “Coach 1”: the next number that no vehicle bears, which it then does. */
function nextLike(name: string, names: Set<string>): string {
  const [, stem = name, number = '1'] = /^(.+) (\d{1,4})$/.exec(name) ?? [];
  for (let n = Number(number) + 1; ; n++) {
    const own = `${stem.slice(0, LONGEST_NAME.train - 5).trimEnd()} ${n}`;
    if (names.has(own)) continue;
    names.add(own);
    return own;
  }
}
