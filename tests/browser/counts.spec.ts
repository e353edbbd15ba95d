import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { ondrelValley } from '../../src/demo/ondrel-valley';
import { addAt, openLayout } from './open';

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

test('what one edit asks of workers, of the browser’s store and of the server is no more than is kept', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const counted = { messages: 0, copies: 0 };
    Object.assign(window, { counted });
    const { postMessage } = Worker.prototype;
    Worker.prototype.postMessage = function (this: Worker, ...said: unknown[]) {
      counted.messages += 1;
      return postMessage.apply(this, said as Parameters<typeof postMessage>);
    };
    const { put } = IDBObjectStore.prototype;
    IDBObjectStore.prototype.put = function (this: IDBObjectStore, ...kept: Parameters<typeof put>) {
      if (JSON.stringify(kept[0]).includes('"format":')) counted.copies += 1;
      return put.apply(this, kept);
    };
  });
  let requests = 0;
  page.on('request', () => {
    requests += 1;
  });
  await openLayout(page, ondrelValley());
  await addAt(page, 'Gap', '97 cm');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.waitForTimeout(1500);
  type Counted = { counted: { messages: number; copies: number } };
  await page.evaluate(() => Object.assign((window as unknown as Counted).counted, { messages: 0, copies: 0 }));
  requests = 0;
  await addAt(page, 'Gap', '111 cm');
  await expect(page.getByRole('contentinfo')).not.toContainText('Checking');
  await page.waitForTimeout(2500);
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  const { messages, copies } = await page.evaluate(() => (window as unknown as Counted).counted);
  const found = {
    'messages to workers': messages,
    'copies of the layout kept': copies,
    'requests to the server': requests,
  };
  for (const [what, count] of Object.entries(found))
    expect(count, what).toBeLessThanOrEqual(KEPT[`an edit until it is saved: ${what}`] ?? 0);
});
