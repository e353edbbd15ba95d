import { expect, type Page, test } from '@playwright/test';
import { learningOval } from '../../src/demo/learning-oval';
import { smallValley } from '../../src/demo/small-valley';
import { openLayout, stage, watchErrors } from './open';

const turnouts = (page: Page) => page.getByRole('button', { name: /^Turnout \S+, lies/ });

/** A new layout by its first steps: a name, a length, a turnout whose track comes back. */
async function newLayoutWithTurnout(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByLabel('Name').fill('First steps');
  await page.getByRole('button', { name: 'Make it' }).click();
  await page.getByLabel('Length', { exact: true }).fill('6 m');
  await page.getByRole('button', { name: 'Draw it' }).click();
  await page.getByRole('radio', { name: 'Turnout' }).click();
  await page.getByLabel('Blade tips at', { exact: true }).fill('100');
  await page.getByLabel('Length of that track').fill('250');
  await page.getByLabel('Blade tips of the second turnout at').fill('400');
  await page.getByRole('button', { name: 'Add the turnout' }).click();
  await expect(turnouts(page)).toHaveCount(2);
}

test('a turnout added to a new layout is taken back, and done again, without breaking the page', async ({ page }) => {
  const errors = watchErrors(page);
  await newLayoutWithTurnout(page);
  for (let i = 0; i < 3; i++) {
    await page.keyboard.press('Control+z');
    await expect(turnouts(page)).toHaveCount(0);
    await page.keyboard.press('Control+Shift+z');
    await expect(turnouts(page)).toHaveCount(2);
  }
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByText('How long is your line?')).toBeVisible();
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: /^Redo: / }).click();
  await expect(turnouts(page)).toHaveCount(2);
  for (const name of ['Signal', 'Prove', 'Rehearse'] as const) {
    await stage(page, name);
    await page.keyboard.press('Control+z');
    await expect(turnouts(page)).toHaveCount(0);
    await page.keyboard.press('Control+Shift+z');
    await expect(turnouts(page)).toHaveCount(2);
  }
  expect(errors).toEqual([]);
});

test('a turnout deleted with its track, and a version without it, break nothing', async ({ page }) => {
  const errors = watchErrors(page);
  await newLayoutWithTurnout(page);
  await turnouts(page).first().click();
  await page.getByRole('button', { name: /^Delete/ }).click();
  await expect(turnouts(page)).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(turnouts(page)).toHaveCount(2);
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'History' }).click();
  await page.getByRole('list', { name: 'Kept versions' }).getByRole('button').last().click();
  await page.getByRole('button', { name: 'Go back to this version' }).click();
  await expect(page.getByText('How long is your line?')).toBeVisible();
  await page.getByRole('button', { name: /^Undo: Go back/ }).click();
  await expect(turnouts(page)).toHaveCount(2);
  expect(errors).toEqual([]);
});

test('going away from a layout and back shows it as it is now, with the way back', async ({ page }) => {
  await openLayout(page, smallValley());
  await page.getByLabel('Name of the layout').fill('Named before going away');
  await page.keyboard.press('Enter');
  await page.getByRole('link', { name: /Roblik/ }).click();
  await expect(page).toHaveURL(/\/$/);
  await page.goBack();
  await expect(page.getByLabel('Name of the layout')).toHaveValue('Named before going away');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Undo: Name it Named before going away' }).click();
  await expect(page.getByLabel('Name of the layout')).toHaveValue('Ondrel Valley');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
});

test('a layout that cannot be drawn is not lost: it opens again, or without the newest edit', async ({ page }) => {
  await openLayout(page, learningOval());
  await page.getByLabel('Name of the layout').fill('Edited');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  /** Clicks a block while whatever is drawn breaks, for a moment. */
  const breakAt = async (block: string) => {
    await page.getByRole('button', { name: new RegExp(`^Block ${block}`) }).evaluate((element) => {
      const kept = Array.prototype.flatMap;
      Array.prototype.flatMap = () => {
        throw new Error('broken on purpose');
      };
      element.dispatchEvent(new MouseEvent('click', { bubbles: true }));
      return new Promise<void>((done) =>
        setTimeout(() => {
          Array.prototype.flatMap = kept;
          done();
        }, 200),
      );
    });
    await expect(page.getByRole('heading', { name: 'This page broke' })).toBeVisible();
  };
  await breakAt('B1');
  await page.getByRole('button', { name: 'Open it again' }).click();
  await expect(page.getByLabel('Name of the layout')).toHaveValue('Edited');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await breakAt('B2');
  await page.getByRole('button', { name: 'Open it without “Name it Edited”' }).click();
  await expect(page.getByLabel('Name of the layout')).toHaveValue('Learning oval');
});
