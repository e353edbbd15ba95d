import type { SensorKind } from './kind';
import { METAL } from './notices';

/** A rail cut off at both ends and from its twin, joined to it by any wheelset of metal. Common practice, no source. */
export const isolatedRail: SensorKind = {
  title: 'Isolated rail',
  names: 'R',
  means: 'A wheelset of metal joins the rails between two gaps. Plastic wheels are not noticed.',
  getsWrong: 'It says free over plastic wheels and dirt, and for a moment under a train whose wheels touch badly.',
  notices: METAL,
  reachMm: 'section',
  joinsRails: true,
  holdMs: 1000,
  sees: 'sees a train',
  seesNothing: 'sees nothing',
  wants: 'axle of metal that joins the rails',
  mark: '',
};
