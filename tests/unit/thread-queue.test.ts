import { EventEmitter } from 'node:events';
import { describe, expect, test } from 'vitest';
import { type Thread, ThreadQueue } from '@/server/thread-queue';

/** A thread that answers with twice the number, after as many milliseconds; 0 breaks it, and below 0 it never answers. */
class Doubling extends EventEmitter implements Thread<number, { twice: number }> {
  ended = false;
  postMessage(n: number): void {
    if (n < 0) return;
    setTimeout(() => (n === 0 ? this.emit('error', new Error('broken')) : this.emit('message', { twice: 2 * n })), n);
  }
  async terminate(): Promise<void> {
    this.ended = true;
  }
}

function queueOf(mostWaiting: number, limitMs: number) {
  const started: Doubling[] = [];
  const queue = new ThreadQueue<number, { twice: number }>(
    () => {
      started.push(new Doubling());
      return started.at(-1)!;
    },
    mostWaiting,
    limitMs,
  );
  return { queue, started };
}

describe('tasks for one thread', () => {
  test('are done one after the other by one thread, in the order in which they came', async () => {
    const { queue, started } = queueOf(9, 1000);
    const order: number[] = [];
    await Promise.all([30, 5, 12].map(async (n) => order.push(((await queue.run(n)) as { twice: number }).twice)));
    expect(order).toEqual([60, 10, 24]);
    expect(started).toHaveLength(1);
  });
  test('more than may wait are told that it is busy, and the others are done', async () => {
    const { queue } = queueOf(2, 1000);
    const answers = await Promise.all([5, 6, 7, 8].map((n) => queue.run(n)));
    expect(answers).toEqual([{ twice: 10 }, { twice: 12 }, { twice: 14 }, 'busy']);
    expect(await queue.run(9)).toEqual({ twice: 18 });
  });
  test('one that takes too long is given up with its thread, and the next is done by another', async () => {
    const { queue, started } = queueOf(9, 40);
    const [long, next] = await Promise.all([queue.run(-1), queue.run(3)]);
    expect([long, next]).toEqual(['too long', { twice: 6 }]);
    expect(started.map(({ ended }) => ended)).toEqual([true, false]);
  });
  test('a thread that breaks is told of, and the next task has another', async () => {
    const { queue, started } = queueOf(9, 1000);
    expect(await queue.run(0)).toBe('failed');
    expect(await queue.run(2)).toEqual({ twice: 4 });
    expect(started).toHaveLength(2);
  });
});
