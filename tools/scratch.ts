import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Browser, chromium } from '@playwright/test';
import { build, run } from './application';
import { BROWSER } from './browser';
import { Database } from './database';
import { plantDemo } from './demo';
import { somePort } from './ports';

/** Builds the application, runs it with a database of its own that holds the demo, and opens a browser; all of it is gone after. */
export async function withScratchApplication<T>(work: (address: string, browser: Browser) => Promise<T>): Promise<T> {
  const scratch = mkdtempSync(join(tmpdir(), 'roblik-scratch-'));
  const database = new Database(scratch);
  build();
  await database.start();
  await plantDemo(database.url, false);
  const application = await run({
    port: await somePort(),
    host: '127.0.0.1',
    database: database.url,
    development: false,
  });
  const browser = await chromium.launch(BROWSER);
  try {
    return await work(application.address, browser);
  } finally {
    await browser.close();
    await application.stop();
    await database.stop();
    rmSync(scratch, { recursive: true, force: true });
  }
}
