import type { Finding } from '../findings';
import { sensorKind, VEHICLES } from '../kinds';
import { guideGrams, showWeight } from '../measure';
import type { Edit, LayoutDocument, Vehicle } from '../survey';

/** A car this much below its guide weight is told of; our assumption. */
const LIGHT_SHARE = 0.75;

/**
 * Cars that detectors see by their wheels, and that weigh much less than the guide for their length: such wheels lose contact, and what
 * they alone show drops out. Common practice, no source; the guide is that of NMRA RP-20.1.
 */
export function lightCarFindings(document: LayoutDocument): Finding<Edit>[] {
  const { trains, vehicles, sensors, scale, shownUnit } = document;
  if (!sensors.some(({ kind }) => sensorKind(kind).reachMm === 'section')) return [];
  const guideOf = ({ length }: Vehicle) => guideGrams(length.tenthUm, scale) ?? 0;
  const light = vehicles.filter(
    (one) =>
      !VEHICLES[one.kind].driven &&
      one.grams > 0 &&
      one.grams < LIGHT_SHARE * guideOf(one) &&
      one.axles.some(({ feeds }) => feeds !== 'nothing'),
  );
  return trains.flatMap((train): Finding<Edit>[] => {
    const own = light.filter(({ id }) => train.vehicles.includes(id));
    if (own.length === 0) return [];
    const one = own.length === 1;
    return [
      {
        id: `light-cars ${train.id}`,
        kind: 'car too light for sure contact',
        severity: 'note',
        subject: train.id,
        says: `${own.map(({ name }) => name).join(', ')} of ${train.name} ${one ? 'is' : 'are'} seen by ${one ? 'its' : 'their'} wheels, but ${one ? 'weighs' : 'weigh'} much less than the guide for ${one ? 'its' : 'their'} length: light wheels lose contact, and detectors drop out under ${one ? 'it' : 'them'}.`,
        figures: own.map((car) => ({
          name: car.name,
          value: `${showWeight(car.grams, shownUnit)}, guide ${showWeight(guideOf(car), shownUnit)}`,
        })),
        advice: 'Add weight low in the car, clean its wheels, or let the detectors hold longer (Detect, Hold times).',
        fixes: [],
      },
    ];
  });
}
