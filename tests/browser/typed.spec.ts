import { expect, test } from '@playwright/test';
import { smallValley } from '../../src/demo/small-valley';
import { openLayout, stage } from './open';

test('what was begun to be typed is there again after Escape and after another stage: phrases, texts, tables, forms and rules', async ({
  page,
}) => {
  await openLayout(page, smallValley());
  const phrase = page.getByRole('textbox', { name: /^Along/ });
  await phrase.fill('gap 12');
  await page.getByRole('button', { name: 'As text' }).click();
  await page.getByRole('tab', { name: 'Take up a text' }).click();
  await page.getByRole('textbox', { name: 'Text to take up' }).fill('gap 123\ngap 45');
  await page.keyboard.press('Escape');
  await stage(page, 'Traffic');
  await page.getByText('Add an area').click();
  await page.getByLabel('Name of the area').fill('Goods yard');
  await stage(page, 'Survey');
  await expect(phrase).toHaveValue('gap 12');
  await page.getByRole('button', { name: 'As text' }).click();
  await page.getByRole('tab', { name: 'Take up a text' }).click();
  await expect(page.getByRole('textbox', { name: 'Text to take up' })).toHaveValue('gap 123\ngap 45');
  await page.getByRole('button', { name: 'Add nothing' }).click();
  await page.getByRole('button', { name: 'As text' }).click();
  await page.getByRole('tab', { name: 'Take up a text' }).click();
  await expect(page.getByRole('textbox', { name: 'Text to take up' })).toHaveValue('');
  await page.keyboard.press('Escape');
  await stage(page, 'Traffic');
  await page.getByText('Add an area').click();
  await expect(page.getByLabel('Name of the area')).toHaveValue('Goods yard');
  await stage(page, 'Signal');
  await page
    .getByRole('button', { name: /^Signal UW/ })
    .first()
    .click();
  await page.getByText('Its rule as text').click();
  const look = page.getByRole('button', { name: 'Look at its rules, and change them' });
  await look.click();
  const rules = page.getByRole('dialog', { name: /^The rules of UW/ });
  const editor = rules.locator('.cm-content');
  await editor.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type('\n\nMine = true');
  await expect(rules.getByRole('status').last()).not.toContainText('Nothing has changed');
  await rules.getByRole('button', { name: 'Close' }).click();
  await look.click();
  await expect(editor).toContainText('Mine = true');
});
