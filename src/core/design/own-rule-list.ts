import { type Program, RuleTextError, readExpr, writeExpr, writeName } from '../logic';
import { standsAlone } from '../patterns';
import type { OwnRule } from '../survey';
import type { System } from '../system';

/** A rule of somebody’s own, in the list of all of them. */
export interface OwnRuleRow {
  /** Its name in the program, by which it is put back or deleted. */
  name: string;
  /** The same, and what it says, as people write it. */
  written: string;
  text: string;
  /** What is generated in its place; undefined where it stands beside the others. */
  generated: string | undefined;
  /** The id of what it is about, to go to it; undefined where that is gone, or nothing. */
  about: string | undefined;
  aboutName: string;
  /** Why it is left out; undefined where it stands. */
  problem: string | undefined;
}

/** All rules of somebody’s own, with those that are left out. */
export function ownRuleList({ program, ownRuleFaults, rules }: System): OwnRuleRow[] {
  const problems = new Map(ownRuleFaults.map(({ rule, problem }) => [rule.id, problem]));
  const declared = new Map(program.declarations.map((one) => [one.name, one]));
  return rules.map((rule) => {
    const standing = declared.get(rule.name);
    const about = standing?.why?.about || rule.about;
    const named = about !== undefined && about in (program.called ?? {});
    return {
      name: rule.name,
      written: writeName(rule.name, program.called),
      text: writtenText(rule, program),
      generated: standing?.generated
        ? writeExpr(standing.generated, program.called)
        : problems.has(rule.id) && standing?.expr && !standsAlone(rule.name)
          ? writeExpr(standing.expr, program.called)
          : undefined,
      about: named ? about : undefined,
      aboutName: about === undefined ? '' : (program.called?.[about] ?? ''),
      problem: problems.get(rule.id),
    };
  });
}

/** In the words of people; as it was typed where it cannot be read. */
function writtenText({ text }: OwnRule, { called }: Program): string {
  try {
    return writeExpr(readExpr(text), called);
  } catch (error) {
    if (error instanceof RuleTextError) return text;
    throw error;
  }
}
