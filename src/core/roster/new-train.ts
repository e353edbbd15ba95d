import type { VehicleKindId } from '../kinds';
import type { TypedLength } from '../measure';
import type { Vehicle } from '../survey';
import type { RosterContext } from './context';
import { newVehicle } from './new-vehicle';

/** A train as a newcomer says it: an engine, so many cars alike, and how many of them roll on plastic. */
export interface SaidTrain {
  name: string;
  engine: TypedLength;
  cars: number;
  kind: VehicleKindId;
  carLength: TypedLength;
  /** The last so many of the cars. */
  plastic: number;
}

/** Its vehicles, nose first, with everything assumed that was not said. */
export function vehiclesSaid(said: SaidTrain, context: RosterContext): Omit<Vehicle, 'id'>[] {
  const cars = Array.from({ length: said.cars }, (_, i) => {
    const car = newVehicle(said.kind, `${said.name} ${i + 1}`, context, said.carLength);
    const plastic = i >= said.cars - said.plastic;
    return plastic
      ? { ...car, axles: car.axles.map((axle) => ({ ...axle, plastic, feeds: 'nothing' as const })) }
      : car;
  });
  return [newVehicle('engine', `${said.name} engine`, context, said.engine), ...cars];
}
