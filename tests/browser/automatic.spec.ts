import { expect, type Page, test } from '@playwright/test';
import { type LayoutDocument, signalsOf } from '../../src/core/survey';
import { EXAMPLES, exampleLayout } from '../../src/demo/examples';
import { openLayout, savedDocument, stage, watchErrors } from './open';

const example = (id: string): LayoutDocument => exampleLayout(EXAMPLES.find((one) => one.id === id)!);
function bare(id: string): LayoutDocument {
  const d = example(id);
  for (const thing of [...signalsOf(d), ...d.turnouts]) thing.patterns = undefined;
  return d;
}
const panel = (page: Page) => page.getByRole('complementary', { name: 'Reasoning' });

test('how many trains can run is looked up with progress, and the round of each number is drawn and told', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openLayout(page, example('turns'));
  await stage(page, 'Lock');
  await page.getByRole('radio', { name: 'By itself' }).click();
  await page.getByRole('button', { name: 'Look how many trains can run' }).click();
  const table = page.getByRole('table', { name: 'How many trains can run' });
  await expect(table.getByRole('row')).toHaveCount(5, { timeout: 60_000 });
  await expect(table.getByRole('row', { name: /^1 no/ })).toContainText('6 of 6, after');
  await expect(table.getByRole('row', { name: /^2/ })).toContainText('4 steps');
  await expect(page.getByRole('img', { name: /^A round of \d+ s in 4 steps/ })).toBeVisible();
  await expect(page.getByRole('list', { name: 'Steps of a round' }).getByRole('listitem')).toHaveCount(4);
  await table.getByRole('button', { name: '3' }).click();
  await expect(page.getByRole('list', { name: 'Steps of a round' }).getByRole('listitem')).toHaveCount(12);
  await table.getByRole('button', { name: '1' }).click();
  await expect(page.getByText('One train waits for ever')).toBeVisible();
  await page.getByRole('button', { name: 'How they come to a stand' }).click();
  await expect(page.getByText('passes O1 at').first()).toBeVisible();
  /** Another layout, and what was looked up is gone. */
  await page.getByRole('button', { name: 'Turnout T1' }).first().click();
  await panel(page)
    .getByRole('checkbox', { name: /^Its two roads take turns/ })
    .click();
  await expect(page.getByRole('button', { name: 'Look how many trains can run' })).toBeVisible();
  expect(errors).toEqual([]);
});

test('what could work by itself is tried, rehearsed, and taken in one step', async ({ page }) => {
  const id = await openLayout(page, bare('turns'));
  await stage(page, 'Lock');
  await page.getByRole('button', { name: 'Look what could' }).click();
  const list = page.getByRole('list', { name: 'Proposed automatic working' });
  await expect(list.getByRole('listitem').first()).toContainText('2 of 2 trains run on', { timeout: 60_000 });
  await list.getByRole('button', { name: /^Let T1 work as “takes turns”/ }).click();
  await expect(page.getByRole('heading', { name: 'Worked by the trains' })).toBeVisible();
  await expect.poll(async () => (await savedDocument(page, id)).turnouts[0]!.patterns).toEqual(['takes turns']);
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('heading', { name: 'Worked by the trains' })).toHaveCount(0);
});

test('a throw rule is put together in words, told, and deleted; one that no lock holds is unsafe', async ({ page }) => {
  const id = await openLayout(page, bare('turns'));
  await stage(page, 'Lock');
  await page.getByRole('button', { name: 'Turnout T1' }).first().click();
  const reasoning = panel(page);
  await reasoning.getByRole('button', { name: 'Throw rules' }).click();
  const choose = async (label: string, option: string) => {
    await reasoning.getByRole('combobox', { name: label, exact: true }).click();
    await page.getByRole('option', { name: option, exact: true }).click();
  };
  await choose('When a train comes into', 'Way out');
  await choose('from', 'One');
  await choose('and there is free', 'Two');
  await reasoning.getByRole('button', { name: 'Add the rule' }).click();
  const says = 'When a train comes into Way out from One and Two is free, set T1 diverging.';
  await expect(reasoning.getByText(says)).toBeVisible();
  await expect(
    reasoning.getByText(/^To diverging while: T1 is to lie diverging, since a train came into Way out/),
  ).toBeVisible();
  await reasoning.getByRole('button', { name: 'Add the rule' }).click();
  await expect(page.getByText('There is such a rule already.')).toBeVisible();
  await choose('set it', 'straight');
  await reasoning.getByRole('checkbox', { name: 'whatever locks it' }).click();
  await reasoning.getByRole('button', { name: 'Add the rule' }).click();
  await expect(page.getByText(/1 unsafe/)).toBeVisible();
  await expect.poll(async () => (await savedDocument(page, id)).throwRules.length).toBe(2);
  await reasoning.getByRole('button', { name: /^Delete: .*set T1 straight/ }).click();
  await expect(page.getByText(/1 unsafe/)).toHaveCount(0);
});

test('while trains run it is switched off and on, and given a pulse, or refused with the reason', async ({ page }) => {
  const d = example('turns');
  await openLayout(page, d);
  await stage(page, 'Rehearse');
  await page.getByRole('button', { name: 'Turnout T1' }).first().click();
  const reasoning = panel(page);
  const pulse = reasoning.getByRole('button', { name: 'Give T1 a pulse' });
  await page.getByRole('button', { name: '+1 s' }).click();
  await page.getByRole('button', { name: '+1 s' }).click();
  await pulse.click();
  await expect(reasoning.getByRole('alert')).toHaveText(
    'A train is cleared to leave there. T1 takes a pulse once it has left.',
  );
  await reasoning.getByRole('button', { name: 'Switch T1 off “takes turns”' }).click();
  await page.getByRole('button', { name: '+1 s' }).click();
  await expect(reasoning.getByText(/“takes turns” is switched off: only the road that lies open runs/)).toBeVisible();
  await reasoning.getByRole('button', { name: 'Let T1 work by itself again' }).click();
  await page.getByRole('button', { name: '+1 s' }).click();
  await expect(reasoning.getByText(/^It works by “takes turns”/)).toBeVisible();
});

test('three schemes are drawn up beside the layout as it is, and one is taken as one step', async ({ page }) => {
  const d = example('loops');
  const id = await openLayout(page, d);
  await stage(page, 'Traffic');
  await page.getByRole('button', { name: 'Compare schemes …' }).click();
  const window = page.getByRole('dialog', { name: 'Schemes compared' });
  for (const name of ['Every block end', 'As the areas ask', 'The least'])
    await window.getByRole('checkbox', { name: new RegExp(`^${name}`) }).click();
  const heads = window.getByRole('row', { name: /^Signal heads/ }).getByRole('cell');
  await expect(heads).toHaveCount(4);
  await expect(heads.last()).toHaveText(String(signalsOf(d).length));
  await expect(heads.nth(2)).toHaveText(/^\d+$/);
  const least = Number(await heads.nth(2).textContent());
  expect(Number(await heads.first().textContent())).toBeGreaterThanOrEqual(least);
  await window.getByRole('button', { name: 'Go on with The least' }).click();
  await expect(window).toHaveCount(0);
  await expect.poll(async () => signalsOf(await savedDocument(page, id)).length).toBe(least);
  await page.getByRole('button', { name: 'Undo: Signal the layout anew: the least' }).click();
  await expect.poll(async () => signalsOf(await savedDocument(page, id)).length).toBe(signalsOf(d).length);
});
