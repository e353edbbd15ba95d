import { describe, expect, test } from 'vitest';
import { type Command, isCommand, Rehearsal, type RehearsalEvent, replay, sayCommand } from '@/core/simulation';
import { compileSystem } from '@/core/system';
import { EXAMPLES, exampleLayout } from '@/demo/examples';
import { ondrelValley } from '@/demo/ondrel-valley';
import { readRecording } from '@/server/read-recording';

const demo = ondrelValley();
const system = compileSystem(demo);
const train = demo.trains[0]!.id;
const block = system.partition.blocks[2]!.id;

/** One of each kind, as the page gives it. */
const COMMANDS: Command[] = [
  { kind: 'throw', turnout: system.partition.graph.motors[0]!.id, to: 'diverging' },
  { kind: 'hold', signal: system.readings[0]!.signal.id, on: true },
  { kind: 'man', post: 'post', on: true, by: 1 },
  { kind: 'man', post: 'post', on: false },
  { kind: 'give', signal: system.readings[0]!.signal.id, on: true },
  { kind: 'say', block, free: true },
  { kind: 'fault', sensor: demo.sensors[0]!.id, what: 'miss' },
  { kind: 'run', train, on: true },
  { kind: 'send', train, block },
  { kind: 'take back', train },
  { kind: 'draw up', train, mm: 120.5 },
  { kind: 'turn back', train },
  { kind: 'lift off', train },
  { kind: 'set down', train },
];
const recordingOf = (commands: Command[]) =>
  readRecording({
    document: demo,
    seed: 1,
    ticks: 600,
    commands: commands.map((command, i) => ({ tick: 10 * i, command })),
  });

describe('one table of commands', () => {
  test('every kind is read back as it was given, told in a sentence, and by nothing but its own fields', () => {
    const run = new Rehearsal(system, 1);
    const said = COMMANDS.map((command) => sayCommand(run, command));
    expect(new Set(said).size).toBe(said.length);
    for (const [i, command] of COMMANDS.entries()) {
      expect(isCommand(command), command.kind).toBe(true);
      expect(said[i], command.kind).toMatch(/^[A-Z].{8,}[^.]$/);
      expect(isCommand({ ...command, more: 1 }), command.kind).toBe(false);
      for (const field of Object.keys(command)) {
        if (field === 'kind' || field === 'by') continue;
        const { [field as 'kind']: _, ...without } = command;
        expect(isCommand(without), `${command.kind} without ${field}`).toBe(false);
        expect(isCommand({ ...command, [field]: { not: 'so' } }), `${command.kind} with odd ${field}`).toBe(false);
      }
    }
    for (const odd of [undefined, null, 7, 'run', {}, { kind: 'toString' }, { kind: '__proto__' }])
      expect(isCommand(odd)).toBe(false);
  });
  test('a run in which an order is given and taken back can be kept, and had again with the same trace', () => {
    const probe = new Rehearsal(system, 1);
    const reachable = system.partition.blocks.find(
      ({ id }) => probe.command({ kind: 'send', train, block: id }) === undefined,
    )!;
    const commands: Command[] = [
      { kind: 'send', train, block: reachable.id },
      { kind: 'take back', train },
    ];
    const read = recordingOf(commands);
    expect(read).not.toBeInstanceOf(Response);
    if (read instanceof Response) return;
    expect(read.commands.map(({ command }) => command)).toEqual(commands);
    const once = replay(system, 1, 600, read.commands);
    const again = replay(compileSystem(read.document), read.seed, read.ticks, read.commands);
    expect(again.traceHash).toBe(once.traceHash);
  });
  test('what people do is heard among what happens, and what cannot be done is not', () => {
    const run = new Rehearsal(compileSystem(exampleLayout(EXAMPLES[0]!)), 1);
    const heard: RehearsalEvent[] = [];
    const hear = (event: RehearsalEvent) => void heard.push(event);
    const [first] = run.plant.trains;
    expect(run.command({ kind: 'run', train: first!.figures.id, on: false }, hear)).toBeUndefined();
    expect(run.command({ kind: 'take back', train: first!.figures.id }, hear)).toMatch(/no order/);
    expect(heard.map(({ kind }) => kind)).toEqual(['told']);
  });
});
