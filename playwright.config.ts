import { defineConfig } from '@playwright/test';
import { BROWSER } from './tools/browser';

const address = process.env.ROBLIK_ADDRESS;
if (!address) throw new Error('ROBLIK_ADDRESS is not set. Run ./roblik test.');

export default defineConfig({
  testDir: 'tests/browser',
  outputDir: process.env.ROBLIK_TEST_OUTPUT ?? 'test-results',
  /** The list of layouts is looked at while it is as it begins; the others come to no harm from each other. */
  projects: [
    { name: 'first', testMatch: /layouts\.spec/ },
    { name: 'others', testIgnore: /layouts\.spec/, dependencies: ['first'] },
  ],
  workers: 3,
  timeout: 240_000,
  /** A busy machine is slow, not wrong. */
  expect: { timeout: 20_000 },
  reporter: [['list'], ['json']],
  use: {
    baseURL: address,
    viewport: { width: 1280, height: 800 },
    acceptDownloads: true,
    launchOptions: BROWSER,
  },
});
