import { sensorKind } from '../kinds';
import { name } from '../logic';
import type { Sensor } from '../survey';
import { byScheme } from './by-scheme';
import * as names from './names';
import type { Pattern } from './pattern';

/** By block: the sensors that watch its section, and those of places in it, in the order of the document. */
const sensorsOf = byScheme(({ document, partition }): ReadonlyMap<number, Sensor[]> => {
  const byBlock = new Map<number, Sensor[]>();
  document.sensors.forEach((sensor, s) => {
    for (const block of partition.fields.all[partition.fields.ofSensor[s]!]!.blocks) {
      const own = byBlock.get(block);
      if (own) own.push(sensor);
      else byBlock.set(block, [sensor]);
    }
  });
  return byBlock;
});

/** What sensors say becomes what blocks are: drop-outs are held over, and track whose section none watches counts as occupied. */
export const occupancy: Pattern = {
  id: 'occupancy',
  general({ document }, _, book) {
    for (const [index, sensor] of document.sensors.entries()) {
      const { id, name: called, kind, holdMs } = sensor;
      const { sees, seesNothing } = sensorKind(kind);
      book.input(['detector', index], names.detect(sensor), 'bool', {
        about: id,
        yes: `Detector ${called} ${sees}`,
        no: `Detector ${called} ${seesNothing}`,
      });
      book.rule(
        names.seen(sensor),
        'bool',
        { op: 'TOF', in: name(names.detect(sensor)), ms: holdMs, starts: true },
        {
          about: id,
          yes: `Detector ${called} counts as seeing a train: it does, or it did, or was switched on, less than its hold time ago`,
          no: `Detector ${called} has seen nothing for its hold time`,
        },
      );
    }
  },
  occupied(scheme, block) {
    const { sensors } = scheme.partition.sections[block.section]!;
    if (sensors.length === 0) return [];
    /** What watches a place alone can tell that a train is there, never that none is. */
    const own = sensorsOf(scheme).get(block.index) ?? [];
    return own.map((sensor) => ({ expr: name(names.seen(sensor)), says: `${sensor.name} sees a train` }));
  },
};
