import type { InPairs, SensorKind } from './kind';
import { BODY, MAGNET, METAL } from './notices';

/** Up to 63 wheels are counted, and up to 7 magnets. Our choice. */
const wheels: InPairs = { counts: { what: 'wheels', bits: 6 } };
const magnets: InPairs = { counts: { what: 'magnets', bits: 3 } };

/** What notices a train at one place alone. How far each reaches: common practice, no source. */
const spot = (
  own: Pick<
    SensorKind,
    | 'title'
    | 'means'
    | 'getsWrong'
    | 'notices'
    | 'reachMm'
    | 'wants'
    | 'mark'
    | 'beside'
    | 'takesRoomLight'
    | 'pulses'
    | 'inPairs'
  >,
): SensorKind => ({
  names: 'P',
  holdMs: 2000,
  sees: 'notices a train',
  seesNothing: 'notices nothing',
  ...own,
});

export const opticalSpot = spot({
  title: 'Optical spot',
  means:
    'Stands beside the track and notices any vehicle before it. Light in the room and the gaps between cars mislead it.',
  getsWrong: 'It says free between two cars, and occupied when the light in the room changes.',
  notices: BODY,
  reachMm: 2,
  beside: true,
  takesRoomLight: true,
  inPairs: {},
  wants: 'vehicle',
  mark: 'M-4 4L0 -4L4 4Z',
});
export const reed = spot({
  title: 'Reed spot',
  means: 'Closes for an instant as a magnet passes. A pulse can be missed.',
  getsWrong:
    'It says so for an instant, once for each magnet: a pulse that is missed or comes twice puts a count out of step for good.',
  notices: MAGNET,
  reachMm: 6,
  pulses: true,
  inPairs: magnets,
  wants: 'magnet under a vehicle',
  mark: 'M-4 0H4M-4 -3V3M4 -3V3',
});
export const hall = spot({
  title: 'Hall spot',
  means: 'Turns on for an instant as a magnet passes. A pulse can be missed.',
  getsWrong:
    'It says so for an instant, once for each magnet: a pulse that is missed or comes twice puts a count out of step for good.',
  notices: MAGNET,
  reachMm: 8,
  pulses: true,
  inPairs: magnets,
  wants: 'magnet under a vehicle',
  mark: 'M-4 -3H4V3H-4Z',
});
export const treadle = spot({
  title: 'Treadle',
  means: 'Gives a pulse as each wheelset passes. It wants adjusting again and again.',
  getsWrong: 'It says free as soon as no wheel of metal is on it: plastic, dirt or wear is a missed train.',
  notices: METAL,
  reachMm: 8,
  pulses: true,
  inPairs: wheels,
  wants: 'axle of metal',
  mark: 'M-4 3L4 -3M-4 3H4',
});
export const contactRail = spot({
  title: 'Contact spot',
  means: 'A short piece of rail that each wheelset of metal joins to its twin.',
  getsWrong: 'It says free as soon as no wheel of metal is on it: plastic, dirt or wear is a missed train.',
  notices: METAL,
  reachMm: 12,
  pulses: true,
  inPairs: wheels,
  wants: 'axle of metal',
  mark: 'M-5 3H5M-5 -3H5',
});
