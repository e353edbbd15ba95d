import type { Fault } from '@/core/survey';

const LARGEST_BODY = 20 * 1024 * 1024;

/** An answer that says what is wrong in a sentence a person can act on. */
export function refuse(status: number, problem: string, faults?: Fault[]): Response {
  return Response.json({ problem, faults }, { status, headers: { 'Cache-Control': 'no-store' } });
}

export const answer = (value: unknown, status = 200): Response =>
  Response.json(value, { status, headers: { 'Cache-Control': 'no-store' } });

/** Reads a body up to the limit; undefined when it is larger. */
export async function readBody(request: Request, limit = LARGEST_BODY): Promise<string | undefined> {
  if (Number(request.headers.get('content-length') ?? 0) > limit) return undefined;
  const reader = request.body?.getReader();
  if (!reader) return '';
  const parts: Uint8Array[] = [];
  let size = 0;
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > limit) {
      await reader.cancel();
      return undefined;
    }
    parts.push(value);
  }
  return Buffer.concat(parts).toString('utf8');
}

/** Reads a JSON body as an object; undefined when it is none or too large. */
export async function readFields(request: Request): Promise<Record<string, unknown> | undefined> {
  const text = await readBody(request);
  try {
    const value: unknown = JSON.parse(text ?? '');
    return typeof value === 'object' && value !== null && !Array.isArray(value)
      ? (value as Record<string, unknown>)
      : undefined;
  } catch {
    return undefined;
  }
}

/** Codes of what goes wrong on the way to a database; what it answers itself carries an SQL state. */
const CONNECTION = /^(ECONN|ETIMEDOUT|EPIPE|EHOSTUNREACH|ENOENT|PROTOCOL_|ER_)/;

const isOfDatabase = (error: unknown): boolean =>
  error instanceof Error &&
  ('sqlState' in error || ('code' in error && typeof error.code === 'string' && CONNECTION.test(error.code)));

/** Runs a handler; a failing database, or a mistake of ours, becomes a plain answer instead of a broken page. */
export async function guarded(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (error) {
    console.error(error);
    return isOfDatabase(error)
      ? refuse(503, 'The database does not answer.')
      : refuse(500, 'Roblik has made a mistake here; what it was is in its log. Nothing was changed.');
  }
}
