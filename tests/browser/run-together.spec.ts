import { expect, type Page, test } from '@playwright/test';
import { EXAMPLES, exampleLayout } from '../../src/demo/examples';
import { openLayout, stage, watchErrors } from './open';

const POST = exampleLayout(EXAMPLES.find(({ name }) => name === 'Nobody at the post')!);

async function comeIn(page: Page, name: string, button: 'Begin a run together' | 'Join'): Promise<void> {
  await page.getByRole('button', { name: 'Run it together with others' }).click();
  await page.getByRole('textbox', { name: 'Your name' }).fill(name);
  await page.getByRole('button', { name: button }).click();
  await expect(page.getByRole('list', { name: 'Who takes part' })).toContainText(`${name} (you)`);
}
const posts = (page: Page) => page.getByRole('list', { name: 'Posts' });
const panel = (page: Page) => page.getByRole('complementary', { name: 'On the line now' });
const trace = async (page: Page) => (await page.getByText(/^Trace /).textContent())!;

test('two browsers share a run: one post each, the same trace, and a lost one leaves its post empty', async ({
  page,
  browser,
}) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, POST);
  await stage(page, 'Rehearse');
  await comeIn(page, 'Ann', 'Begin a run together');
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const bob = await context.newPage();
  await bob.goto(page.url());
  await stage(bob, 'Rehearse');
  await comeIn(bob, 'Bob', 'Join');
  await expect(page.getByRole('list', { name: 'Who takes part' })).toContainText('Bob');

  await page.getByRole('button', { name: 'Take the post of Yard' }).click();
  await expect(posts(bob)).toContainText('Yard: Ann is there');
  const refused = await bob.request.post(`/api/layouts/${id}/shared/commands`, {
    data: { member: 'nobody', command: { kind: 'man', post: 'x', on: true } },
  });
  expect([refused.status(), await refused.json()]).toEqual([
    409,
    { problem: 'You no longer take part in this run.', faults: undefined },
  ]);

  await bob.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Pause', exact: true })).toBeVisible();
  await page.getByRole('button', { name: '+1 s', exact: true }).click();
  await expect(panel(page).getByRole('alert')).toContainText('This run is shared, and goes on for everybody');
  await page.waitForTimeout(1500);
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  await expect(bob.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
  await expect(async () => expect(await trace(bob)).toBe(await trace(page))).toPass();

  await page.getByRole('combobox', { name: 'Hand the post of Yard to' }).click();
  await page.getByRole('option', { name: 'Bob' }).click();
  await expect(posts(bob)).toContainText('Yard: you are there');
  await context.close();
  await expect(posts(page)).toContainText('Yard: nobody there');
  await page.getByRole('button', { name: 'Leave the run' }).click();
  await expect(page.getByRole('button', { name: 'Run it together with others' })).toBeVisible();
  expect(errors).toEqual([]);
});

test('who has changed the layout does not join, and is told why', async ({ page, browser }) => {
  const id = await openLayout(page, POST);
  await stage(page, 'Rehearse');
  await comeIn(page, 'Ann', 'Begin a run together');
  const context = await browser.newContext();
  const bob = await context.newPage();
  const { revision } = (await (await bob.request.get(`/api/layouts/${id}`)).json()) as { revision: number };
  const trains = POST.trains.map((one) => ({ ...one, topSpeedKmh: one.topSpeedKmh + 10 }));
  const saved = await bob.request.put(`/api/layouts/${id}`, { data: { document: { ...POST, trains }, revision } });
  expect(saved.status()).toBe(200);
  await bob.goto(page.url());
  await stage(bob, 'Rehearse');
  await bob.getByRole('button', { name: 'Run it together with others' }).click();
  await bob.getByRole('button', { name: 'Join' }).click();
  await expect(panel(bob).getByRole('alert')).toContainText('This run is of another state of the layout');
  await context.close();
});
