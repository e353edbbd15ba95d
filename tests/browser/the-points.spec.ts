import { expect, test } from '@playwright/test';
import { randomPoints } from '../../tools/fuzz/random-points';
import { openLayout, stage, watchErrors } from './open';

test('both motors of a slip, and of a three-way turnout, are thrown and tell why not', async ({ page }) => {
  const errors = watchErrors(page);
  const found = (test: (d: ReturnType<typeof randomPoints>) => boolean) => {
    for (let seed = 0; ; seed++) {
      const d = randomPoints(seed);
      if (test(d) && d.features.length === 8 && d.sensors.length === 5) return d;
    }
  };
  const slip = found((d) => d.crossings[0]?.kind === 'double slip');
  slip.trains = [];
  await openLayout(page, slip);
  await stage(page, 'Rehearse');
  /** Points are locked until power-up is over. */
  const wait = async (seconds: number) => {
    for (let i = 0; i < seconds; i++) await page.getByRole('button', { name: '+1 s' }).click();
  };
  await wait(8);
  for (const motor of ['Xa', 'Xb']) {
    await page.getByRole('button', { name: `Throw ${motor}, which lies straight` }).click();
    await wait(3);
    await expect(page.getByRole('button', { name: new RegExp(`^Throw ${motor}, which lies diverging`) })).toBeVisible();
  }
  const threeWay = found((d) => d.turnouts[0]?.kind === 'three-way');
  threeWay.trains = [];
  await openLayout(page, threeWay);
  await stage(page, 'Signal');
  await page
    .getByRole('button', { name: /^Turnout W/ })
    .first()
    .click();
  await expect(page.getByText('Three-way turnout')).toBeVisible();
  const throwing = page.getByRole('button', { name: /^W[ab] lies/ });
  await expect(throwing).toHaveCount(2);
  const second = page.getByRole('button', { name: /^Wb lies/ });
  const before = await second.textContent();
  await second.click();
  await expect(second).not.toHaveText(before!);
  await expect(page.getByText(/^Wb may be thrown|^Wb is locked/).first()).toBeVisible();
  expect(errors).toEqual([]);
});
