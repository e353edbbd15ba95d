import { fileURLToPath } from 'node:url';

/** Where things lie in the project. */
export const ROOT = fileURLToPath(new URL('..', import.meta.url)).replace(/\/$/, '');
export const DATA = process.env.ROBLIK_DATA ?? `${ROOT}/.data`;
export const MIGRATIONS = `${ROOT}/src/server/migrations`;
export const RUNNING = `${DATA}/running.json`;

/** What a running Roblik writes down so that stop and reset-demo find it. */
export interface Running {
  pid: number;
  database: string;
  address: string;
}
