import { SENSOR_KIND_IDS, type SensorKindId, sensorKind } from '../kinds';
import type { TypedLength } from '../measure';
import { asItWas, thingOf } from './draft';
import { nextName } from './free-names';
import { LISTS } from './lists';
import { LONGEST_MODULE, type Sensor } from './lists/sensors';
import { freshId } from './new-document';
import { refuse } from './refused';
import type { Dropouts, Electrics, LayoutDocument, Modules } from './schema';
import { readSensorInput, saySensorInput } from './sensor-input';

/** What can be done to sensors and what they are wired to. */
export type SensorEdit =
  /** Without a kind: the one that is proposed where track is not watched. */
  | { do: 'add sensor'; line: string; at: TypedLength; kind?: SensorKindId }
  | {
      do: 'change sensor';
      id: string;
      /** Its input as it is written: “2.5”. */
      change: Partial<Pick<Sensor, 'kind' | 'holdMs' | 'noticesMa' | 'turns' | 'side'> & { input: string }>;
    }
  /** The input of each sensor, by its id, as it is written, and what modules have them. */
  | { do: 'give inputs'; modules: Modules; inputs: Readonly<Record<string, string>> }
  | { do: 'expect dropouts'; dropouts: Dropouts }
  | { do: 'reckon with'; electrics: Electrics }
  /** How often the feeder is wound through each, by its id. */
  | { do: 'wind feeders'; turns: Readonly<Record<string, number>> }
  /** They keep “occupied” for so long after they noticed something last. */
  | { do: 'hold sensors'; ids: readonly string[]; holdMs: number };

/** Does it to the draft; what was done, in words. */
export function editSensors(document: LayoutDocument, edit: SensorEdit): string {
  switch (edit.do) {
    case 'add sensor': {
      const kind = edit.kind ?? SENSOR_KIND_IDS[0]!;
      const { names, title, holdMs } = sensorKind(kind);
      const name = nextName(document, names);
      document.sensors.push({
        id: freshId(asItWas(document), LISTS.sensors.prefix),
        name,
        kind,
        anchor: { line: edit.line, at: edit.at },
        holdMs,
        input: undefined,
        certainty: 'tentative',
      });
      return `Add ${title.toLowerCase()} ${name}`;
    }
    case 'change sensor': {
      const sensor = thingOf(document, 'sensors', edit.id) ?? refuse('It is no longer there.');
      const { kind, input: text, ...change } = edit.change;
      if (text !== undefined) sensor.input = inputOf(document, edit.id, text);
      /** What nobody has set follows the kind. */
      if (kind && sensor.holdMs === sensorKind(sensor.kind).holdMs) sensor.holdMs = sensorKind(kind).holdMs;
      Object.assign(sensor, change, kind && { kind });
      return `Change ${sensor.name}`;
    }
    case 'give inputs':
      document.modules = edit.modules;
      for (const sensor of document.sensors) {
        const given = edit.inputs[sensor.id];
        if (given !== undefined) sensor.input = readSensorInput(given);
      }
      return 'Give sensors their inputs';
    case 'expect dropouts':
      document.dropouts = edit.dropouts;
      return 'Change what is expected of drop-outs';
    case 'reckon with':
      document.electrics = edit.electrics;
      return 'Change voltage, resistor axles or leakage';
    case 'wind feeders':
      for (const sensor of document.sensors) sensor.turns = edit.turns[sensor.id] ?? sensor.turns;
      return 'Wind feeders through their detectors';
    case 'hold sensors':
      for (const id of edit.ids) {
        const sensor = thingOf(document, 'sensors', id) ?? refuse('Not all of them are there any more.');
        sensor.holdMs = edit.holdMs;
      }
      return `Hold ${edit.ids.length} sensors for ${edit.holdMs / 1000} s`;
  }
}

/** The input that a text says, which no other sensor has. */
function inputOf(document: LayoutDocument, id: string, text: string): Sensor['input'] {
  const input = readSensorInput(text);
  const written = saySensorInput(input);
  const holder =
    input && asItWas(document).sensors.find((one) => one.id !== id && saySensorInput(one.input) === written);
  if (holder) refuse(`Input ${written} is taken by ${holder.name}.`);
  if (input && input.module.length > LONGEST_MODULE) refuse(`A module has at most ${LONGEST_MODULE} characters.`);
  return input;
}
