import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Beat, Opening } from '@/core/simulation';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { beginShared, sharedRun } from '@/server/shared-runs';

const layout = exampleLayout(EXAMPLES.find(({ name }) => name === 'Nobody at the post')!);
beforeEach(() => vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'performance'] }));
afterEach(() => vi.useRealTimers());

/** Somebody in a browser: what they were told, and whether their line was closed. */
function comeIn(id: string, name: string) {
  const told: [string, Opening | Beat | Record<string, never>][] = [];
  let closed = false;
  const leave = sharedRun(id)!.join(
    name,
    (event, value) => told.push([event, value]),
    () => {
      closed = true;
      leave!();
    },
  );
  const opening = told.find(([event]) => event === 'opening')![1] as Opening;
  const latest = () => told.findLast(([event]) => event === 'beat')![1] as Beat;
  return { me: opening.member, opening, latest, leave: leave!, isClosed: () => closed };
}

test('a browser that is silent for longer than a minute is lost, and its post empty; whoever speaks stays', () => {
  expect(beginShared('a', layout, 7)).toBeUndefined();
  expect(beginShared('a', layout, 7)).toMatch(/already: join it/);
  const [ann, bob] = [comeIn('a', 'Ann'), comeIn('a', 'Bob')];
  const run = sharedRun('a')!;
  const post = layout.areas[0]!.id;
  expect(run.command(bob.me, { kind: 'man', post, on: true })).toBeUndefined();
  expect(run.setTimes(ann.me, 1)).toBeUndefined();
  for (let s = 0; s < 80; s += 10) {
    vi.advanceTimersByTime(10_000);
    expect(run.hear(ann.me)).toBe(true);
  }
  expect([ann.isClosed(), bob.isClosed()]).toEqual([false, true]);
  expect(run.hear(bob.me)).toBe(false);
  expect(run.members.map(({ name, posts }) => [name, posts])).toEqual([['Ann', []]]);
  expect(run.command(bob.me, { kind: 'man', post, on: true })).toBe('You no longer take part in this run.');
  /** Eighty seconds of twenty milliseconds, and no beat was left out. */
  expect(Math.abs(ann.latest().tick - 4000)).toBeLessThan(5);
});

test('one who comes late is told the whole run; a run that everybody has left ends soon after, and another can begin', () => {
  beginShared('b', layout, 9);
  const ann = comeIn('b', 'Ann');
  const run = sharedRun('b')!;
  run.command(ann.me, { kind: 'man', post: layout.areas[0]!.id, on: true });
  run.setTimes(ann.me, 10);
  vi.advanceTimersByTime(6000);
  const bob = comeIn('b', 'Bob');
  expect([bob.opening.seed, bob.opening.commands.length, bob.opening.members.length]).toEqual([9, 1, 2]);
  expect(Math.abs(bob.opening.tick - 3000)).toBeLessThan(40);
  ann.leave();
  bob.leave();
  vi.advanceTimersByTime(10_000);
  expect(sharedRun('b')).toBe(run);
  vi.advanceTimersByTime(15_000);
  expect(sharedRun('b')).toBeUndefined();
  expect(beginShared('b', layout, 1)).toBeUndefined();
});
