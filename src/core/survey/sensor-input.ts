import type { Sensor } from './lists/sensors';

export type SensorInput = NonNullable<Sensor['input']>;

/** Reads the input of a module as people write it: “2.5” is the fifth of module 2; without a number it is all that is known. Undefined for nothing. */
export function readSensorInput(text: string): SensorInput | undefined {
  const said = text.trim();
  if (said === '') return undefined;
  const [, module, number] = /^(.+)\.(\d{1,3})$/.exec(said) ?? [];
  return module !== undefined && Number(number) > 0
    ? { module, number: Number(number) }
    : { module: said, number: undefined };
}

/** The input of a module as it is written: “2.5”; nothing where there is none. */
export const saySensorInput = (input: Sensor['input']): string =>
  input === undefined ? '' : input.number === undefined ? input.module : `${input.module}.${input.number}`;
