import { name } from '../logic';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';

/** A lamp on a panel tells where trains are: it is lit as long as a sensor counts as seeing one, and from power-up until all is known. */
export const panelLamp: Pattern = {
  id: 'panel lamp',
  chosen: { at: 'sensor', says: 'A lamp on the panel is lit while it sees a train', makes: 'lamp', wired: true },
  lamp: (_, sensor) => (isChosen(panelLamp, sensor) ? [{ shows: 'lit', when: name(names.seen(sensor)) }] : []),
};
