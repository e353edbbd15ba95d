import { expect, type Page, test } from '@playwright/test';
import { smallValley } from '../../src/demo/small-valley';
import { addAt, openLayout, stage } from './open';

/** The open stage, if it is that one. */
const isOpen = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Stages' }).locator('[aria-current=step]', { hasText: name });

test('the address says in which stage and at which thing one is: reload, Back and a link that was sent come to it', async ({
  page,
  context,
}) => {
  await openLayout(page, smallValley());
  const here = () => new URL(page.url()).search;
  expect(here()).toBe('');
  await stage(page, 'Detect');
  await expect.poll(here).toBe('?stage=detect');
  await page
    .getByRole('button', { name: /^Signal UW/ })
    .first()
    .click();
  await expect.poll(here).toMatch(/^\?stage=detect&thing=/);
  const title = page.getByRole('complementary', { name: 'Reasoning' }).getByText('UW', { exact: true }).first();
  await expect(title).toBeVisible();
  await page.reload();
  await expect(title).toBeVisible();
  await expect(isOpen(page, 'Detect')).toBeVisible();
  const sent = await context.newPage();
  await sent.goto(page.url());
  await expect(
    sent.getByRole('complementary', { name: 'Reasoning' }).getByText('UW', { exact: true }).first(),
  ).toBeVisible();
  await sent.close();
  await stage(page, 'Prove');
  await expect.poll(here).toContain('stage=prove');
  await page.goBack();
  await expect(isOpen(page, 'Detect')).toBeVisible();
  await page.goBack();
  await expect(isOpen(page, 'Survey')).toBeVisible();
  await page.goForward();
  await expect(isOpen(page, 'Detect')).toBeVisible();
});

test('an address that names what there is not opens the layout all the same', async ({ page }) => {
  await openLayout(page, smallValley());
  await page.goto(`${page.url().split('?')[0]}?stage=nowhere&thing=nobody`);
  await expect(isOpen(page, 'Survey')).toBeVisible();
});

test('a rehearsal goes on from where it was after a look at another stage, and begins anew once the layout is another', async ({
  page,
}) => {
  await openLayout(page, smallValley());
  await stage(page, 'Rehearse');
  const clock = page.getByRole('main').locator('output').first();
  await page.getByRole('radio', { name: '10×' }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForTimeout(2500);
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  await page.waitForTimeout(500);
  const stood = await clock.textContent();
  expect(stood).not.toMatch(/^0*:?0*[:.]?0*$/);
  await stage(page, 'Signal');
  await stage(page, 'Rehearse');
  await expect(clock).toHaveText(stood!);
  await stage(page, 'Survey');
  await addAt(page, 'Gap', '100 cm');
  await stage(page, 'Rehearse');
  await expect(clock).toHaveText(/^0/);
  await expect(clock).not.toHaveText(stood!);
});
