import type { LayoutDocument } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';

/** Point to point with two loops, and rules of somebody's own that throw its first turnout both ways; one of them whatever locks it. */
export function ruledLoops(): LayoutDocument {
  const d = exampleLayout(EXAMPLES.find(({ id }) => id === 'loops')!);
  const idOf = (called: string) => compileSystem(d).partition.blocks.find(({ name }) => name === called)!.id;
  const motor = d.turnouts[0]!.id;
  const rule = (id: string, comesInto: string, from: string | undefined, free: string[]) => ({
    id,
    motor,
    comesInto: idOf(comesInto),
    from: from && idOf(from),
    free: free.map(idOf),
  });
  d.throwRules = [
    { ...rule('th1', 'W1', 'West', ['WL', 'WM']), position: 'diverging', unlocked: undefined },
    { ...rule('th2', 'Single', undefined, []), position: 'straight', unlocked: true },
  ];
  return d;
}
