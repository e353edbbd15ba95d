import { expect, type Page, test } from '@playwright/test';
import { learningOval } from '../../src/demo/learning-oval';
import { smallValley } from '../../src/demo/small-valley';
import { expectCleanInBothThemes } from './clean';
import { openLayout, savedDocument, stage, watchErrors } from './open';

test.describe.configure({ mode: 'parallel' });

/** Selects what the sheet calls so, by keyboard. */
async function select(page: Page, called: RegExp): Promise<void> {
  await page.getByRole('button', { name: called }).first().focus();
  await page.keyboard.press('Enter');
}

/** Opens the rules of what is selected, and writes a line below them. */
async function write(page: Page, name: string, line: string): Promise<void> {
  await page.getByRole('button', { name: 'Its rule as text' }).click();
  await page.getByRole('button', { name: 'Look at its rules, and change them' }).click();
  const window = page.getByRole('dialog', { name: `The rules of ${name}` });
  await window.getByRole('textbox', { name: 'Rules as text' }).click();
  await page.keyboard.press('Control+End');
  await page.keyboard.press('Enter');
  await page.keyboard.type(line);
}

test('points have rules of their own, which stand in the list of all, lead back to them, and go', async ({ page }) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, smallValley());
  await stage(page, 'Signal');
  await select(page, /^Turnout T1( |,|$)/);
  await write(page, 'T1', 'rule night : bool = locked.T99');
  const window = page.getByRole('dialog', { name: 'The rules of T1' });
  await expect(window.getByRole('status').last()).toContainText('There is no “locked.T99”');
  await expect(window.getByRole('button', { name: 'Use these rules' })).toBeDisabled();
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Backspace');
  await page.keyboard.type('1');
  await window.getByRole('button', { name: 'Use these rules' }).click();
  await expect(window).toContainText(/1 of \d+ rules is your own/);
  await window.getByRole('button', { name: 'All rules of your own' }).click();
  const list = page.getByRole('dialog', { name: 'All rules of your own' });
  await expect(list).toContainText('1 of your own');
  const row = list.getByRole('row').filter({ hasText: 'night' });
  await expect(row).toContainText('locked.T1');
  await expect(row).toContainText('nothing: it stands beside the others');
  await expectCleanInBothThemes(page, 'all rules of your own');
  await row.getByRole('button', { name: 'Go to T1' }).click();
  await expect(list).toBeHidden();
  await expect(page.getByRole('button', { name: 'Its rule as text' })).toBeVisible();
  expect((await savedDocument(page, id)).rules).toMatchObject([{ name: 'night', about: expect.any(String) }]);
  await page.getByRole('banner').getByRole('button', { name: 'Find a thing or a command', exact: true }).click();
  await page.getByRole('dialog').getByRole('combobox').fill('rules of your own');
  await page.keyboard.press('Enter');
  await list.getByRole('row').filter({ hasText: 'night' }).getByRole('button', { name: 'Delete' }).click();
  await expect(list).toContainText('All rules are as generated');
  expect((await savedDocument(page, id)).rules).toEqual([]);
  expect(errors).toEqual([]);
});

test('what was proved of a layout stays so when a thing is renamed, in its new words, and not when it is moved', async ({
  page,
}) => {
  const document = learningOval();
  await openLayout(page, { ...document, features: document.features.filter((f) => !('name' in f && f.name === 'S2')) });
  await stage(page, 'Prove');
  await page.getByRole('button', { name: 'Look at every state' }).click();
  const proof = page.getByRole('button', { name: 'Proof: 3 mishaps can happen' });
  await expect(proof).toBeVisible({ timeout: 60_000 });
  await stage(page, 'Survey');
  await select(page, /^Block B2( |,|$)/);
  const name = page.getByRole('textbox', { name: 'Name', exact: true });
  await name.fill('Quarry');
  await name.press('Enter');
  await expect(page.getByRole('button', { name: /^Block Quarry/ }).first()).toBeVisible();
  await expect(page.getByRole('contentinfo')).not.toContainText('Checking');
  await expect(proof).toBeVisible();
  await stage(page, 'Prove');
  await expect(page.getByRole('list', { name: 'Verdicts' })).toContainText(
    'Red train and Blue train are both in Quarry.',
  );
  await stage(page, 'Survey');
  await select(page, /^Signal S1( |,|$)/);
  const at = page.getByRole('textbox', { name: 'Distance', exact: true });
  await at.fill('50 cm');
  await at.press('Enter');
  await page.getByRole('alertdialog').getByRole('button', { name: /Move/ }).click();
  await expect(page.getByRole('button', { name: /^Proof: Not proved since \d\d:\d\d$/ })).toBeVisible();
});
