import { expect, type Page, test } from '@playwright/test';
import { generatedTraffic } from '../../src/demo/generated';
import { openLayout, stage, watchErrors } from './open';

/** Where trains and plates are drawn, as the page has it. */
const drawn = (page: Page) =>
  page.getByRole('group', { name: 'Trains', exact: true }).evaluate((svg) =>
    [...svg.querySelectorAll('[data-part]')].map((part) =>
      ['d', 'x', 'y', 'transform']
        .map((name) => part.getAttribute(name) ?? '')
        .join(' ')
        .replace('translate(0 0)', ''),
    ),
  );

test('trains that move are where they would be drawn anew, whatever is done to the sheet meanwhile', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openLayout(page, generatedTraffic(6));
  await stage(page, 'Rehearse');
  await page.getByText('6 trains', { exact: true }).waitFor();
  const first = await drawn(page);
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.getByRole('radio', { name: '10×' }).click();
  /** Meanwhile the sheet is drawn anew for other reasons, in the middle of moves. */
  for (let i = 0; i < 6; i++) {
    await page
      .getByRole('button', { name: `Train ${1 + (i % 2)}`, exact: true })
      .first()
      .click();
    await page.getByRole('button', { name: i % 2 ? 'Zoom in' : 'Zoom out' }).click();
    await page.waitForTimeout(250);
  }
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  await page.waitForTimeout(400);
  const moved = await drawn(page);
  expect(moved).not.toEqual(first);
  /** Wound back and to the same moment again, it is the same drawing. */
  const clock = page.locator('main output').first();
  const at = await clock.textContent();
  await page.getByRole('slider', { name: /^Moment of the run/ }).press('Home');
  await expect(clock).not.toHaveText(at!);
  await page.waitForTimeout(300);
  await page.getByRole('slider', { name: /^Moment of the run/ }).press('End');
  await expect(clock).toHaveText(at!);
  await page.waitForTimeout(300);
  expect(await drawn(page)).toEqual(moved);
  expect(errors).toEqual([]);
});

test('a train is dragged to a block while it runs', async ({ page }) => {
  const errors = watchErrors(page);
  await openLayout(page, generatedTraffic(4));
  await stage(page, 'Rehearse');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.waitForTimeout(1200);
  const train = page
    .getByRole('group', { name: 'Trains', exact: true })
    .getByRole('button', { name: /^Train / })
    .first();
  const box = (await train.boundingBox())!;
  const free = page
    .locator('svg.drawing')
    .first()
    .getByRole('button', { name: /^Block [A-Z]+\d+$/ })
    .first();
  const name = (await free.getAttribute('aria-label'))!.replace('Block ', '');
  const target = (await free.boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(target.x + target.width / 2, target.y + target.height / 2, { steps: 8 });
  await page.waitForTimeout(600);
  await expect(page.getByText(`Send it to ${name}`)).toBeVisible();
  await page.mouse.up();
  await expect(page.getByText(new RegExp(`^Sent to ${name}`)).first()).toBeVisible();
  expect(errors).toEqual([]);
});
