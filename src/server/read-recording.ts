import { type Recording, TICK_MS, type TimedCommand } from '@/core/simulation';
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
    return refuse(400, 'The seed must be a whole number.');
  if (typeof ticks !== 'number' || !Number.isInteger(ticks) || ticks < 0)
    return refuse(400, 'The length of the run must be a whole number of ticks.');
  if (ticks > LONGEST_TICKS) return refuse(413, 'Runs up to one hour can be run or kept on the server.');
  if (!Array.isArray(commands) || commands.length > MOST_COMMANDS || !commands.every(isTimedCommand))
    return refuse(400, 'The list of commands is damaged.');
  return { document: reading.document, seed, ticks, commands };
}

const FIELDS: Record<string, readonly string[]> = {
  throw: ['turnout', 'to'],
  hold: ['signal', 'on'],
  man: ['post', 'on'],
  give: ['signal', 'on'],
  say: ['block', 'free'],
  fault: ['sensor', 'what'],
  run: ['train', 'on'],
  send: ['train', 'block'],
  'draw up': ['train', 'mm'],
  'turn back': ['train'],
  'lift off': ['train'],
  'set down': ['train'],
};

function isTimedCommand(value: unknown): value is TimedCommand {
  const { tick, command } = (value ?? {}) as { tick?: unknown; command?: Record<string, unknown> };
  if (typeof tick !== 'number' || !Number.isInteger(tick) || typeof command !== 'object' || command === null)
    return false;
  const fields = FIELDS[String(command.kind)];
  if (!fields) return false;
  return fields.every((field) => {
    const given = command[field];
    if (field === 'on' || field === 'free') return typeof given === 'boolean';
    if (field === 'what') return given === 'miss' || given === 'extra';
    if (field === 'to') return given === 'straight' || given === 'diverging';
    if (field === 'mm') return typeof given === 'number' && Number.isFinite(given) && given >= 0;
    return typeof given === 'string';
  });
}
