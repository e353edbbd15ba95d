import type { Program } from '@/core/logic';

/** What people call a name of the rules. */
export const spokenName = ({ called }: Program, name: string): string =>
  name
    .split('.')
    .map((part) => called?.[part] ?? part)
    .join('.');

/** The name in the rules of what people write: “detect.A” for the sensor called A. */
export function ruleNamed(program: Program, text: string): string {
  const found = program.declarations.filter(({ name }) => spokenName(program, name) === text);
  if (found.length !== 1) throw new Error(`${found.length} rules are called ${text}.`);
  return found[0]!.name;
}
