import type { Reason } from '../reasoning';
import { decidingFacts, type Fact } from './deciding-facts';
import type { Program } from './expr';
import { type ReadValue, sayValue, whyValue } from './why';

/** Why a name has its value: in a sentence, by the facts that suffice, and step by step. */
export interface Explanation {
  says: string;
  facts: Fact[];
  reason: Reason;
}

/** Explains the present value of a name; undefined where there is no such name, or its value is not known. */
export function explain(program: Program, name: string, read: ReadValue): Explanation | undefined {
  const declaration = program.declarations.find((one) => one.name === name);
  const value = declaration && read(name);
  if (!declaration || value === undefined) return undefined;
  return {
    says: sayValue(program, declaration, value),
    facts: decidingFacts(program, name, read) ?? [],
    reason: whyValue(program, name, read),
  };
}
