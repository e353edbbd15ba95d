import { randomInt } from 'node:crypto';
import { createServer } from 'node:net';

const isFree = (port: number, host: string) =>
  new Promise<boolean>((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, host, () => server.close(() => resolve(true)));
  });

/** The first free port from `from` on. */
export async function freePort(from: number, host = '127.0.0.1'): Promise<number> {
  for (let port = from; port < from + 200; port++) if (await isFree(port, host)) return port;
  throw new Error(`No port from ${from} to ${from + 199} is free.`);
}

/** A free port that nobody else is likely to take while it is not used yet; below those that outgoing connections get. */
export const somePort = (): Promise<number> => freePort(10_000 + randomInt(20_000));
