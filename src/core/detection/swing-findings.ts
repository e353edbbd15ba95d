import type { Finding } from '../findings';
import { sensorKind } from '../kinds';
import { mmOf, showLength, showNumber, throwOutside } from '../measure';
import { callThing, type Edit, isKind, type LayoutDocument, type Vehicle } from '../survey';
import { vehiclesOf } from './consist';
import { bogiesMm } from './fit-findings';

/** Ends that swing less than this are noticed as on straight track; our assumption. */
const LEAST_SWING_MM = 1;

/** Spots beside the track in a curve: the nose of a train swings away from one on its inside. Common practice, no source. */
export function swingFindings(document: LayoutDocument): Finding<Edit>[] {
  const curves = document.features.filter(isKind('curve'));
  return document.sensors.flatMap((sensor): Finding<Edit>[] => {
    const { id, name, kind, anchor, side } = sensor;
    const { beside, title } = sensorKind(kind);
    const curve = curves.find(
      ({ line, at, to }) => line === anchor.line && at.tenthUm <= anchor.at.tenthUm && to.tenthUm >= anchor.at.tenthUm,
    );
    const inside = curve?.hand;
    if (!beside || !curve || (side !== undefined && side !== inside)) return [];
    const worst = widestSwing(document, mmOf(curve.radius.tenthUm));
    if (!worst || worst.mm < LEAST_SWING_MM) return [];
    const swings = `the nose of ${worst.train} swings ${showNumber(worst.mm, 1)} mm`;
    const where = `of the ${callThing('features', curve, document.shownUnit).toLowerCase()}`;
    return [
      {
        id: `inside-curve ${id}`,
        kind: 'spot on the inside of a curve',
        severity: side === undefined ? 'note' : 'check',
        subject: id,
        says:
          side === undefined
            ? `Nobody has said on which side ${where} ${title.toLowerCase()} ${name} stands: ${swings} away from its inside, where a train is easily missed.`
            : `${title} ${name} stands on the inside ${where}: ${swings} away from it, and is easily missed.`,
        figures: [
          { name: 'radius', value: showLength(curve.radius.tenthUm, document.shownUnit) },
          { name: `end of ${worst.vehicle.name}`, value: `${showNumber(worst.mm, 1)} mm to the outside` },
        ],
        advice: 'Stand it on the outside, clear of the ends that swing there, or on straight track.',
        fixes: [
          {
            says: side === undefined ? 'It stands on the outside' : 'Stand it on the outside',
            edit: { do: 'change sensor', id, change: { side: inside === 'left' ? 'right' : 'left' } },
          },
        ],
      },
    ];
  });
}

/** Of the vehicles that lead trains, either way round, the one whose end swings farthest. */
function widestSwing(document: LayoutDocument, radiusMm: number) {
  let widest: { train: string; vehicle: Vehicle; mm: number } | undefined;
  for (const train of document.trains) {
    const all = vehiclesOf(document, train);
    for (const vehicle of [all[0]!, all.at(-1)!]) {
      const bogies = bogiesMm(vehicle);
      /** One that cannot stand on the curve at all is told by its least radius. */
      if (bogies >= 2 * radiusMm) continue;
      const mm = throwOutside(radiusMm, bogies, mmOf(vehicle.length.tenthUm));
      if (!widest || mm > widest.mm) widest = { train: train.name, vehicle, mm };
    }
  }
  return widest;
}
