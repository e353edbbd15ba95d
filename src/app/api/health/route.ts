import { answer, guarded } from '@/server/answer';
import { pool } from '@/server/pool';

/** Whether application and database answer. */
export async function GET(): Promise<Response> {
  return guarded(async () => {
    await pool().query('SELECT 1');
    return answer({ ok: true });
  });
}

export const dynamic = 'force-dynamic';
