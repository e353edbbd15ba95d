import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { signalsOf } from '../../src/core/survey';
import { EXAMPLES, exampleLayout } from '../../src/demo/examples';
import { learningOval } from '../../src/demo/learning-oval';
import { smallValley } from '../../src/demo/small-valley';
import { expectCleanInBothThemes } from './clean';
import { choose, openLayout, savedDocument, stage, watchErrors } from './open';

test.describe.configure({ mode: 'parallel' });
const example = (id: string) => exampleLayout(EXAMPLES.find((one) => one.id === id)!);

test('a system is copied, changed, refused where it cannot be so, used for every signal, and printed as a card', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, learningOval());
  await stage(page, 'Signal');
  await page.getByRole('button', { name: 'Aspect systems and cards' }).click();
  const window = page.getByRole('dialog', { name: 'Aspect systems' });
  await window.getByRole('button', { name: /^Speed signals/ }).click();
  await expect(window).toContainText('Every aspect can be told from every other without colours');
  await expectCleanInBothThemes(page, 'aspect systems');
  await window.getByRole('button', { name: 'Copy to change it' }).click();
  const name = window.getByLabel('Name of the system');
  await expect(name).toHaveValue('Our speed signals');
  await name.fill('Valley signals');
  await name.press('Enter');
  const caution = window.getByRole('list', { name: 'Aspects of Valley signals' }).getByRole('listitem').nth(1);
  const speed = caution.getByLabel('Speed: half, 50 %, 48 km/h');
  await speed.fill('fast');
  await speed.press('Enter');
  await expect(caution.getByRole('alert')).toContainText('Write half, 50 %, 48 km/h or 30 mph.');
  await speed.fill('30 mph');
  await speed.press('Enter');
  await expect(caution.getByRole('alert')).toHaveCount(0);
  const called = caution.getByLabel('Name', { exact: true });
  await called.fill('clear');
  await called.press('Enter');
  await expect(caution.getByRole('alert')).toContainText('means something else in another system');
  await called.fill('slow caution');
  await called.press('Enter');
  await caution.getByLabel('5: yellow triangle').click();
  await caution.getByLabel('4: red square').click();
  await expect(window).toContainText('Without colours nobody can tell apart stop and slow caution');
  await expectCleanInBothThemes(page, 'a system of one’s own');
  await window.getByRole('button', { name: 'Use it for every signal' }).click();
  await window.getByRole('button', { name: 'Card for crews' }).click();
  const card = page.getByRole('dialog', { name: 'Card: Valley signals' });
  await expect(card.getByRole('img', { name: 'Card of Valley signals' })).toContainText('slow caution');
  await expectCleanInBothThemes(page, 'the card');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Escape');
  const { aspectSystems, features } = await savedDocument(page, id);
  expect(aspectSystems.map((one) => one.name)).toEqual(['Valley signals']);
  expect(new Set(signalsOf({ features }).map(({ system }) => system))).toEqual(new Set([aspectSystems[0]!.id]));
  await expect(page.getByRole('region', { name: 'Key' })).toContainText('slow caution');
  expect(errors).toEqual([]);
});

test('signals are proposed with what each is for, one is placed, then the rest as one step', async ({ page }) => {
  const errors = watchErrors(page);
  const valley = smallValley();
  const own = signalsOf(valley);
  valley.features = valley.features.filter(({ kind }) => kind !== 'signal');
  const id = await openLayout(page, valley);
  await stage(page, 'Signal');
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await expect(panel).toContainText(`${own.length} signals would protect every boundary`);
  const list = panel.getByRole('list', { name: 'Proposed signals' });
  await list
    .getByRole('button', { name: /: why$/ })
    .first()
    .click();
  await expect(list).toContainText('Without it: Trains would come from');
  await expectCleanInBothThemes(page, 'proposed signals');
  await list
    .getByRole('button', { name: /^Place a signal at/ })
    .first()
    .click();
  await panel.getByRole('button', { name: `Place these ${own.length - 1}` }).click();
  await expect(panel).toContainText(`Every boundary at which trains can wait has its signal: ${own.length} in all.`);
  const places = (signals: ReturnType<typeof signalsOf>) =>
    signals.map(({ line, at, governs }) => `${line} ${at.tenthUm} ${governs}`).sort();
  expect(places(signalsOf(await savedDocument(page, id)))).toEqual(places(own));
  await page.keyboard.press('Control+z');
  await expect(panel.getByRole('button', { name: `Place these ${own.length - 1}` })).toBeVisible();
  expect(errors).toEqual([]);
});

test('a train is moved along by keys and every head answers; the table of all places is saved; each fault is looked at', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openLayout(page, learningOval());
  await stage(page, 'Signal');
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  const place = panel.getByRole('slider', { name: 'Place of its nose' });
  await place.focus();
  for (let n = 0; n < 4; n++) await place.press('PageUp');
  await expect(panel.getByRole('status').filter({ hasText: 'It is seen in' })).toBeVisible();
  await panel.getByRole('button', { name: 'Take it off' }).click();
  await panel.getByRole('button', { name: 'Show the table' }).click();
  const table = page.getByRole('dialog', { name: 'Every place against every signal' });
  await expect(table.getByRole('img', { name: 'Places against signals' })).toBeVisible();
  await expectCleanInBothThemes(page, 'every place against every signal');
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    table.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  const rows = readFileSync(await csv.path(), 'utf8')
    .trim()
    .split(/\r?\n/);
  expect(rows[0]).toMatch(/^a train stands in,S1,S2/);
  expect(rows).toHaveLength(learningOval().blocks.length + 2);
  const [svg] = await Promise.all([
    page.waitForEvent('download'),
    table.getByRole('button', { name: 'Save as SVG' }).click(),
  ]);
  expect(readFileSync(await svg.path(), 'utf8')).toContain('<svg');
  await page.keyboard.press('Escape');
  await panel.getByRole('button', { name: 'Look at every fault' }).click();
  const faults = page.getByRole('dialog', { name: 'When something fails' });
  await expect(faults.getByRole('table')).toContainText('not said how it is wired');
  await choose(page, 'All detectors, with a broken wire', 'read free: on while occupied');
  await expect(faults.getByRole('status')).toContainText('less restrictive than the truth');
  await expectCleanInBothThemes(page, 'faults');
  await choose(page, 'All detectors, with a broken wire', 'read occupied: on while free');
  /** How the wires of the signals are connected is not said yet, and is not guessed. */
  await expect(faults.getByRole('status')).toHaveText(
    /^\d+ of \d+ outcomes are not known\. None of the others is less restrictive than the truth\.$/,
  );
  await choose(page, 'All signals, with a broken wire', 'stop: energised to clear');
  await expect(faults.getByRole('status')).toHaveText('No outcome is less restrictive than the truth.');
  expect(errors).toEqual([]);
});

test('signals stand on the side of the track that is chosen, and go back by undo', async ({ page }) => {
  const id = await openLayout(page, learningOval());
  await stage(page, 'Signal');
  const plate = page.getByRole('button', { name: /^Signal S1( |$)/ }).first();
  const track = await page
    .getByRole('button', { name: /^Block B1/ })
    .first()
    .boundingBox();
  const below = async () => (await plate.boundingBox())!.y > track!.y;
  expect(await below()).toBe(true);
  await page.getByText('Left of the track').click();
  await expect.poll(below).toBe(false);
  expect((await savedDocument(page, id)).signalSide).toBe('left');
  await page.getByRole('button', { name: 'Undo: Stand signals on the left' }).click();
  await expect.poll(below).toBe(true);
});

test('rules are read in three forms, changed as text, marked, and put back', async ({ page }) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, learningOval());
  await stage(page, 'Signal');
  await page
    .getByRole('button', { name: /^Signal S1( |$)/ })
    .first()
    .focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Its rule as text' }).click();
  await page.getByRole('button', { name: 'Look at its rules, and change them' }).click();
  const window = page.getByRole('dialog', { name: 'The rules of S1' });
  const text = window.getByRole('textbox', { name: 'Rules as text' });
  await expect(text).toContainText('rule proceed.S1 : bool');
  await expect(window.locator('.cm-value').first()).toHaveText(/true|false|stop|caution|clear/);
  await expectCleanInBothThemes(page, 'rules as text');
  await choose(page, 'It may proceed only while also', /^B4 is free$/);
  await window.getByRole('button', { name: 'Add it to the text' }).click();
  await expect(text).toContainText('and not occupied.B4');
  await window.getByRole('button', { name: 'Use these rules' }).click();
  await expect(window).toContainText('1 of');
  await text.click();
  await page.keyboard.press('Control+End');
  await page.keyboard.type(' and occupied.B99');
  await expect(window.getByRole('status').last()).toContainText('There is no “occupied.B99”. Did you mean');
  await expect(window.getByRole('button', { name: 'Use these rules' })).toBeDisabled();
  await window.getByRole('radio', { name: 'In words' }).click();
  await expect(window).toContainText('S1 may show proceed (your own rule');
  await window.getByRole('radio', { name: 'As gates' }).click();
  await expect(window.getByRole('img', { name: 'proceed.S1 as gates' })).toBeVisible();
  await expectCleanInBothThemes(page, 'rules as gates');
  expect((await savedDocument(page, id)).rules).toHaveLength(1);
  await window.getByRole('button', { name: 'Put back what is generated' }).click();
  await expect(window).toContainText('All rules are as generated');
  await page.keyboard.press('Escape');
  expect((await savedDocument(page, id)).rules).toEqual([]);
  expect(errors).toEqual([]);
});

test('a post is taken while trains run, and a signal cleared for one of them', async ({ page }) => {
  const errors = watchErrors(page);
  await openLayout(page, example('post'));
  await stage(page, 'Rehearse');
  const signal = page.getByRole('button', { name: /^Signal Yard1/ }).first();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(signal).toHaveAccessibleName(/shows on sight/);
  await signal.focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Take the post of Yard' }).click();
  await expect(signal).toHaveAccessibleName(/shows stop/);
  const clear = page.getByRole('button', { name: 'Clear Yard1 for one train' });
  await clear.hover();
  await page.mouse.down();
  await expect(signal).toHaveAccessibleName(/shows on sight/);
  await page.mouse.up();
  await page.getByRole('button', { name: 'Leave the post of Yard' }).click();
  await expect(signal).toHaveAccessibleName(/shows on sight/);
  expect(errors).toEqual([]);
});
