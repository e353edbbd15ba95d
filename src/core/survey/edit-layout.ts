import { TRACK_POWERS, type TrackPowerId } from '../kinds';
import { named } from './free-names';
import { refuse } from './refused';
import type { LayoutDocument } from './schema';
import { LONGEST_NAME } from './schema-parts';

/** What is said of a layout as a whole. */
export type LayoutEdit =
  | { do: 'rename layout'; name: string }
  | { do: 'name directions'; up: string; down: string }
  | { do: 'show unit'; unit: 'cm' | 'inch' }
  /** On which side of the track signals stand, seen by those who read them. */
  | { do: 'stand signals'; side: LayoutDocument['signalSide'] }
  | { do: 'set power'; power: TrackPowerId; ownReturns?: boolean };

export function editLayout(document: LayoutDocument, edit: LayoutEdit): string {
  switch (edit.do) {
    case 'rename layout':
      document.name = named(edit.name, LONGEST_NAME.layout, 'A layout needs a name.');
      return `Name it ${document.name}`;
    case 'name directions': {
      const [up, down] = [edit.up, edit.down].map((name) =>
        named(name, LONGEST_NAME.thing, 'Both directions need a name.'),
      ) as [string, string];
      if (up === down) refuse('The two directions need different names.');
      document.directions = { up, down };
      return `Call the directions ${up} and ${down}`;
    }
    case 'stand signals':
      document.signalSide = edit.side;
      return `Stand signals on the ${edit.side}`;
    case 'show unit':
      document.shownUnit = edit.unit;
      return `Show ${edit.unit === 'cm' ? 'centimetres' : 'inches'}`;
    case 'set power':
      document.power = edit.power;
      document.ownReturns = edit.ownReturns;
      return `Power by ${TRACK_POWERS[edit.power].says}`;
  }
}
