import { replay, TICK_MS, type TimedCommand } from '@/core/simulation';
import { readDocument } from '@/core/survey';
import { answer, readFields, refuse } from '@/server/answer';

/** One hour: a longer run is checked on the machine that ran it. */
const LONGEST_TICKS = (3600 * 1000) / TICK_MS;

/** Runs a browser's rehearsal again on the server and answers with its trace hash, which must be the same. */
export async function POST(request: Request): Promise<Response> {
  const fields = await readFields(request);
  const reading = readDocument(fields?.document);
  if (!reading.ok) return refuse(422, 'This layout cannot be run.', reading.faults);
  const { seed, ticks, commands } = fields ?? {};
  if (typeof seed !== 'number' || !Number.isSafeInteger(seed) || seed < 0)
    return refuse(400, 'The seed must be a whole number.');
  if (typeof ticks !== 'number' || !Number.isInteger(ticks) || ticks < 0)
    return refuse(400, 'The length of the run must be a whole number of ticks.');
  if (ticks > LONGEST_TICKS) return refuse(413, 'Runs up to one hour can be checked on the server.');
  if (!Array.isArray(commands) || commands.length > 10_000 || !commands.every(isTimedCommand))
    return refuse(400, 'The list of commands is damaged.');
  const run = replay(reading.document, seed, ticks, commands);
  return answer({ hash: run.traceHash, ticks: run.tick });
}

const FIELDS: Record<string, readonly string[]> = {
  throw: ['turnout', 'to'],
  hold: ['signal', 'on'],
  run: ['train', 'on'],
  'turn back': ['train'],
};

function isTimedCommand(value: unknown): value is TimedCommand {
  const { tick, command } = (value ?? {}) as { tick?: unknown; command?: Record<string, unknown> };
  if (typeof tick !== 'number' || !Number.isInteger(tick) || typeof command !== 'object' || command === null)
    return false;
  const fields = FIELDS[String(command.kind)];
  if (!fields) return false;
  return fields.every((field) =>
    field === 'on'
      ? typeof command.on === 'boolean'
      : field === 'to'
        ? command.to === 'straight' || command.to === 'diverging'
        : typeof command[field] === 'string',
  );
}
