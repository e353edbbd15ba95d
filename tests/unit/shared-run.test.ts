import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { type Beat, type Command, Rehearsal, replay, SharedRun, type TimedCommand } from '@/core/simulation';
import { signalsOf } from '@/core/survey';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';

const layout = exampleLayout(EXAMPLES.find(({ name }) => name === 'Nobody at the post')!);
const system = compileSystem(layout);
const [post] = system.posts;
const signal = post!.readings[0]!.signal.id;
const take: Command = { kind: 'man', post: post!.id, on: true };
const leave: Command = { kind: 'man', post: post!.id, on: false };
const give: Command = { kind: 'give', signal, on: true };

/** Somebody’s browser: it reckons as far as it was told, and not farther. */
class Follower {
  readonly run = new Rehearsal(system, 7);
  private readonly commands: TimedCommand[] = [];
  private given = 0;
  hear({ tick, commands }: Beat): void {
    this.commands.push(...commands);
    const due = () => {
      for (; this.given < this.commands.length && this.commands[this.given]!.tick <= this.run.tick; this.given++)
        this.run.command(this.commands[this.given]!.command);
    };
    for (due(); this.run.tick < tick; due()) this.run.step();
  }
}

describe('a run that several people share', () => {
  const two = () => {
    const run = new SharedRun(system.posts);
    run.join('a', 'Ann');
    run.join('b', 'Ann');
    return run;
  };
  test('a post is one person’s: another is refused by name, until it is handed over, left or lost', () => {
    const run = two();
    expect(run.command('a', give)).toBe(`Nobody is at the post of ${post!.name}: take it first.`);
    expect(run.command('a', take)).toBeUndefined();
    expect(run.command('b', take)).toBe(`Ann is at the post of ${post!.name}: ask them to hand it over.`);
    expect(run.command('b', leave)).toBe(`Ann is at the post of ${post!.name}: ask them to hand it over.`);
    expect(run.command('b', give)).toBe(`Ann is at the post of ${post!.name}, and works its signals.`);
    expect(run.command('b', { kind: 'hold', signal, on: true })).toContain('works its signals');
    expect(run.command('a', give)).toBeUndefined();
    expect(run.handOver('b', post!.id, 'a')).toBe(`You are not at the post of ${post!.name}.`);
    expect(run.handOver('a', post!.id, 'nobody')).toBe('That person no longer takes part.');
    expect(run.handOver('a', post!.id, 'b')).toBeUndefined();
    expect(run.command('a', give)).toBe(`Ann 2 is at the post of ${post!.name}, and works its signals.`);
    run.pass(1000);
    run.leave('b');
    const { commands, members } = run.whole;
    expect(commands.at(-1)).toEqual({ tick: 0, command: leave });
    expect(members.map(({ name, posts }) => [name, posts])).toEqual([['Ann', []]]);
    expect(run.command('a', take)).toBeUndefined();
    expect(run.command('b', give)).toBe('You no longer take part in this run.');
  });
  test('goes on as fast as it was told to, stands still otherwise, and ends after an hour', () => {
    const run = two();
    run.pass(5000);
    expect(run.whole.tick).toBe(0);
    run.setTimes(10);
    run.pass(50);
    run.pass(33);
    expect(run.whole.tick).toBe(41);
    run.pass(3_600_000);
    expect([run.whole.tick, run.whole.times]).toEqual([180_000, 0]);
  });
  test('twenty take part, and no more; who has no name is called somebody', () => {
    const run = new SharedRun([]);
    for (let i = 0; i < 20; i++) expect(run.join(`m${i}`, ' ')!.name).toBe(i === 0 ? 'Somebody' : `Somebody ${i + 1}`);
    expect(run.join('late', 'Late')).toBeUndefined();
  });
  test('whatever three people do, and whenever each hears of it, all come to the same run, and a replay does too', () => {
    const members = ['a', 'b', 'c'];
    const doing = fc.record({
      by: fc.constantFrom(...members),
      what: fc.constantFrom<Command>(
        take,
        leave,
        give,
        { kind: 'give', signal, on: false },
        { kind: 'hold', signal: signalsOf(layout)[0]!.id, on: true },
        { kind: 'hold', signal: signalsOf(layout)[0]!.id, on: false },
        { kind: 'turn back', train: layout.trains[0]?.id ?? '' },
      ),
      ms: fc.nat(4000),
      hears: fc.constantFrom(...members, undefined),
      goes: fc.option(fc.constantFrom(...members), { freq: 12 }),
    });
    fc.assert(
      fc.property(fc.array(doing, { minLength: 1, maxLength: 30 }), (deeds) => {
        const run = new SharedRun(system.posts);
        const browsers = members.map((id) => ({ id, waits: [] as Beat[], follower: new Follower() }));
        for (const id of members) run.join(id, id);
        run.setTimes(1);
        for (const { by, what, ms, hears, goes } of deeds) {
          run.command(by, what);
          run.pass(ms);
          if (goes) run.leave(goes);
          const beat = run.beat();
          for (const one of browsers) {
            one.waits.push(beat);
            if (one.id === hears) for (const late of one.waits.splice(0)) one.follower.hear(late);
          }
        }
        /** One who comes in at the end hears all at once. */
        const late = new Follower();
        late.hear(run.whole);
        for (const { waits, follower } of browsers) {
          for (const beat of waits) follower.hear(beat);
          expect(follower.run.traceHash).toBe(late.run.traceHash);
        }
        const { tick, commands } = run.whole;
        expect(replay(system, 7, tick, commands).traceHash).toBe(late.run.traceHash);
      }),
      { numRuns: 60, seed: 20261201 },
    );
  });
});
