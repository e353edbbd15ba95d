import { expect, type Page, test } from '@playwright/test';
import { giveOwnVehicles } from '../../src/core/survey';
import { generatedLine } from '../../src/demo/generated';
import { smallValley } from '../../src/demo/small-valley';
import { choose, openLayout, stage, watchErrors } from './open';

const sheet = (page: Page) => page.getByRole('group', { name: /^Line sheet of/ });
const xOf = async (page: Page, name: string | RegExp) =>
  (await page.getByRole('button', { name, exact: true }).boundingBox())!.x;

test('the sheet zooms by wheel, key and button, pans by drag and key, and fits again', async ({ page }) => {
  await openLayout(page, smallValley());
  const apart = async () => (await xOf(page, 'Signal FW')) - (await xOf(page, 'Signal UW'));
  const whole = await apart();
  await page.getByRole('button', { name: 'Zoom in' }).click();
  const larger = await apart();
  expect(larger).toBeGreaterThan(whole * 1.3);
  await sheet(page).focus();
  await page.keyboard.press('+');
  expect(await apart()).toBeGreaterThan(larger * 1.2);
  await page.keyboard.press('0');
  expect(await apart()).toBeCloseTo(whole, 0);
  const before = await xOf(page, 'Signal UW');
  await page.keyboard.press('ArrowRight');
  expect(await xOf(page, 'Signal UW')).toBeLessThan(before - 40);
  await page.keyboard.press('0');
  const box = (await sheet(page).boundingBox())!;
  await page.mouse.move(box.x + 400, box.y + 200);
  await page.mouse.wheel(0, -300);
  await expect.poll(apart).toBeGreaterThan(whole * 1.2);
  await page.keyboard.press('0');
  await page.mouse.move(box.x + 300, box.y + 380);
  await page.mouse.down();
  await page.mouse.move(box.x + 200, box.y + 380, { steps: 4 });
  await page.mouse.up();
  expect(await xOf(page, 'Signal UW')).toBeCloseTo(before - 100, -1);
});

test('a long layout opens readable, and the overview moves about in it', async ({ page }) => {
  const errors = watchErrors(page);
  await openLayout(page, generatedLine(100));
  await expect(page.getByRole('button', { name: 'Signal E0', exact: true })).toBeVisible();
  const strip = page.getByLabel('Overview of the whole layout');
  const box = (await strip.boundingBox())!;
  /** What is far off the sheet is not drawn. */
  const middle = page.getByRole('button', { name: 'Signal E10', exact: true });
  await expect(middle).toHaveCount(0);
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
  await expect(middle).toBeInViewport();
  await expect(page.getByRole('button', { name: 'Signal E0', exact: true })).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('square brackets step through blocks, Escape lets go, and findings are reached by N and F', async ({ page }) => {
  const d = smallValley();
  giveOwnVehicles(d);
  for (const vehicle of d.vehicles) vehicle.grams = 400;
  await openLayout(page, d);
  await sheet(page).focus();
  await page.keyboard.press(']');
  const first = await page
    .getByText(/^Block (U|S|M|F|P)/)
    .first()
    .textContent();
  await page.keyboard.press(']');
  await expect(page.getByText(/^Block (U|S|M|F|P)/).first()).not.toHaveText(first!);
  await page.keyboard.press('Escape');
  await expect(page.getByRole('heading', { name: 'Survey' })).toBeVisible();
  await page.keyboard.press('n');
  await expect(page.getByRole('button', { name: 'Delete UW' })).toBeVisible();
  await page.keyboard.press('f');
  await expect(page.getByRole('list', { name: 'Findings' })).toBeVisible();
});

test('inches and centimetres: the ruler, the lengths and the list follow, and what was typed is kept', async ({
  page,
}) => {
  await openLayout(page, smallValley());
  await expect(page.getByText('Room for a train')).toBeVisible();
  await page.getByRole('radio', { name: 'inch' }).click();
  await expect(page.getByRole('button', { name: /^Gap at 118 1\/8", fixed/ })).toBeVisible();
  await expect(page.getByText('scale ft', { exact: true })).toBeVisible();
  await page.getByRole('radio', { name: 'Gap' }).click();
  await page.getByRole('textbox', { name: 'At', exact: true }).fill('150 1/2');
  await expect(page.getByText('that is 150 1/2"')).toBeVisible();
  await page.getByRole('button', { name: 'Add the gap' }).click();
  await page.getByRole('button', { name: 'Gap at 150 1/2", tentative' }).click();
  await expect(page.getByLabel('Distance from the start of Main')).toHaveValue('150 1/2 in');
});

test('pointing with a tool chosen uses it there, and opens no panel over it; looking puts it down', async ({
  page,
}) => {
  await openLayout(page, smallValley());
  const gap = (await page.getByRole('button', { name: /^Gap at 980 cm/ }).boundingBox())!;
  const [x, y] = [gap.x + gap.width / 2 + 32, gap.y + gap.height / 2];
  await page.mouse.click(x, y);
  await expect(page.getByRole('complementary', { name: 'Reasoning' })).toContainText('Block FM');
  await page.getByRole('button', { name: 'Close the selection' }).click();
  await page.getByRole('radio', { name: 'Gap', exact: true }).click();
  await page.mouse.click(x, y);
  await expect(page.getByText(/^Added at 10[0-9]{2}(\.5)? cm/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^Gap at 10[0-9]{2}(\.5)? cm, tentative/ })).toHaveCount(1);
  await page.getByRole('button', { name: 'Add the gap' }).click();
  await expect(page.getByRole('complementary', { name: 'Survey' })).toContainText('There is already a gap at');
  await page.keyboard.press('Control+z');
  await page.getByRole('radio', { name: 'Turnout' }).click();
  await page.mouse.click(x, y);
  await expect(page.getByRole('textbox', { name: 'Blade tips at', exact: true })).toHaveValue(/^10[0-9]{2}(\.5)? cm$/);
  const mark = page.locator('main svg[role=group] [data-pointed]');
  await expect(mark).toHaveCount(1);
  await page.getByRole('textbox', { name: 'Blade tips at', exact: true }).fill('1020');
  await expect(mark).toHaveCount(0);
  await choose(page, 'Its track', 'ends blind');
  await page.getByRole('textbox', { name: 'Name of that track' }).fill('Quarry');
  await page.getByRole('textbox', { name: 'Length of that track' }).fill('70 cm');
  await page.getByRole('button', { name: 'Add the turnout' }).click();
  await expect(page.getByRole('button', { name: 'Turnout T11, lies straight' })).toBeVisible();
  await expect(mark).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('button', { name: 'Turnout T11, lies straight' })).toHaveCount(0);
});

test('in Signal a click throws a turnout, and signals over it fall to stop', async ({ page }) => {
  await openLayout(page, smallValley());
  await stage(page, 'Signal');
  await page.getByRole('button', { name: 'Block M2', exact: true }).click();
  await page.getByLabel('Set a resistor axle down here').check();
  await expect(page.getByRole('button', { name: 'Signal M2E shows stop' })).toBeVisible();
  await page.getByRole('button', { name: 'Turnout T6, lies straight' }).click();
  await expect(page.getByRole('button', { name: 'Turnout T6, lies diverging' })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Signal M2E shows (clear|caution)/ })).toBeVisible();
  await page.getByRole('button', { name: 'Close the selection' }).click();
  await expect(page.getByText('An axle stands in M2')).toBeVisible();
  await page.getByRole('button', { name: 'Clear the track' }).click();
  await expect(page.getByRole('button', { name: 'Signal M2E shows stop' })).toBeVisible();
});

test('names are changed, and a name that is taken is refused', async ({ page }) => {
  await openLayout(page, smallValley());
  await page.getByRole('button', { name: 'Block UM', exact: true }).click();
  const name = page.getByRole('textbox', { name: 'Name', exact: true });
  await name.fill('M1');
  await page.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByRole('complementary').getByRole('alert')).toContainText('already a block M1');
  await name.fill('Viaduct');
  await page.getByRole('button', { name: 'Rename' }).click();
  await expect(page.getByText('Block Viaduct').first()).toBeVisible();
  const title = page.getByRole('textbox', { name: 'Name of the layout' });
  await title.fill('Ondrel Vale');
  await title.press('Enter');
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.reload();
  await expect(page).toHaveTitle('Ondrel Vale · Roblik');
});

test('theme and size are remembered', async ({ page }) => {
  await openLayout(page, smallValley());
  await page.getByRole('button', { name: 'Use the dark theme' }).click();
  await choose(page, 'Size of everything', '150 %');
  await page.reload();
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark');
  await expect(page.getByLabel('Size of everything')).toHaveText('150 %');
  await expect(page.getByRole('contentinfo')).toBeInViewport({ ratio: 1 });
  await stage(page, 'Rehearse');
  await expect(page.getByRole('radio', { name: '50×' })).toBeInViewport({ ratio: 1 });
  await expect(page.getByRole('textbox', { name: 'Run number' })).toBeInViewport({ ratio: 1 });
  await expect(page.getByRole('img', { name: /^Time and distance graph/ })).toBeInViewport({ ratio: 0.5 });
  await expect(page.getByLabel('Overview of the whole layout')).toBeInViewport({ ratio: 1 });
});

test('in Rehearse a click on the track throws a turnout, keys play and step, and a refusal says why', async ({
  page,
}) => {
  await openLayout(page, smallValley());
  await stage(page, 'Rehearse');
  await expect(page.getByText('4 trains')).toBeVisible();
  await page.getByRole('button', { name: '+1 s' }).click();
  await page.getByRole('button', { name: '+1 s' }).click();
  for (let i = 0; i < 5; i++) await page.getByRole('button', { name: '+1 s' }).click();
  await page.getByRole('button', { name: /^Turnout T8, lies straight$/ }).click();
  for (let i = 0; i < 3; i++) await page.getByRole('button', { name: '+1 s' }).click();
  await expect(page.getByRole('button', { name: /^Turnout T8, lies diverging/ })).toBeVisible();
  await page.getByRole('button', { name: /^Turnout T6, lies straight, locked$/ }).click();
  await page.getByRole('button', { name: '+1 s' }).click();
  await expect(page.getByText('Last: T6 refuses: it is locked')).toBeVisible();
  await expect(page.getByText('T6 is locked').first()).toBeVisible();
  const clock = page.locator('output.font-mono');
  const before = await clock.textContent();
  await sheet(page).focus();
  await page.keyboard.press('.');
  await expect(clock).not.toHaveText('0:00.0');
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  await expect.poll(() => clock.textContent()).not.toBe(before);
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
});
