import type { Fault } from '@/core/survey';

export type Asked<T> =
  | { ok: true; value: T }
  | { ok: false; status: number; problem: string; faults: Fault[]; body: unknown };

/** Asks the server; a failure comes back as a sentence, never as an exception. Status 0: the server was not reached. */
export async function askServer<T>(path: string, init?: RequestInit): Promise<Asked<T>> {
  try {
    const response = await fetch(path, init);
    const body: unknown = await response.json().catch(() => ({}));
    if (response.ok) return { ok: true, value: body as T };
    const { problem, faults } = body as { problem?: string; faults?: Fault[] };
    return {
      ok: false,
      status: response.status,
      problem: problem ?? `The server answered ${response.status}.`,
      faults: faults ?? [],
      body,
    };
  } catch {
    return {
      ok: false,
      status: 0,
      problem: 'Roblik’s server does not answer. Is it still running?',
      faults: [],
      body: undefined,
    };
  }
}

/** Asks with a JSON body. */
export const sendServer = <T>(method: 'POST' | 'PUT' | 'DELETE', path: string, value: unknown = {}) =>
  askServer<T>(path, { method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(value) });
