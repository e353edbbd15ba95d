import type { Finding } from '../findings';
import { type Edit, type LayoutDocument, sharedVehicles } from '../survey';

/** Vehicles of the roster that trains have in two places: what is fitted to one is then taken to be fitted to all. */
export function sharedVehicleFindings(document: LayoutDocument): Finding<Edit>[] {
  return sharedVehicles(document).map(({ vehicle, uses }): Finding<Edit> => {
    const trains = [...new Set(uses.map(({ train }) => train))];
    /** A vehicle may change from one train to another while only one of them is on the track. */
    const atOnce = uses.filter(({ train }) => train.start).length > 1 || trains.length < uses.length;
    const times = trains.map((train) => {
      const own = uses.filter((use) => use.train === train).length;
      return own === 1 ? train.name : `${train.name} ${own === 2 ? 'twice' : `${own} times`}`;
    });
    const copies = uses.length - 1;
    return {
      id: `shared-vehicle ${vehicle.id}`,
      kind: 'one vehicle in two places',
      severity: atOnce ? 'check' : 'note',
      subject: uses[1]!.train.id,
      says: `${vehicle.name} is one vehicle of the roster, but stands in ${times.join(' and in ')}. ${
        atOnce
          ? 'What is measured on it, or fitted to it, counts for each of these; on the track they are several vehicles.'
          : 'Only one of these trains can be on the track at a time.'
      }`,
      figures: [],
      fixes: [
        {
          says:
            copies === 1
              ? 'Add another like it, for the other place'
              : `Add ${copies} more like it, one for each place`,
          edit: { do: 'give own vehicles', id: vehicle.id },
        },
      ],
    };
  });
}
