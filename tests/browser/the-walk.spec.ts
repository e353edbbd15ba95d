import { expect, type Page, test } from '@playwright/test';
import { newDocument } from '../../src/core/survey';
import { writeSurvey } from '../../src/core/walk';
import { learningOval } from '../../src/demo/learning-oval';
import { smallValley } from '../../src/demo/small-valley';
import { choose, openLayout, savedDocument, watchErrors } from './open';

/** As a whole text is pasted where one phrase is wanted. */
const pasteRows = (page: Page, rows: string[]) =>
  page.getByRole('textbox', { name: /^Along/ }).evaluate((field, text) => {
    const clipboardData = new DataTransfer();
    clipboardData.setData('text', text);
    field.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
  }, rows.join('\n'));

/** An oval with a passing loop, a siding, platforms and signals: 30 things, as somebody says them who has done it before. */
const OVAL = [
  'line Loop 250',
  'line Spur 90',
  'buffer',
  'line Main',
  'turnout left 80 to Loop',
  'turnout trailing 330 to Loop end',
  'turnout 400 to Spur',
  'gap 60',
  '105',
  '305',
  '350',
  '390',
  '425',
  'signal 60',
  '305',
  '390',
  'signal w 105',
  '350',
  '425',
  'platform 120 to 200',
  'curve r 60 10 to 70',
  '430 to 480',
  'hidden 450 to 480',
  'level crossing 370',
  'landmark 250 Mill',
  'line Loop',
  'gap 25',
  '225',
  'signal 225',
  'signal w 25',
  'platform 40 to 120',
  'line Spur',
  'gap 25',
  'signal w 25',
];
/** As many keys as a practised person presses in a second. */
const KEYS_A_SECOND = 4;

test('an oval with a passing loop is walked by keys alone, in fewer presses than three minutes hold', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const document = newDocument('Walked');
  document.directions = { up: 'e', down: 'w' };
  const id = await openLayout(page, document);
  let presses = 0;
  const type = async (text: string) => {
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
    presses += text.length + 1;
  };
  await type('480');
  const field = page.getByRole('textbox', { name: /^Along/ });
  await expect(field).toBeVisible();
  await expect(field).toBeFocused();
  for (const phrase of ['joins Main', ...OVAL]) await type(phrase);
  await expect(field).toHaveValue('');
  expect(presses / KEYS_A_SECOND, `${presses} presses`).toBeLessThan(180);
  console.log(`   ${presses} presses, ${presses / KEYS_A_SECOND} s at ${KEYS_A_SECOND} a second`);
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  const { document: stored } = await (await page.request.get(`/api/layouts/${id}`)).json();
  expect(stored.features.length + stored.turnouts.length + stored.joins.length).toBeGreaterThanOrEqual(30);
  expect(stored.turnouts).toHaveLength(3);
  await expect(page.getByRole('button', { name: /^Turnout T3/ }).first()).toBeVisible();
  expect(errors).toEqual([]);
});

test('what is typed is shown where it will stand; a wrong word offers the right one; undo takes it back', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openLayout(page, learningOval());
  const field = page.getByRole('textbox', { name: /^Along/ });
  await field.fill('platform 70 to 150 Mill');
  await expect(page.locator('[data-pointed]')).toContainText('70 cm');
  await expect(page.locator('[data-pointed] path')).toHaveCount(1);
  await field.fill('gpa 96');
  await expect(page.getByText('“gpa” is nothing that I know on a line.')).toBeVisible();
  await field.press('Tab');
  await expect(field).toHaveValue('gap 96');
  await field.press('Enter');
  await expect(page.getByRole('button', { name: 'Gap at 96 cm, tentative' })).toBeVisible();
  await expect(page.locator('[data-pointed]')).toHaveCount(0);
  await field.fill('96');
  await field.press('Enter');
  await expect(page.getByText(/There is already a gap/)).toBeVisible();
  await field.fill('+12');
  await field.press('Enter');
  await expect(page.getByRole('button', { name: 'Gap at 108 cm, tentative' })).toBeVisible();
  await field.fill('gap 9 km');
  await expect(page.getByText(/is nothing that is said of a gap|not a unit/)).toBeVisible();
  await field.fill('gap 999');
  await field.press('Enter');
  await expect(page.getByText(/past the end of line/)).toBeVisible();
  await field.press('Escape');
  await expect(field).toHaveValue('');
  await field.press('ArrowUp');
  await expect(field).toHaveValue('+12');
  await field.press('Escape');
  await page.getByRole('button', { name: /^Undo: Add “\+12”/ }).click();
  await expect(page.getByRole('button', { name: 'Gap at 108 cm, tentative' })).toHaveCount(0);
  await page.getByRole('button', { name: 'What can be said' }).click();
  await page.getByRole('button', { name: 'level crossing' }).click();
  await expect(field).toHaveValue('level crossing ');
  await expect(field).toBeFocused();
  expect(errors).toEqual([]);
});

test('a survey is pasted: bad rows are listed, the good ones kept; and one written out comes back into an empty layout', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openLayout(page, learningOval());
  const rows = Array.from({ length: 5000 }, (_, i) => (i % 10 === 3 ? 'spoon 12' : `gap ${10 + i * 5}`));
  await pasteRows(page, ['line Long 60000', ...rows]);
  await expect(page.getByText('5001 rows: 4501 can be added, 500 cannot.')).toBeVisible();
  await expect(page.getByRole('list', { name: 'Rows that cannot be added' })).toContainText('5');
  await page.getByRole('button', { name: 'Add nothing' }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  const empty = newDocument('From text');
  empty.directions = smallValley().directions;
  const id = await openLayout(page, empty);
  await page.getByRole('button', { name: 'Or take up a text' }).click();
  await page.getByRole('textbox', { name: 'Text to take up' }).fill(writeSurvey(smallValley()));
  await page.getByRole('button', { name: 'Add all' }).click();
  await expect(page.getByRole('button', { name: /^Turnout T5/ }).first()).toBeVisible();
  await page.getByRole('button', { name: 'As text' }).click();
  await expect(page.getByRole('textbox', { name: 'This survey as text' })).toHaveValue(writeSurvey(smallValley()));
  await page.keyboard.press('Escape');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  const { document: stored } = await (await page.request.get(`/api/layouts/${id}`)).json();
  expect(writeSurvey(stored)).toBe(writeSurvey(smallValley()));
  expect(errors).toEqual([]);
});

test('a text of 20,000 rows is read aside: how far is shown, it can be stopped and begun again', async ({ page }) => {
  const errors = watchErrors(page);
  await openLayout(page, learningOval());
  const rows = Array.from({ length: 19_999 }, (_, at) => `gap ${at + 1} cm`);
  const field = page.getByRole('textbox', { name: 'Text to take up' });
  await pasteRows(page, ['line Long 20100', ...rows]);
  await page.getByRole('button', { name: 'Stop reading' }).click();
  await expect(page.getByText('Reading was stopped.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Add all' })).toBeDisabled();
  await page.getByRole('button', { name: 'Read it' }).click();
  await expect(page.getByRole('progressbar', { name: 'Reading' })).toBeVisible();
  await expect(page.getByText('20000 rows: all can be added.')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Another text' }).click();
  await field.fill('line Long 200\ngap 40');
  await page.getByRole('button', { name: 'Add all' }).click();
  await page.getByRole('button', { name: 'As text' }).click();
  await page.getByRole('tab', { name: 'Take up a text' }).click();
  await field.fill('line Long 200\ngap 40');
  await expect(page.getByText('2 rows: all of it is there already.')).toBeVisible();
  await field.fill('line Long 200\ngap 40\ngap 60');
  await expect(page.getByText('3 rows: 1 can be added, 2 are there already.')).toBeVisible();
  await field.fill('line Long 300\ngap 60');
  await expect(page.getByText('There is a line “Long” already, and it is 200 cm long.')).toBeVisible();
  expect(errors).toEqual([]);
});

test('a line is deleted, what goes with it is said first, and undo brings it back; a crossing is looked at', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openLayout(page, learningOval());
  const field = page.getByRole('textbox', { name: /^Along/ });
  for (const phrase of [
    'line Cross 200',
    'gap 50',
    'landmark 60 Mill',
    'line Oval',
    'crossing 90 X1 with Cross 100 clear 8',
  ]) {
    await field.fill(phrase);
    await field.press('Enter');
    await expect(field).toHaveValue('');
  }
  await page
    .getByRole('button', { name: /^Diamond X1/ })
    .first()
    .click();
  await expect(page.getByText('Oval at 90 cm crosses Cross at 100 cm; clear after 8 cm.')).toBeVisible();
  await page.getByRole('button', { name: 'Close the selection' }).click();
  await page.getByRole('radio', { name: 'Gap', exact: true }).click();
  await choose(page, 'On line', /^Cross/);
  await page.getByRole('button', { name: 'Correct Cross' }).click();
  await page.getByRole('button', { name: 'Delete Cross …' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('With it go Diamond X1, Gap at 50 cm, Landmark Mill.');
  await page.getByRole('button', { name: 'Delete it all' }).click();
  await expect(page.getByRole('button', { name: /^Diamond X1/ })).toHaveCount(0);
  await page.getByRole('button', { name: /^Undo: Delete Cross/ }).click();
  await expect(page.getByRole('button', { name: /^Diamond X1/ }).first()).toBeVisible();
  expect(errors).toEqual([]);
});

test('which train fits where is a table that sorts and shows the place; what is tentative is listed and made fixed', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openLayout(page, smallValley());
  await page.getByRole('button', { name: 'Which train fits where' }).click();
  const table = page.getByRole('table', { name: 'Which train fits where' });
  const first = table.getByRole('row').nth(1);
  await expect(first).toContainText('too long');
  await first.hover();
  await expect(page.locator('[data-pointed] path')).toHaveCount(1);
  await table.getByRole('button', { name: 'Where', exact: true }).click();
  await expect(table.getByRole('columnheader', { name: 'Where' })).toHaveAttribute('aria-sort', 'ascending');
  await expect(table.getByRole('row').nth(1)).toContainText('FM');
  await table.getByRole('button', { name: 'FM', exact: true }).click();
  await expect(page.getByText('Block FM, 186 cm')).toBeVisible();
  await page.getByRole('button', { name: 'Close the selection' }).click();
  await page.getByRole('textbox', { name: /^Along/ }).fill('mark 390');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: '1 still tentative' }).click();
  await page.getByRole('button', { name: /^It is done: Block mark at 390 cm/ }).click();
  await expect(page.getByRole('button', { name: '1 still tentative' })).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: '1 still tentative' })).toBeVisible();
  expect(errors).toEqual([]);
});

test('a line is split by the menu of the sheet and by typing, and made one again; nothing that is said changes', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, learningOval());
  const sheet = page.getByRole('group', { name: /^Line sheet/ });
  const before = await page.getByRole('contentinfo').textContent();
  const track = (await sheet.getByRole('button', { name: 'Block B2', exact: true }).boundingBox())!;
  await page.mouse.click(track.x - 20, track.y + track.height / 2, { button: 'right' });
  await page.getByRole('menuitem', { name: /^Split Oval at / }).click();
  expect((await savedDocument(page, id)).lines.map(({ name }) => name)).toEqual(['Oval', 'Oval 2']);
  await expect(page.getByRole('contentinfo')).not.toContainText('Checking');
  expect(await page.getByRole('contentinfo').textContent()).toBe(before);
  await page.getByRole('button', { name: 'Correct Oval', exact: true }).click();
  await page.getByRole('button', { name: 'One line with Oval 2' }).click();
  expect((await savedDocument(page, id)).lines.map(({ name }) => name)).toEqual(['Oval']);
  await page.getByRole('textbox', { name: 'Two lines of it, split at' }).fill('9 m');
  await page.getByRole('button', { name: 'Split it' }).click();
  await expect(page.getByText('Oval can only be split between its ends.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Two lines of it, split at' }).fill('200');
  await page.getByRole('button', { name: 'Split it' }).click();
  expect((await savedDocument(page, id)).lines.map(({ length }) => length.typed)).toEqual(['200 cm', '280 cm']);
  expect(errors).toEqual([]);
});
