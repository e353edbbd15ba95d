import { sensorKind } from '../kinds';
import { name } from '../logic';
import * as names from './names';
import type { Pattern } from './pattern';

/** What sensors say becomes what blocks are: drop-outs are held over, and track whose section none watches counts as occupied. */
export const occupancy: Pattern = {
  id: 'occupancy',
  general({ document }, book) {
    for (const sensor of document.sensors) {
      const { id, name: called, kind, holdMs } = sensor;
      const { sees, seesNothing } = sensorKind(kind);
      book.input(names.detect(sensor), 'bool', {
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
  occupied({ document, partition }, block) {
    const { sensors } = partition.sections[block.section]!;
    if (sensors.length === 0) return [];
    /** What watches a place alone can tell that a train is there, never that none is. */
    const own = document.sensors.filter(({ id }, s) => {
      const { section, blocks } = partition.fields.all[partition.fields.ofSensor[s]!]!;
      return section === undefined ? blocks.includes(block.index) : sensors.includes(id);
    });
    return own.map((sensor) => ({ expr: name(names.seen(sensor)), says: `${sensor.name} sees a train` }));
  },
};
