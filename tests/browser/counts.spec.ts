import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { ondrelValley } from '../../src/demo/ondrel-valley';
import { openLayout } from './open';

const KEPT = JSON.parse(readFileSync(new URL('../../tools/bench/counts.json', import.meta.url), 'utf8')) as Record<
  string,
  number
>;

test('script of the first screen and elements of the demo’s sheet are no more than is kept', async ({ page }) => {
  const sizes: Promise<number>[] = [];
  page.on('requestfinished', (request) => {
    if (request.resourceType() === 'script') sizes.push(request.sizes().then((size) => size.responseBodySize));
  });
  await page.goto('/', { waitUntil: 'load' });
  const kilobytes = Math.ceil((await Promise.all(sizes)).reduce((sum, size) => sum + size, 0) / 1000);
  expect(kilobytes).toBeLessThanOrEqual(KEPT['first screen: script compressed, kB']!);
  await openLayout(page, ondrelValley());
  const elements = await page.locator('svg.drawing').first().locator('*').count();
  expect(elements).toBeLessThanOrEqual(KEPT['Ondrel Valley: elements drawn']!);
});
