import { isCommand, type Recording, TICK_MS, type TimedCommand } from '@/core/simulation';
import { type LayoutDocument, readDocument } from '@/core/survey';
import { refuse } from './answer';

/** One hour: a longer run is checked on the machine that ran it. */
const LONGEST_TICKS = (3600 * 1000) / TICK_MS;
const MOST_COMMANDS = 10_000;

export interface RecordingFields extends Recording {
  document: LayoutDocument;
}

/** Checks what a browser says that it ran; an answer that refuses it when it cannot be that. */
export function readRecording(fields: Record<string, unknown> | undefined): RecordingFields | Response {
  const reading = readDocument(fields?.document);
  if (!reading.ok) return refuse(422, 'This layout cannot be run.', reading.faults);
  const { seed, ticks, commands } = fields ?? {};
  if (typeof seed !== 'number' || !Number.isInteger(seed) || seed < 0 || seed > 0xffffffff)
    return refuse(400, 'The run number must be a whole number.');
  if (typeof ticks !== 'number' || !Number.isInteger(ticks) || ticks < 0)
    return refuse(400, 'The length of the run must be a whole number of ticks.');
  if (ticks > LONGEST_TICKS) return refuse(413, 'Runs up to one hour can be run or kept on the server.');
  if (!Array.isArray(commands) || commands.length > MOST_COMMANDS || !commands.every(isTimedCommand))
    return refuse(400, 'The list of commands is damaged.');
  return { document: reading.document, seed, ticks, commands };
}

function isTimedCommand(value: unknown): value is TimedCommand {
  const { tick, command } = (value ?? {}) as { tick?: unknown; command?: unknown };
  return typeof tick === 'number' && Number.isInteger(tick) && isCommand(command);
}
