import { expect, test } from '@playwright/test';
import { newDocument } from '../../src/core/survey';
import { learningOval } from '../../src/demo/learning-oval';
import { smallValley } from '../../src/demo/small-valley';
import { addAt, choose, openLayout, stage, watchErrors } from './open';

test('the menu of a thing, by the right button and by key; what is deleted comes back from the notice', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openLayout(page, learningOval());
  const signal = page.getByRole('button', { name: 'Signal S2', exact: true });
  await signal.click({ button: 'right' });
  await expect(page.getByRole('menu')).toContainText('Signal S2');
  await page.getByRole('menuitem', { name: 'Look at it' }).click();
  await expect(page.getByRole('complementary', { name: 'Reasoning' })).toContainText('S2');
  await page.getByRole('button', { name: 'Gap at 60 cm, fixed' }).click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Measure to it from what is selected' }).click();
  await expect(page.getByRole('complementary', { name: 'Between two things' })).toContainText('120 cm');
  await page.keyboard.press('Escape');
  await signal.focus();
  await page.keyboard.press('Shift+F10');
  await page.getByRole('menuitem', { name: 'Delete it' }).press('Enter');
  await expect(signal).toHaveCount(0);
  const notice = page.getByText('S2: deleted', { exact: true });
  await expect(notice).toBeVisible();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(signal).toBeVisible();
  await expect(notice).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('where nothing is, the menu is about the sheet; a turnout is thrown from its menu where points can be thrown', async ({
  page,
}) => {
  await openLayout(page, smallValley());
  const sheet = page.locator('main svg[role=group]').first();
  const box = (await sheet.boundingBox())!;
  await page.mouse.click(box.x + 500, box.y + 330, { button: 'right' });
  await page.getByRole('menuitem', { name: 'Zoom in' }).click();
  await page.getByRole('button', { name: 'Fit the whole layout' }).click();
  await stage(page, 'Signal');
  await page.getByRole('button', { name: 'Turnout T1, lies straight' }).click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Throw it' }).click();
  await expect(page.getByRole('button', { name: 'Turnout T1, lies diverging' })).toBeVisible();
});

test('the part of the line that is shown stays when the stage is changed', async ({ page }) => {
  await openLayout(page, smallValley());
  const gap = page.getByRole('button', { name: /^Gap at 300 cm/ });
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: 'Zoom in' }).click();
  const before = (await gap.boundingBox())!.x;
  await stage(page, 'Prove');
  expect((await gap.boundingBox())!.x).toBeCloseTo(before, 0);
  await stage(page, 'Survey');
  expect((await gap.boundingBox())!.x).toBeCloseTo(before, 0);
});

test('lists open by key, choose by letter and arrow, and close by Escape with nothing changed', async ({ page }) => {
  await openLayout(page, smallValley());
  await page.getByRole('button', { name: /^Night mail ?128 cm/ }).click();
  const stands = page.getByRole('combobox', { name: 'Stands in' });
  await stands.focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('option', { name: 'UC2', exact: true })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('option')).toHaveCount(0);
  await expect(stands).toHaveText('UC2');
  await expect(stands).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option', { name: 'UC2', exact: true })).toBeFocused();
  await page.keyboard.type('UC3', { delay: 50 });
  await page.keyboard.press('Enter');
  await expect(stands).toHaveText('UC3');
});

test('both directions at one place are two strokes; “Added” goes when the next is begun; the text stays', async ({
  page,
}) => {
  await openLayout(page, { ...learningOval(), features: [], trains: [], vehicles: [] });
  await addAt(page, 'Gap', '100');
  const added = page.getByText('Added at 100 cm. Ctrl+Z takes it back.');
  await expect(added).toBeVisible();
  await page.getByRole('radio', { name: 'Signal' }).click();
  await expect(added).toHaveCount(0);
  const at = page.getByRole('textbox', { name: 'At', exact: true });
  await expect(at).toHaveValue('100');
  await at.press('Enter');
  await expect(page.getByRole('button', { name: 'Signal S1', exact: true })).toBeVisible();
  await at.press('Shift+Enter');
  await expect(page.getByRole('button', { name: 'Signal S2', exact: true })).toBeVisible();
  await at.press('Enter');
  await expect(page.getByText('Signal S1 already stands there for that direction.')).toBeVisible();
});

test('an inch layout says nothing in centimetres: defaults, names of blocks, speeds and brakes', async ({ page }) => {
  await openLayout(page, newDocument('Inches', 'HO', 'inch'));
  await page.getByLabel('Length', { exact: true }).fill(`12'6½"`);
  await expect(page.getByText('that is 150 1/2"')).toBeVisible();
  await page.getByRole('button', { name: 'Draw it' }).click();
  await addAt(page, 'Gap', '60');
  await expect(page.getByRole('button', { name: 'Block Main 60', exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Add a train' }).click();
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Local');
  await page.getByRole('textbox', { name: 'Engine, over couplers' }).fill('24');
  await expect(page.getByRole('textbox', { name: 'Top speed' })).toHaveValue('37 mph');
  await page.getByRole('button', { name: 'Put it on the track' }).click();
  await page.getByRole('button', { name: /^Local ?24", 37 mph/ }).click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await expect(panel.getByRole('textbox', { name: 'Braking distance from top speed' })).toHaveValue(/"$/);
  const text = (await panel.textContent())!.replace(/that is [\d.]+ cm/g, '');
  expect(text).not.toMatch(/\d cm|cm\/s|mm\/s|km\/h/);
});

test('a form says beside each field what it lacks, and adds nothing', async ({ page }) => {
  await openLayout(page, learningOval());
  await page.getByRole('button', { name: 'Add a train' }).click();
  await page.getByRole('textbox', { name: 'Top speed' }).fill('quick');
  await page.getByRole('textbox', { name: 'Engine, over couplers' }).fill('');
  await page.getByRole('textbox', { name: 'Cars behind it' }).fill('some');
  await page.getByRole('button', { name: 'Put it on the track' }).click();
  const panel = page.getByRole('complementary', { name: 'Survey' });
  await expect(panel).toContainText('The name is missing or empty; write it.');
  await expect(panel).toContainText('The length is missing.');
  await expect(panel).toContainText('They must be a whole number from 0 to 199.');
  await expect(panel).toContainText('I cannot read “quick” as a speed');
  await expect(panel).toContainText('2 trains');
  /** What stands in a field is what was typed, also while it cannot be read yet. */
  const engine = page.getByRole('textbox', { name: 'Engine, over couplers' });
  for (const typed of ['6', '60', '60 ', '60 c']) {
    await engine.fill(typed);
    await page.waitForTimeout(100);
    await expect(engine).toHaveValue(typed);
  }
});

test('by Tab one goes straight to a part; ? lists the keys from anywhere, and the focus comes back', async ({
  page,
}) => {
  await openLayout(page, learningOval());
  await page.keyboard.press('Tab');
  const sheet = page.getByRole('button', { name: 'The sheet', exact: true });
  await expect(sheet).toBeFocused();
  await sheet.press('Tab');
  await page.keyboard.press('Enter');
  const inPanel = () =>
    page.evaluate(() => document.activeElement?.closest('aside')?.getAttribute('aria-label') ?? 'elsewhere');
  await expect.poll(inPanel).toBe('Survey');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await expect.poll(inPanel).toBe('Survey');
});

for (const size of ['125 %', '150 %'])
  test(`what opens over the page stands at its field at ${size}`, async ({ page }) => {
    await openLayout(page, smallValley());
    await choose(page, 'Size of everything', size);
    await page.getByRole('button', { name: /^Night mail/ }).click();
    const field = page.getByRole('combobox', { name: 'Stands in' });
    await field.scrollIntoViewIfNeeded();
    const at = (await field.boundingBox())!;
    await field.click();
    const list = (await page.getByRole('listbox').boundingBox())!;
    expect(Math.abs(list.x - at.x)).toBeLessThan(6);
    expect(list.x + list.width).toBeLessThanOrEqual(1280);
    expect(list.y + list.height < at.y + 2 || list.y > at.y + at.height - 2).toBe(true);
  });
