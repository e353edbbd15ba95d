import { expect, type Page, type Route, test } from '@playwright/test';
import { newDocument } from '../../src/core/survey';
import { learningOval } from '../../src/demo/learning-oval';
import { smallValley } from '../../src/demo/small-valley';
import { expectCleanInBothThemes as clean } from './clean';
import { addAt, choose, openLayout, stage } from './open';

test.describe.configure({ mode: 'parallel' });

/** Empty, loading and failed states: each says what is so and what to do, and is clean in both themes. */
const AWAY = { status: 503, json: { problem: 'The database does not answer.' } };
const fail = (route: Route) => route.fulfill(AWAY);
const never = () => new Promise<void>(() => {});
const dialog = (page: Page, name: string) => page.getByRole('dialog', { name });
const header = (page: Page, name: string) =>
  page.getByRole('banner').getByRole('button', { name, exact: true }).click();
const alerts = (page: Page, text: string | RegExp) =>
  expect(page.getByRole('alert').filter({ hasText: text }).first()).toBeVisible();

test('pages that are not there', async ({ page }) => {
  await page.goto('/nowhere');
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
  await clean(page, 'no such page');
  await page.goto('/layouts/0000');
  await expect(page.getByRole('heading', { name: 'There is no such layout' })).toBeVisible();
  await clean(page, 'no such layout');
  await page.getByRole('link', { name: 'Back to your layouts' }).click();
  await expect(page.getByRole('link', { name: /^Ondrel/ }).first()).toBeVisible();
});

test('a layout without a line, and one without trains', async ({ page }) => {
  await openLayout(page, newDocument('Empty'));
  await clean(page, 'first line');
  await openLayout(page, { ...learningOval(), trains: [], vehicles: [] });
  await expect(page.getByText('once trains are surveyed')).toBeVisible();
  await clean(page, 'no vehicles');
  await stage(page, 'Prove');
  await expect(page.getByText('No train stands on the track.')).toBeVisible();
  await clean(page, 'prove without trains');
  await stage(page, 'Rehearse');
  await expect(page.getByText('No train stands on the track.')).toBeVisible();
  await clean(page, 'rehearse without trains');
});

test('nothing kept yet, and a server that is slow or away while kept things are looked up', async ({ page }) => {
  await openLayout(page, learningOval());
  await stage(page, 'Rehearse');
  await page.getByRole('button', { name: 'Runs' }).click();
  await expect(dialog(page, 'Runs').getByText('No run has been kept yet.')).toBeVisible();
  await clean(page, 'no runs');
  await dialog(page, 'Runs').getByRole('button', { name: 'Keep', exact: true }).click();
  await alerts(page, 'Type a name for this run first.');
  await page.keyboard.press('Escape');
  for (const [path, window, waits] of [
    ['revisions', 'History', 'Looking up the kept versions …'],
    ['runs', 'Runs', 'Looking up the kept runs …'],
  ] as const) {
    const open = () => page.getByRole('button', { name: window, exact: true }).click();
    await page.route(`**/api/layouts/*/${path}`, never);
    await open();
    await expect(dialog(page, window).getByText(waits)).toBeVisible();
    await clean(page, `${path} looked up`);
    await page.keyboard.press('Escape');
    await page.unroute(`**/api/layouts/*/${path}`);
    await page.route(`**/api/layouts/*/${path}`, fail);
    await open();
    await alerts(page, 'The database does not answer.');
    await expect(dialog(page, window).getByText(/…$/)).toHaveCount(0);
    await clean(page, `${path} away`);
    await page.keyboard.press('Escape');
  }
});

test('two runs side by side, and two versions of one layout', async ({ context }) => {
  const page = await context.newPage();
  const id = await openLayout(page, learningOval());
  await stage(page, 'Rehearse');
  for (const name of ['One', 'Two']) {
    await page.getByRole('button', { name: '+1 s' }).click();
    await page.getByRole('button', { name: 'Runs' }).click();
    await dialog(page, 'Runs').getByLabel('Keep the present run as').fill(name);
    await page.keyboard.press('Enter');
    await dialog(page, 'Runs').getByLabel(name).check();
    if (name === 'One') await page.keyboard.press('Escape');
  }
  await dialog(page, 'Runs').getByLabel('One').check();
  await dialog(page, 'Runs').getByRole('button', { name: 'Compare the two chosen' }).click();
  await expect(dialog(page, 'Runs').getByText('As far as both go, they are the same.')).toBeVisible();
  await clean(page, 'two runs');
  const other = await context.newPage();
  await other.goto(`/layouts/${id}`);
  for (const [window, at] of [
    [page, '100'],
    [other, '110'],
  ] as const) {
    await window.keyboard.press('Escape');
    await stage(window, 'Survey');
    await addAt(window, 'Gap', at);
    if (window === page) await expect(page.getByRole('banner').getByRole('status')).toHaveText('Saved');
  }
  await expect(dialog(other, 'Changed in another window too')).toBeVisible();
  await clean(other, 'two versions');
});

test('an edit that cannot be saved, and words that are no length', async ({ page }) => {
  await openLayout(page, learningOval());
  await page.getByRole('radio', { name: 'Gap' }).click();
  await page.getByRole('textbox', { name: 'At', exact: true }).fill('about here');
  await expect(page.getByText(/about here/)).toBeVisible();
  await page.getByRole('button', { name: 'Add the gap' }).click();
  await expect(page.getByText('0 boundaries')).toHaveCount(0);
  await clean(page, 'no length');
  await page.route('**/api/layouts/*', fail);
  await addAt(page, 'Gap', '100');
  await alerts(page, 'kept in this browser');
  await clean(page, 'not saved');
});

test('a search that finds nothing, a proof on its way, stopped and out of date', async ({ page }) => {
  await openLayout(page, smallValley());
  await header(page, 'Find a thing or a command');
  await page.keyboard.type('xyzzy');
  await expect(page.getByText('Nothing is called that.')).toBeVisible();
  await clean(page, 'nothing found');
  await page.keyboard.press('Escape');
  await stage(page, 'Prove');
  await page.getByRole('button', { name: 'Look at every state' }).click();
  await expect(page.getByText(/[1-9][\d ]* states found/)).toBeVisible({ timeout: 60_000 });
  await clean(page, 'proving');
  await page.getByRole('button', { name: 'Stop here' }).click();
  await expect(page.getByText(/not finished/).first()).toBeVisible();
  await clean(page, 'proof stopped');
  await page.getByRole('radio', { name: 'inch' }).click();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await expect(page.getByText('The layout has changed since')).toHaveCount(0);
  await stage(page, 'Survey');
  await addAt(page, 'Gap', '100 cm');
  await stage(page, 'Prove');
  await expect(page.getByText('The layout has changed since')).toBeVisible();
  await clean(page, 'proof out of date');
});

test('a file that is no layout, on the list', async ({ page }) => {
  await page.goto('/');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('not a layout at all') });
  await alerts(page, /notes.txt|JSON/);
  await clean(page, 'import refused');
});

test('at every size all of the header and of the bar stays on the page, side by side', async ({ page }) => {
  await openLayout(page, smallValley());
  for (const size of ['150 %', '125 %', '100 %']) {
    await choose(page, 'Size of everything', size);
    await stage(page, 'Rehearse');
    await page.getByRole('button', { name: 'Runs' }).waitFor();
    const boxes = (await page.evaluate(`
      [...document.querySelectorAll('header button, header [role=combobox], header input, main button, main [role=slider]')]
        .filter((e) => !e.closest('svg')).map((e) => { const { left, right, top, bottom } = e.getBoundingClientRect();
          return { name: e.getAttribute('aria-label') ?? e.textContent, left, right, top, bottom }; })`)) as {
      name: string;
      left: number;
      right: number;
      top: number;
      bottom: number;
    }[];
    expect(boxes.length).toBeGreaterThan(20);
    for (const a of boxes) {
      expect(a.left >= 0 && a.right <= 1280 && a.right > a.left, `${a.name} at ${size}`).toBe(true);
      const over = boxes.filter(
        (b) => a !== b && a.left < b.right - 1 && b.left < a.right - 1 && a.top < b.bottom - 1 && b.top < a.bottom - 1,
      );
      expect(
        over.map((b) => `${a.name} over ${b.name} at ${size}`),
        `${a.name} at ${size}`,
      ).toEqual([]);
    }
    await clean(page, `rehearse at ${size}`);
  }
});
