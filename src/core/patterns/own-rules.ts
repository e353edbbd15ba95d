import {
  compileProgram,
  type Declaration,
  namesIn,
  type Program,
  RuleProgramError,
  RuleTextError,
  readExpr,
  renamed,
  type Why,
} from '../logic';
import type { OwnRule } from '../survey';

/** A rule of somebody's own that cannot stand as it is: what was generated stands in its place, if anything is. */
export interface OwnRuleFault {
  rule: OwnRule;
  problem: string;
  /** What it was in the place of is no longer there. */
  orphan?: true;
}

/** What own rules come from, in place of a pattern. */
export const OWN = 'your own rule';

/** A rule that stands beside those generated has a name of one word; any other is in the place of one of these. */
export const standsAlone = (name: string): boolean => !name.includes('.');

/**
 * The program with rules of somebody's own in place of those that were generated, or beside them. One that cannot be read, asks for
 * what is not there, or makes the rules a circle, is left out and told; the program compiles in any case.
 */
export function withOwnRules(
  program: Program,
  rules: readonly OwnRule[],
  /** A name as the program has it today, for one that was written when things were known by other ids. */
  today: (name: string) => string = (name) => name,
): { program: Program; faults: OwnRuleFault[] } {
  const faults: OwnRuleFault[] = [];
  const generatedBy = new Map(program.declarations.map((one) => [one.name, one]));
  const readable = rules.flatMap((rule): { rule: OwnRule; put: Declaration }[] => {
    const name = today(rule.name);
    const generated = generatedBy.get(name);
    if (!generated && !standsAlone(name)) {
      faults.push({ rule, problem: 'What it was about is no longer there.', orphan: true });
      return [];
    }
    if (generated && !generated.expr) {
      faults.push({ rule, problem: 'It is an input: what it is comes from the track.' });
      return [];
    }
    try {
      const expr = renamed(readExpr(rule.text), today);
      const put: Declaration = generated
        ? { ...generated, expr, generated: generated.expr!, why: { ...generated.why!, pattern: OWN } }
        : { name, type: rule.type ?? 'bool', role: 'rule', expr, why: whyOf(rule) };
      return [{ rule, put }];
    } catch (error) {
      if (!(error instanceof RuleTextError)) throw error;
      faults.push({ rule, problem: error.message });
      return [];
    }
  });
  const standing = (some: readonly Declaration[]): Program => {
    const put = new Map(some.map((one) => [one.name, one]));
    const replaced = program.declarations.map((one) => put.get(one.name) ?? one);
    const known = new Set(program.declarations.map(({ name }) => name));
    return { ...program, declarations: [...replaced, ...some.filter(({ name }) => !known.has(name))] };
  };
  let whole = standing(readable.map(({ put }) => put));
  if (problemOf(whole) === undefined) return { program: whole, faults };
  /** One after the other: each stands or falls with those before it; what only waits for a later one is tried again. */
  let kept: Declaration[] = [];
  let left = readable;
  for (let before = -1; before !== kept.length; ) {
    before = kept.length;
    left = left.filter(({ put }) => {
      if (problemOf(standing([...kept, put])) !== undefined) return true;
      kept = [...kept, put];
      return false;
    });
  }
  whole = standing(kept);
  for (const { rule, put } of left) faults.push({ rule, problem: problemOf(standing([...kept, put]))! });
  return { program: whole, faults };
}

/** Of a rule that stands alone: nothing is known of it but its name. */
const whyOf = ({ name, type = 'bool', about = '' }: OwnRule): Why => ({
  pattern: OWN,
  about,
  yes: type === 'bool' ? `Your own rule ${name} is so` : `Your own rule ${name} is {}`,
  no: `Your own rule ${name} is not so`,
});

/** Why a program cannot run; undefined when it can. Names are told as people call them. */
export function problemOf(program: Program): string | undefined {
  try {
    compileProgram(program);
    return undefined;
  } catch (error) {
    if (!(error instanceof RuleProgramError)) throw error;
    const all = new Set(program.declarations.flatMap(({ name, expr }) => [name, ...(expr ? namesIn(expr) : [])]));
    const known = [...all].filter((name) => name.includes('.')).sort((a, b) => b.length - a.length);
    return known.reduce((text, name) => text.replaceAll(name, calledName(program, name)), error.message);
  }
}

/** A name of a rule in the words of people. */
export const calledName = ({ called }: Pick<Program, 'called'>, name: string): string =>
  name
    .split('.')
    .map((part) => called?.[part] ?? part)
    .join('.');
