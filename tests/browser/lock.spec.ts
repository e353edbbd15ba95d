import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { newDocument } from '../../src/core/survey';
import { EXAMPLES, exampleLayout } from '../../src/demo/examples';
import { planned } from '../../src/demo/plans';
import { smallValley } from '../../src/demo/small-valley';
import { LOOP, TRAP } from '../unit/locking-plans';
import { openLayout, savedDocument, stage, watchErrors } from './open';

const arrival = () => exampleLayout(EXAMPLES.find(({ id }) => id === 'arrival')!);

test('every route has its row; one that is chosen is drawn, and told with what it excludes and why', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openLayout(page, smallValley());
  await stage(page, 'Lock');
  const table = page.getByRole('table', { name: 'Routes' });
  await expect(table.getByRole('row')).toHaveCount(33);
  const row = table.getByRole('row', { name: /^MW → M2W/ });
  await expect(row).toContainText('T6 R');
  await expect(row).toContainText('MB, M2');
  await expect(page.locator('[data-routes]')).toHaveCount(0);
  await row.getByRole('button', { name: 'MW → M2W' }).press('Enter');
  await expect(page.locator('[data-routes] path').first()).toBeAttached();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await expect(panel).toContainText('T6 is proved to lie diverging');
  await expect(panel).toContainText('M1E → FE needs T6 straight, MW → M2W needs it diverging.');
  await panel.getByRole('button', { name: 'M1E → FE', exact: true }).click();
  await expect(panel).toContainText('M1E to FE');
  await page.getByRole('searchbox', { name: 'Only rows with' }).fill('T6 R');
  await expect(table.getByRole('row')).toHaveCount(3);
  await page.getByRole('button', { name: 'Turnout T6' }).first().click();
  await expect(panel).toContainText('It refuses to move while');
  await stage(page, 'Survey');
  await expect(page.locator('[data-routes]')).toHaveCount(0);
  expect(errors).toEqual([]);
});

test('the table is saved and printed as it stands', async ({ page }) => {
  await openLayout(page, smallValley());
  await stage(page, 'Lock');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  const rows = readFileSync((await download.path())!, 'utf8')
    .trim()
    .split('\r\n');
  expect(rows).toHaveLength(33);
  expect(rows[0]).toBe('Signal,Leads to,Shows,Points,Must be free,Flank,Not with,Keeps,Lets go when');
  expect(rows.find((row) => row.startsWith('MW,M2W,'))).toBe(
    'MW,M2W,"caution, clear",T6 R,"MB, M2",M1E,"ME → M2E, M1E, M2E",4.2 s,T6: MB free',
  );
  await page.getByRole('button', { name: 'Print …' }).click();
  await expect(page.getByRole('dialog').getByRole('row')).toHaveCount(33);
});

test('a turnout is told to wait for arrival in one step, and the table follows', async ({ page }) => {
  const id = await openLayout(page, {
    ...arrival(),
    turnouts: arrival().turnouts.map(({ patterns: _, ...one }) => one),
  });
  await stage(page, 'Lock');
  const row = page.getByRole('table', { name: 'Routes' }).getByRole('row', { name: /^A → M/ });
  await expect(row).not.toContainText('nose at');
  await page
    .getByRole('button', { name: /^Turnout T1/ })
    .first()
    .click();
  await page.getByRole('checkbox', { name: /Stay locked until the train that was cleared/ }).check();
  await expect(row).toContainText('T1: nose at M mark and P free');
  expect((await savedDocument(page, id)).turnouts[0]!.patterns).toEqual(['arrival locking']);
});

test('a run is given up by somebody who looks, and refused under a train that is seen', async ({ page }) => {
  await openLayout(page, arrival());
  await stage(page, 'Rehearse');
  await page
    .getByRole('button', { name: /^Turnout T1/ })
    .first()
    .click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  const second = page.getByRole('button', { name: '+1 s', exact: true });
  const giveUp = panel.getByRole('button', { name: 'Give up the run from A to M' });
  for (let i = 0; i < 8; i++) await second.click();
  await giveUp.click();
  await expect(panel.getByRole('alert')).toHaveText('A train is detected in P.');
  await expect(panel.getByRole('listitem').filter({ hasText: 'has not come to M mark yet' })).toContainText('now');
  /** Once its nose is on the mark there is nothing left to give up. */
  await expect(async () => {
    await second.click();
    await expect(giveUp).toBeHidden({ timeout: 300 });
  }).toPass();
});

test('a layout without a signal says where routes begin', async ({ page }) => {
  const errors = watchErrors(page);
  await openLayout(page, {
    ...newDocument('Bare'),
    lines: smallValley().lines.slice(0, 1),
    referenceLine: smallValley().lines[0]!.id,
  });
  await stage(page, 'Lock');
  await expect(page.getByRole('region', { name: 'Locking table' })).toContainText('A route begins at a signal');
  expect(errors).toEqual([]);
});

test('a route is set by entry and exit: its points are thrown, its signal clears, and one that conflicts is refused by name', async ({
  page,
}) => {
  const d = arrival();
  for (const feature of d.features) if (feature.kind === 'signal') feature.patterns = ['set routes'];
  await openLayout(page, d);
  await stage(page, 'Lock');
  await page.getByRole('table', { name: 'Routes' }).getByRole('button', { name: 'A → S' }).click();
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await expect(panel).toContainText('A to S is set');
  await panel.getByRole('checkbox', { name: 'Somebody sets it' }).check();
  await stage(page, 'Rehearse');
  const second = page.getByRole('button', { name: '+1 s', exact: true });
  for (let i = 0; i < 4; i++) await second.click();
  await page
    .getByRole('button', { name: /^Signal A shows/ })
    .first()
    .click();
  const set = (name: string) => panel.getByRole('button', { name, exact: true });
  await expect(panel).toContainText('Nothing is set from here.');
  await set('Set A to S').press('Enter');
  await page.getByRole('button', { name: 'Play' }).press('Enter');
  await expect(panel).toContainText('A to S is set.');
  await expect(page.getByRole('button', { name: /^Signal A shows caution/ })).toBeVisible();
  await page.getByRole('button', { name: 'Pause' }).click();
  await set('Set A to M').click();
  await expect(panel.getByRole('alert')).toHaveText('A to M is not set: A to S is set, and they conflict.');
  await panel.getByRole('checkbox', { name: 'let it wait while another is set that conflicts' }).check();
  await set('Set A to M').click();
  await expect(panel).toContainText('A to M waits until nothing that conflicts is set.');
  await set('Cancel what is set from A').click();
  await second.click();
  await expect(panel).toContainText('Nothing is set from here.');
  await expect(panel).not.toContainText('A to M waits');
});

test('a side that nothing guards is guarded in one step, or accepted with a reason', async ({ page }) => {
  const id = await openLayout(page, planned({ name: 'Trap', text: TRAP }));
  await stage(page, 'Lock');
  const route = page.getByRole('table', { name: 'Routes' }).getByRole('row', { name: /^A → B/ });
  await expect(route).toContainText('T2 R?');
  await page.getByRole('button', { name: 'Open', exact: true }).click();
  const row = page.getByRole('listitem').filter({ hasText: 'T2 would lead it aside while it lies diverging' });
  await row.getByRole('button', { name: 'Accept it …' }).click();
  await row.getByRole('button', { name: 'Accept', exact: true }).click();
  await expect(row.getByRole('alert')).toHaveText('Write why it may stay as it is.');
  await row.getByRole('textbox').fill('The siding is level');
  await row.getByRole('textbox').press('Enter');
  await expect(row).toContainText('Accepted: The siding is level');
  await expect(page.getByText('1 accepted')).toBeVisible();
  expect((await savedDocument(page, id)).acceptances.map(({ why }) => why)).toEqual(['The siding is level']);
  await row.getByRole('button', { name: 'Accept it no longer' }).click();
  await expect(page.getByText('1 accepted')).toBeHidden();
  await row.getByRole('button', { name: 'Let T2 guard the routes beside it' }).click();
  await expect(row).toHaveCount(0);
  await expect(route).toContainText('T2 R');
  await expect(route).not.toContainText('T2 R?');
});

test('what suits each turnout is tried when somebody asks, and taken in one step', async ({ page }) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, planned({ name: 'Trap', text: TRAP }));
  await stage(page, 'Lock');
  const panel = page.getByRole('complementary', { name: 'Lock' });
  await panel.getByRole('button', { name: 'Look what suits' }).click();
  await panel.getByRole('button', { name: 'What keeps each from moving, as it is' }).click();
  await expect(panel.getByRole('list', { name: 'T3 does not move while' })).toContainText('Y');
  await panel.getByRole('button', { name: 'Let T2 guard the routes beside them' }).click();
  await expect(panel.getByRole('button', { name: 'Look what suits' })).toBeVisible();
  expect((await savedDocument(page, id)).turnouts.find(({ name }) => name === 'T2')!.patterns).toEqual([
    'flank protection',
  ]);
  await panel.getByRole('button', { name: 'Look what suits' }).click();
  await expect(panel.getByRole('status')).toContainText(
    'None of the ways of locking that were tried would mend anything here.',
  );
  expect(errors).toEqual([]);
});

test('how long points stay locked is typed in the table, and is as usual again once the cell is empty', async ({
  page,
}) => {
  const id = await openLayout(page, planned({ name: 'Trap', text: TRAP }));
  await stage(page, 'Lock');
  const row = page.getByRole('table', { name: 'Routes' }).getByRole('row', { name: /^A → B/ });
  const begin = () => row.getByRole('button', { name: /change how long the points from A to B stay locked/ }).click();
  const cell = row.getByRole('textbox', { name: /How long the points from A to B stay locked/ });
  await begin();
  await cell.fill('ever');
  await cell.press('Enter');
  await expect(row.getByRole('alert')).toHaveText('Seconds, from 0 to 600');
  await cell.fill('7.5 s');
  await cell.press('Enter');
  await expect(row).toContainText('7.5 s');
  await expect(row).toContainText('Set by hand; usual is 5 s');
  const settings = async () => (await savedDocument(page, id)).turnouts.find(({ name }) => name === 'T1')!.settings;
  expect(await settings()).toEqual([{ pattern: 'route locking', option: 'releaseMs', value: 7500 }]);
  await begin();
  await cell.press('Escape');
  await expect(cell).toBeHidden();
  await begin();
  await cell.fill('');
  await cell.press('Enter');
  await expect(row).not.toContainText('Set by hand');
  expect(await settings()).toBeUndefined();
});

test('the turnouts of each track stand in a table of their own, and what leads aside is held at a click', async ({
  page,
}) => {
  const loop = planned({ name: 'Loop', text: LOOP });
  loop.turnouts[1]!.throwsWith = loop.turnouts[0]!.id;
  await openLayout(page, loop);
  await stage(page, 'Lock');
  await page.getByRole('radio', { name: 'Turnouts' }).click();
  const table = page.getByRole('table', { name: 'Turnouts on each track' });
  await expect(table.getByRole('row')).toHaveCount(7);
  const row = table.getByRole('row').filter({ hasText: /bound\s*A\s*T1/ });
  await expect(row).toContainText('T1 throws with T2');
  await expect(row).not.toContainText('always stop');
  await row.getByRole('checkbox', { name: /hold whatever leads aside/ }).check();
  await expect(row).toContainText('always stop');
  await page.getByRole('radio', { name: 'Routes' }).click();
  await expect(page.getByRole('table', { name: 'Routes' })).toContainText('never');
});

test('points in blocks and in sections of their own are divided both ways, side by side', async ({ page }) => {
  const d = planned({ name: 'Loop', text: LOOP });
  d.features = d.features.filter(({ kind }) => kind !== 'gap' && kind !== 'signal');
  d.sensors = [];
  d.blocks = [];
  await openLayout(page, d);
  await stage(page, 'Detect');
  await page.getByRole('button', { name: 'Compare both' }).click();
  const table = page.getByRole('table', { name: 'Points in sections of their own and in blocks' });
  await expect(table.getByRole('row', { name: /^Locked while a train waits/ })).toContainText('T1, T2');
  await expect(table.getByRole('row', { name: /^Gaps/ }).getByRole('cell')).toHaveCount(2);
});
