import { expect, test } from '@playwright/test';
import { randomLayout } from '../../tools/fuzz/random-layout';
import { randomPoints } from '../../tools/fuzz/random-points';
import { openLayout, savedDocument, watchErrors } from './open';

test('a fix is tried before it is offered: two that are only right together are one step, with what else it brings', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, randomPoints(7));
  const before = await savedDocument(page, id);
  await page.getByRole('button', { name: 'Open', exact: true }).click();
  const row = page.getByRole('listitem').filter({ hasText: 'A train can run onto X without passing a signal' });
  await expect(row).toContainText('Then: S1, S2 show the same whether the route leads straight on or diverges.');
  await row.getByRole('button', { name: 'Place a signal at 99 cm on a and 139 cm on a' }).click();
  await expect(row).toHaveCount(0);
  await expect(page.getByRole('list', { name: 'Findings' })).toContainText('S1, S2 show the same');
  const after = await savedDocument(page, id);
  expect(after.features.length).toBe(before.features.length + 2);
  await page.getByRole('button', { name: /^Undo: Place a signal at 99 cm on a and 139 cm on a/ }).click();
  await expect(row).toHaveCount(1);
  expect((await savedDocument(page, id)).features).toEqual(before.features);
  expect(errors).toEqual([]);
});

test('a fix that brings something as grave is told and not offered', async ({ page }) => {
  const errors = watchErrors(page);
  await openLayout(page, randomLayout(2));
  await page.getByRole('button', { name: 'Open', exact: true }).click();
  const row = page.getByRole('listitem').filter({ hasText: 'No signal stands between E and T' });
  await row.scrollIntoViewIfNeeded();
  await expect(row).toContainText(
    'Not offered: Place a signal at 144 cm on a. It mends this, and brings something as grave: S1 leads into T',
  );
  await expect(row.getByRole('button', { name: /^Place a signal/ })).toHaveCount(0);
  expect(errors).toEqual([]);
});
