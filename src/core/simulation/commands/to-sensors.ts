import { sensorKind } from '../../kinds';
import { fields } from '../../survey';
import { commandKind } from './kind';

/** A spot that gives pulses misses the next one, or gives one too many. */
export const fault = commandKind({
  fails: true,
  schema: fields.record({ sensor: fields.text(60), what: fields.choice('miss', 'extra') }),
  carryOut(run, { sensor, what }) {
    const { sensors, terminals, partition } = run.system;
    const index = sensors.findIndex(({ id }) => id === sensor);
    if (index < 0 || !sensorKind(sensors[index]!.kind).pulses) return 'That sensor gives no pulses.';
    const slot = terminals.slot('detector', index);
    const detected = run.plant.detected[partition.fields.ofSensor[index]!]!;
    if (what === 'extra' && detected === 1)
      return `${sensors[index]!.name} notices something now. It can give a pulse too many once nothing is over it.`;
    if (what === 'miss') run.missed.missNext(slot, detected);
    else run.controller.pulse(slot);
    return undefined;
  },
  says({ system }, { sensor, what }) {
    const name = system.sensors.find(({ id }) => id === sensor)?.name ?? sensor;
    return what === 'miss' ? `${name} will miss its next pulse` : `${name} gives a pulse too many`;
  },
});
