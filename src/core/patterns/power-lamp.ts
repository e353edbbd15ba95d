import { name, not } from '../logic';
import * as names from './names';
import { isChosen, type Pattern } from './pattern';
import { isCutOff } from './stop-section';

/** A red lamp across a section, beside the track, is lit while that has power: no signal, and its red does not mean stop. Common practice, no source. */
export const powerLamp: Pattern = {
  id: 'power lamp',
  chosen: {
    at: 'sensor',
    says: 'A red lamp beside the track is lit while its section has power',
    makes: 'lamp',
    wired: true,
    redForPower: true,
  },
  lamp(scheme, sensor) {
    if (!isChosen(powerLamp, sensor)) return [];
    const section = scheme.partition.sections.find(({ sensors }) => sensors.includes(sensor.id));
    if (!section) return [];
    const cut = isCutOff(scheme, section.index);
    const head = names.headOf(scheme.partition, section);
    return [{ shows: 'red', when: cut ? not(name(names.cut(head))) : { op: 'true' } }];
  },
};
