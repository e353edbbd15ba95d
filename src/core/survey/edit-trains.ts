import { asItWas, thingOf } from './draft';
import { type AxlePlace, fitAxles } from './fit-axles';
import { named } from './free-names';
import { LISTS } from './lists';
import { MOST_VEHICLES, type Train } from './lists/trains';
import type { Vehicle } from './lists/vehicles';
import { freshId } from './new-document';
import { giveOwnVehicles } from './own-vehicles';
import { refuse } from './refused';
import type { LayoutDocument } from './schema';
import { LONGEST_NAME } from './schema-parts';

/** What can be done to trains and vehicles. */
export type TrainEdit =
  /** Of new vehicles, and of those of the roster that are named by id. */
  | { do: 'add train'; train: Omit<Train, 'id' | 'vehicles'>; vehicles: readonly (string | Omit<Vehicle, 'id'>)[] }
  | { do: 'change train'; id: string; change: Partial<Omit<Train, 'id'>> }
  /** The other way round as it stands: its tail leads, every vehicle backwards. */
  | { do: 'turn train'; id: string }
  /** What is behind so many vehicles becomes a train of its own, which stands there or off the track. */
  | { do: 'split train'; id: string; after: number; name: string; start?: Train['start'] }
  /** The vehicles of another train go behind those of the first, and it is no more. */
  | { do: 'join trains'; id: string; with: string }
  /** Vehicles as they are now; one without an id is new. */
  | { do: 'keep vehicles'; vehicles: readonly (Omit<Vehicle, 'id'> & { id?: string })[]; says: string }
  /** The first and the last axle of each is then seen by detectors; a wheelset of plastic is changed for one of metal. */
  | { do: 'fit resistor axles'; vehicles: string[] }
  /** Every place that a vehicle has in trains after its first gets a vehicle like it. */
  | { do: 'give own vehicles'; id: string }
  /** Single axles, each of one vehicle. */
  | { do: 'fit axles'; places: readonly AxlePlace[] };

/** Does it to the draft; what was done, in words. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one case for each edit of a train.
export function editTrains(document: LayoutDocument, edit: TrainEdit): string {
  switch (edit.do) {
    case 'add train': {
      const name = named(edit.train.name, LONGEST_NAME.train, 'A train needs a name.');
      const added: string[] = [];
      const vehicles = edit.vehicles.map((vehicle) =>
        typeof vehicle === 'string' ? vehicle : addVehicle(document, vehicle, added),
      );
      document.trains.push({ ...edit.train, name, id: freshId(asItWas(document), LISTS.trains.prefix), vehicles });
      return `Add train ${name}`;
    }
    case 'change train': {
      const train = trainOf(document, edit.id);
      Object.assign(train, edit.change);
      return `Change ${train.name}`;
    }
    case 'turn train': {
      const train = trainOf(document, edit.id);
      const { vehicles, turned = [] } = asItWas(document).trains.find(({ id }) => id === edit.id)!;
      const last = vehicles.length - 1;
      train.vehicles = [...vehicles].reverse();
      train.turned = placesOf(vehicles, (place) => !turned.includes(last - place));
      return `Turn ${train.name} round`;
    }
    case 'split train': {
      const front = trainOf(document, edit.id);
      const { vehicles, turned = [], ...rest } = asItWas(document).trains.find(({ id }) => id === edit.id)!;
      if (edit.after < 1 || edit.after >= vehicles.length) refuse(`${front.name} cannot be split there.`);
      const [ahead, behind] = [vehicles.slice(0, edit.after), vehicles.slice(edit.after)];
      front.vehicles = ahead;
      front.turned = placesOf(ahead, (place) => turned.includes(place));
      document.trains.push({
        ...rest,
        id: freshId(asItWas(document), LISTS.trains.prefix),
        name: named(edit.name, LONGEST_NAME.train, 'Both parts need a name.'),
        vehicles: behind,
        turned: placesOf(behind, (place) => turned.includes(place + edit.after)),
        start: edit.start,
      });
      return `Split ${front.name} behind its ${edit.after === 1 ? 'first vehicle' : `first ${edit.after} vehicles`}`;
    }
    case 'join trains': {
      const front = trainOf(document, edit.id);
      const rear = asItWas(document).trains.find(({ id }) => id === edit.with);
      if (!rear || edit.with === edit.id) return refuse('That train is no longer there.');
      const { vehicles, turned = [] } = asItWas(document).trains.find(({ id }) => id === edit.id)!;
      const all = [...vehicles, ...rear.vehicles];
      if (all.length > MOST_VEHICLES) refuse(`A train has at most ${MOST_VEHICLES} vehicles.`);
      front.vehicles = all;
      front.turned = placesOf(all, (place) =>
        place < vehicles.length ? turned.includes(place) : !!rear.turned?.includes(place - vehicles.length),
      );
      document.trains = document.trains.filter(({ id }) => id !== edit.with);
      return `Put ${rear.name} behind ${front.name}`;
    }
    case 'keep vehicles': {
      const added: string[] = [];
      for (const { id, ...vehicle } of edit.vehicles) {
        named(vehicle.name, LONGEST_NAME.train, 'A vehicle needs a name.');
        if (id === undefined) addVehicle(document, vehicle, added);
        else Object.assign(thingOf(document, 'vehicles', id) ?? refuse('That vehicle is no longer there.'), vehicle);
      }
      return edit.says;
    }
    case 'give own vehicles': {
      const { name } = thingOf(document, 'vehicles', edit.id) ?? refuse('That vehicle is no longer there.');
      if (giveOwnVehicles(document, edit.id) === 0) refuse(`${name} is in one place alone.`);
      return `Give each place of ${name} a vehicle of its own`;
    }
    case 'fit axles':
      return fitAxles(document, edit.places);
    case 'fit resistor axles': {
      const fitted = document.vehicles.filter(({ id }) => edit.vehicles.includes(id));
      if (fitted.length === 0) refuse('Those vehicles are no longer there.');
      for (const { name, axles, takesNone } of fitted) {
        if (axles.length === 0) refuse(`No axle of ${name} is known. Enter its axles first.`);
        if (takesNone) refuse(`${name} can take no resistor axle, as the roster says.`);
        for (const axle of new Set([axles[0]!, axles.at(-1)!])) {
          axle.plastic = undefined;
          if (axle.feeds === 'nothing') axle.feeds = 'resistor';
        }
      }
      return `Fit resistor axles to ${fitted.map(({ name }) => name).join(', ')}`;
    }
  }
}

const trainOf = (document: LayoutDocument, id: string): Train =>
  thingOf(document, 'trains', id) ?? refuse('That train is no longer there.');

/** The places for which something holds; undefined for none, as it is kept. */
function placesOf(vehicles: readonly string[], holds: (place: number) => boolean): number[] | undefined {
  const places = vehicles.map((_, place) => place).filter(holds);
  return places.length > 0 ? places : undefined;
}

function addVehicle(document: LayoutDocument, vehicle: Omit<Vehicle, 'id'>, added: string[]): string {
  const id = freshId(asItWas(document), LISTS.vehicles.prefix, added);
  document.vehicles.push({ ...vehicle, id });
  added.push(id);
  return id;
}
