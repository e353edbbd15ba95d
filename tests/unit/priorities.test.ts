import { afterAll, expect, test, vi } from 'vitest';
import type { Pattern } from '@/core/patterns/pattern';

/** While the first signal is held by hand, all points are asked to lie straight, before whatever people ask. */
const straightWhileHeld: Pattern = {
  id: 'straight while held',
  asked: ({ readings }, { position }) =>
    position === 'straight'
      ? [
          {
            expr: { op: 'name', name: `hold.${readings[0]!.signal.id}` },
            says: 'the first signal is held',
            priority: 1,
          },
        ]
      : [],
};
/** The core with one pattern more. */
async function withPattern() {
  vi.resetModules();
  vi.doMock('@/core/patterns/pattern-list', async (original) => {
    const real = await original<typeof import('@/core/patterns/pattern-list')>();
    return { ...real, PATTERNS: [...real.PATTERNS, straightWhileHeld] };
  });
  const { compileSystem } = await import('@/core/system');
  const { Rehearsal } = await import('@/core/simulation');
  const { passingLoop } = await import('@/demo/passing-loop');
  return new Rehearsal(compileSystem({ ...passingLoop(['up']), trains: [] }), 1);
}
afterAll(() => {
  vi.doUnmock('@/core/patterns/pattern-list');
  vi.resetModules();
});

test('of opposite requests the one of higher priority is met', async () => {
  const run = await withPattern();
  const [motor] = run.motors;
  const pass = (ticks = 200) => {
    for (let i = 0; i < ticks; i++) run.step();
    return run.plant.motors[0]!.position;
  };
  const ask = (to: 'straight' | 'diverging') => run.command({ kind: 'throw', turnout: motor!.id, to });
  const hold = (on: boolean) => run.command({ kind: 'hold', signal: run.system.readings[0]!.signal.id, on });
  pass(1000);
  ask('diverging');
  expect(pass()).toBe('diverging');
  hold(true);
  ask('diverging');
  expect(pass()).toBe('straight');
  ask('diverging');
  expect(pass()).toBe('straight');
  hold(false);
  ask('diverging');
  expect(pass()).toBe('diverging');
});
