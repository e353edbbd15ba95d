import type { Setting } from '../survey';
import type { Choosable, PatternOption } from './pattern';
import { PATTERNS } from './pattern-list';
import type { Scheme } from './scheme';
import { settingOf, type WithSettings } from './setting-of';

/** An option of a pattern at a thing: what it is for, what was set, and what it is without that, in ms. */
export interface OptionView extends Omit<PatternOption, 'at' | 'does' | 'usual'> {
  usual: number;
  set: number | undefined;
}

/** What can be set about the patterns that work at a thing. */
export const optionsAt = (scheme: Scheme, at: Choosable['at'], thing: WithSettings & { id: string }): OptionView[] =>
  PATTERNS.filter(({ id, chosen }) => !chosen || thing.patterns?.includes(id))
    .flatMap(({ options = [] }) => options)
    .filter((one) => one.at === at && (one.does?.(scheme, thing.id) ?? true))
    .map(({ at: _, does: __, ...one }) => ({ ...one, usual: one.usual(scheme), set: settingOf(one, thing) }));

/** Everything that can be set about any pattern. */
export const OPTIONS: readonly PatternOption[] = PATTERNS.flatMap(({ options = [] }) => options);

/** Whether there is such an option for such a thing. */
export const isOption = (at: Choosable['at'], { pattern, option }: Setting): boolean =>
  OPTIONS.some((one) => one.pattern === pattern && one.option === option && one.at === at);
