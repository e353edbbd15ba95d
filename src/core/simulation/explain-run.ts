import { sayFault, struckBy } from '../faults';
import { type Explanation, explain } from '../logic';
import type { Rehearsal } from './rehearsal';

/** Why a name of the rules has its present value in a run; of an output that fails, what is wrong is said first, since others see something else. */
export function explainRun(run: Rehearsal, rule: string): Explanation | undefined {
  const { system, controller, failures } = run;
  const explanation = explain(system.program, rule, (name) => controller.evaluator.valueOf(name));
  const wrong = [...failures.values()].filter((fault) =>
    struckBy(system, fault)?.terminals.some(({ terminal: { name, role } }) => name === rule && role !== 'input'),
  );
  if (!explanation || wrong.length === 0) return explanation;
  const told = wrong.map((fault) => sayFault(system, fault, true)).join('. ');
  return { ...explanation, says: `${told}. By the rules ${explanation.says}` };
}
