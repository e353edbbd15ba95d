import { expect, test } from '@playwright/test';
import { smallValley } from '../../src/demo/small-valley';
import { expectCleanInBothThemes } from './clean';
import { choose, openLayout, savedDocument, stage, watchErrors } from './open';

test('what is protected is decided for each area, with what an empty post means, and taken back', async ({ page }) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, smallValley());
  await stage(page, 'Traffic');
  const panel = page.getByRole('complementary', { name: 'Traffic' });
  await expect(panel).toContainText('For 3 of 3 areas nobody has decided yet how trains come in.');
  await panel.getByRole('button', { name: 'Marrowick: not decided' }).click();
  await choose(page, 'Trains come in', 'when a local operator lets them');
  await expect(panel).toContainText('Choose what Marrowick shows while nobody is there.');
  await choose(page, 'With nobody at the post its signals show', 'caution: come in slowly, on sight');
  await expect(panel).toContainText('There is 1 post.');
  const left = panel.getByLabel('Left out on purpose, and why');
  await left.fill('No signals for shunting');
  await left.press('Enter');
  await panel.getByRole('button', { name: 'Add an area' }).click();
  await panel.getByLabel('Name of the area').fill('Quarry');
  await panel.getByRole('button', { name: 'Add the area' }).click();
  await expect(panel.getByRole('alert')).toHaveText('Say from where to where: 120 and 300.');
  await panel.getByLabel('It begins at').fill('1000');
  await panel.getByLabel('It ends at').fill('1400');
  await panel.getByRole('button', { name: 'Add the area' }).click();
  await expect(panel.getByRole('alert')).toHaveText('Main is only 1180 cm long.');
  await panel.getByLabel('It ends at').fill('1100');
  await panel.getByRole('button', { name: 'Add the area' }).click();
  await expect(panel.getByRole('button', { name: 'Quarry: not decided' })).toBeVisible();
  await expectCleanInBothThemes(page, 'traffic');
  const { areas } = await savedDocument(page, id);
  expect(areas.map(({ name, admits }) => [name, admits])).toEqual([
    ['Undercroft', undefined],
    ['Marrowick', 'operator'],
    ['Fenhallow', undefined],
    ['Quarry', undefined],
  ]);
  expect(areas[1]).toMatchObject({ whenEmpty: 'caution', leavesOut: 'No signals for shunting' });
  await page.keyboard.press('Escape');
  await panel.getByRole('button', { name: 'Add a movement' }).click();
  await panel.getByRole('button', { name: /^Night mail: Undercroft to Marrowick/ }).click();
  const often = panel.getByLabel('How often in an hour');
  await often.fill('none');
  await often.press('Enter');
  await expect(panel.getByRole('alert')).toHaveText('Type a number of times between 0.1 and 60.');
  await often.fill('4');
  await often.press('Enter');
  await expect(panel).toContainText('1 movement, 4 an hour in all.');
  expect(errors).toEqual([]);
});

test('schemes are kept, compared with what they take and leave, and gone on with', async ({ page }) => {
  const errors = watchErrors(page);
  await openLayout(page, smallValley());
  await stage(page, 'Traffic');
  const window = page.getByRole('dialog', { name: 'Schemes compared' });
  const open = () => page.getByRole('button', { name: 'Compare schemes …' }).click();
  const row = (says: string) => window.getByRole('row', { name: new RegExp(`^${says}`) }).getByRole('cell');
  await open();
  await window.getByLabel('Keep the present scheme as').fill('All signals');
  await window.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(window.getByRole('checkbox', { name: /All signals/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await stage(page, 'Survey');
  await page.getByRole('button', { name: /^Signal PDW/ }).click();
  await page
    .getByRole('complementary')
    .getByRole('button', { name: /^Delete/ })
    .click();
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await stage(page, 'Traffic');
  await open();
  await window.getByRole('checkbox', { name: /All signals/ }).click();
  const heads = smallValley().features.filter(({ kind }) => kind === 'signal').length;
  await expect(row('Signal heads')).toHaveText([String(heads), String(heads - 1)]);
  await expect(row('Points without protection').first()).toHaveText('none');
  await expect(row('Points without protection').last()).not.toHaveText('none');
  await expectCleanInBothThemes(page, 'schemes');
  await window.getByRole('button', { name: 'Prices' }).click();
  const before = await row('Cost, about').first().textContent();
  await window.getByLabel('A signal head').fill('100');
  await window.getByLabel('A signal head').press('Enter');
  await expect(row('Cost, about').first()).not.toHaveText(before!);
  /** The price is another difference; the signal alone is taken over, and taken back. */
  await window.getByRole('button', { name: 'Take over single things from All signals' }).click();
  await window.getByRole('list', { name: 'What All signals has otherwise' }).getByText('Signal PDW').click();
  await window.getByRole('button', { name: 'Take over 1 of 2' }).click();
  await expect(row('Signal heads')).toHaveText([String(heads), String(heads)]);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo: Take over a thing from All signals' }).click();
  await expect(page.getByRole('button', { name: /^Signal PDW/ })).toHaveCount(0);
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await open();
  await window.getByRole('checkbox', { name: /All signals/ }).click();
  await window.getByRole('button', { name: /^Go on with All signals/ }).click();
  await expect(window).toHaveCount(0);
  await expect(page.getByRole('button', { name: /^Signal PDW/ })).toBeVisible();
  expect(errors).toEqual([]);
});

test('signals are numbered by place and track, and what is taken is told', async ({ page }) => {
  await openLayout(page, smallValley());
  await stage(page, 'Traffic');
  const panel = page.getByRole('complementary', { name: 'Traffic' });
  await panel.getByRole('button', { name: 'Number them' }).click();
  await panel.getByRole('button', { name: /^Number these/ }).click();
  await expect(panel).toContainText('They are called so already.');
  await expect(page.getByRole('button', { name: /^Signal 1\.1→/ })).toBeVisible();
  await panel.getByRole('radio', { name: 'tracks', exact: true }).click();
  await panel.getByRole('button', { name: /^Number these/ }).click();
  await expect(panel).toContainText('They are called so already.');
  await page.keyboard.press('Control+z');
  await expect(panel.getByRole('button', { name: /^Number these/ })).toBeVisible();
});
