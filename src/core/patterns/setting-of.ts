import type { Setting } from '../survey';
import type { PatternOption } from './pattern';
import type { Scheme } from './scheme';

/** A thing with what was set about the patterns that work there. */
export interface WithSettings {
  patterns?: string[];
  settings?: readonly Setting[];
}

/** What somebody set of an option at a thing; undefined where nobody has. */
export const settingOf = (
  { pattern, option }: Pick<PatternOption, 'pattern' | 'option'>,
  { settings = [] }: WithSettings,
): number | undefined => settings.find((one) => one.pattern === pattern && one.option === option)?.value;

/** What an option is at a thing, within its bounds, in ms. */
export function optionOf(scheme: Scheme, option: PatternOption, thing: WithSettings | undefined): number {
  const set = thing && settingOf(option, thing);
  return set === undefined ? option.usual(scheme) : Math.min(option.most, Math.max(option.least, set));
}
