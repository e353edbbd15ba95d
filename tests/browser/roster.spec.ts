import { readFileSync } from 'node:fs';
import { expect, type Page, test } from '@playwright/test';
import { learningOval } from '../../src/demo/learning-oval';
import { smallValley } from '../../src/demo/small-valley';
import { openLayout, savedDocument, watchErrors } from './open';

const openRoster = async (page: Page) => {
  await page.getByRole('button', { name: 'Roster and trains …' }).click();
  const roster = page.getByRole('dialog', { name: 'Roster' });
  await expect(roster.getByRole('tab', { name: 'Vehicles' })).toBeVisible();
  return roster;
};
/** As many keys as a practised person presses in a second, and the seconds that a click takes. */
const KEYS_A_SECOND = 4;
const CLICK_S = 3;

test('a newcomer’s train is entered in under a minute, and the finding fits its resistor axles', async ({ page }) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, learningOval());
  let seconds = 0;
  const click = async (name: string) => {
    await page.getByRole('button', { name, exact: true }).click();
    seconds += CLICK_S;
  };
  const type = async (field: string, text: string) => {
    await page.getByRole('textbox', { name: field, exact: true }).fill(text);
    seconds += CLICK_S + text.length / KEYS_A_SECOND;
  };
  await click('Add a train');
  await type('Name', 'Coal');
  await type('Cars behind it', '8');
  await type('With plastic wheels, the last ones of them', '9');
  await click('Put it on the track');
  await expect(page.getByText('They are more than the 8 cars.')).toBeVisible();
  await type('With plastic wheels, the last ones of them', '3');
  await page.getByRole('combobox', { name: 'Stands in' }).click();
  await page.getByRole('option', { name: 'B4' }).click();
  seconds += 2 * CLICK_S;
  await click('Put it on the track');
  await expect(page.getByText('Coal stands in B4.')).toBeVisible();
  console.log(`a newcomer’s train: ${seconds} s`);
  expect(seconds).toBeLessThan(60);

  await page.locator('footer').getByRole('button', { name: 'Open' }).click();
  const finding = page.getByRole('listitem').filter({ hasText: 'of Coal is not seen. A block reads free' });
  await finding.getByRole('button', { name: 'Fit resistor axles to Coal 8' }).click();
  await expect(finding).toHaveCount(0);
  const { vehicles } = await savedDocument(page, id);
  const wheels = (name: string) => vehicles.find((vehicle) => vehicle.name === name)!.axles;
  expect(wheels('Coal 8').map(({ feeds, plastic }) => [feeds, plastic])).toEqual([
    ['resistor', undefined],
    ['resistor', undefined],
  ]);
  expect(wheels('Coal 7').every(({ feeds, plastic }) => feeds === 'nothing' && plastic)).toBe(true);
  expect(wheels('Coal 5').some(({ plastic }) => plastic)).toBe(false);
  expect(errors).toEqual([]);
});

test('cells are changed in place, several rows at once, and what cannot be is told where it is', async ({ page }) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, smallValley());
  const roster = await openRoster(page);
  await roster.getByRole('button', { name: 'Length of Brake van: 12 cm' }).click();
  const field = roster.getByRole('textbox', { name: 'Length of Brake van' });
  await field.fill('long');
  await field.press('Enter');
  await expect(roster.getByRole('alert')).toContainText('I cannot read “long”');
  await field.fill('11 cm');
  await field.press('Enter');
  await expect(roster.getByRole('button', { name: 'Length of Brake van: 11 cm' })).toBeVisible();

  await roster.getByRole('textbox', { name: 'Show only rows with' }).fill('quarry');
  await expect(roster.getByRole('table').getByRole('row')).toHaveCount(3);
  for (const name of ['Empty quarry wagon', 'Empty quarry wagon with a resistor axle'])
    await roster.getByRole('checkbox', { name: `Choose ${name}`, exact: true }).click();
  await roster.getByRole('combobox', { name: 'Change their' }).click();
  await page.getByRole('option', { name: 'Weight' }).click();
  await roster.getByRole('textbox', { name: 'to', exact: true }).fill('heavy');
  await roster.getByRole('button', { name: 'Change all' }).click();
  await expect(roster.getByRole('alert')).toContainText('Empty quarry wagon: “heavy” is no weight');
  await roster.getByRole('textbox', { name: 'to', exact: true }).fill('95');
  await roster.getByRole('button', { name: 'Change all' }).click();
  await expect(roster.getByRole('button', { name: /^Weight of Empty quarry wagon.*: 95 g$/ })).toHaveCount(2);
  await roster.getByRole('button', { name: 'Delete 2 vehicles' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('Quarry empties');
  await page.getByRole('button', { name: 'Understood' }).click();

  await page.keyboard.press('Escape');
  const saved = await savedDocument(page, id);
  expect(saved.vehicles.filter(({ grams }) => grams === 95)).toHaveLength(2);
  expect(saved.vehicles.find(({ name }) => name === 'Brake van')!.length.typed).toBe('11 cm');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  expect((await savedDocument(page, id)).vehicles).toEqual(
    smallValley().vehicles.map((one) => expect.objectContaining(JSON.parse(JSON.stringify(one)))),
  );
  expect(errors).toEqual([]);
});

test('a pasted table is taken up but for its bad rows, and the file that is saved says the same', async ({ page }) => {
  const id = await openLayout(page, learningOval());
  const roster = await openRoster(page);
  await roster.getByRole('tab', { name: 'Take up a table' }).click();
  await roster
    .getByRole('textbox', { name: 'Table to take up' })
    .fill('Name\tKind\tLength\tOwner\nOre 1\tTwo-axle wagon\t10.5\tme\nOre 2\tRocket\t9\tme\nCoach\tCoach\t17 cm\tme');
  await expect(roster.getByText('3 rows: 1 new, 1 changed, 1 cannot be taken up.')).toBeVisible();
  await expect(roster.getByText('Left out, since no column is called so: Owner.')).toBeVisible();
  await expect(roster.getByRole('list', { name: 'Rows that cannot be taken up' })).toContainText(
    '3 Ore 2 | Rocket | 9 | me',
  );
  await roster.getByRole('button', { name: 'Take up the 2 good ones' }).click();
  await expect(roster.getByRole('button', { name: 'Length of Coach: 17 cm' })).toBeVisible();
  const waiting = page.waitForEvent('download');
  await roster.getByRole('button', { name: 'Save as a table (CSV)' }).click();
  const file = readFileSync((await (await waiting).path())!, 'utf8');
  expect(file.split('\r\n')[0]).toBe(
    'Name,Kind,Length,Axles,Driven,Lit,Weight,Magnet,Takes resistors,Least radius,Decoder',
  );
  expect(file).toContain('Ore 1,Two-axle wagon,10.5 cm,2.3 cm; 8.2 cm,no,no,0 g,,yes,,none');
  const before = await savedDocument(page, id);
  await roster.getByRole('tab', { name: 'Take up a table' }).click();
  await roster.getByRole('textbox', { name: 'Table to take up' }).fill(file);
  await roster.getByRole('button', { name: 'Take up all' }).click();
  await expect(roster.getByRole('table')).toBeVisible();
  expect((await savedDocument(page, id)).vehicles).toEqual(before.vehicles);
});

test('a train is put together by pointer and by keys, turned, split and joined', async ({ page }) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, smallValley());
  const roster = await openRoster(page);
  await roster.getByRole('tab', { name: 'Trains' }).click();
  await roster.getByRole('combobox', { name: 'Train', exact: true }).click();
  await page.getByRole('option', { name: 'Skerrin railcar' }).click();
  const train = roster.getByRole('list', { name: 'Vehicles of the train, nose first' });
  const order = () => train.getByRole('button').evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')));
  await roster.getByRole('button', { name: 'Put on Brake van' }).click();
  await expect.poll(order).toEqual(['1: Railcar', '2: Brake van']);

  /** From the roster to before the railcar, by pointer. */
  const grip = roster.getByRole('listitem').filter({ hasText: 'Local coach' }).locator('span').first();
  const from = (await grip.boundingBox())!;
  const to = (await train.getByRole('button', { name: '1: Railcar' }).boundingBox())!;
  await page.mouse.move(from.x + 8, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(from.x + 30, from.y - 20, { steps: 4 });
  await page.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 12 });
  await page.mouse.up();
  await expect.poll(order).toEqual(['1: Local coach', '2: Railcar', '3: Brake van']);

  /** By keys: lifted, moved on by one, set down. */
  await train.getByRole('button', { name: '1: Local coach' }).focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(150);
  await page.keyboard.press('ArrowRight');
  await page.waitForTimeout(150);
  await page.keyboard.press('Space');
  await expect.poll(order).toEqual(['1: Railcar', '2: Local coach', '3: Brake van']);

  await train.getByRole('button', { name: '3: Brake van' }).click();
  await roster.getByRole('button', { name: 'Turn it', exact: true }).click();
  await expect.poll(order).toEqual(['1: Railcar', '2: Local coach', '3: Brake van, turned']);
  await train.getByRole('button', { name: '1: Railcar' }).click();
  await roster.getByRole('button', { name: 'Split behind it' }).click();
  await expect.poll(order).toEqual(['1: Railcar']);
  await roster.getByRole('combobox', { name: 'Put behind it' }).click();
  await page.getByRole('option', { name: 'Skerrin railcar rear 1' }).click();
  await expect.poll(order).toEqual(['1: Railcar', '2: Local coach', '3: Brake van, turned']);
  await roster.getByRole('button', { name: 'Turn all of it' }).click();
  await expect.poll(order).toEqual(['1: Brake van', '2: Local coach, turned', '3: Railcar, turned']);
  const saved = (await savedDocument(page, id)).trains.find(({ name }) => name === 'Skerrin railcar')!;
  expect([saved.vehicles, saved.turned]).toEqual([
    ['v-van', 'v-trailer', 'v-railcar'],
    [1, 2],
  ]);

  await roster.getByRole('combobox', { name: 'Train', exact: true }).click();
  await page.getByRole('option', { name: 'a new train …' }).click();
  await roster.getByRole('button', { name: 'Put on Tank engine' }).click();
  await roster.getByRole('button', { name: 'Put on Local coach' }).click();
  await expect.poll(order).toEqual(['1: Tank engine', '2: Local coach']);
  expect(errors).toEqual([]);
});
