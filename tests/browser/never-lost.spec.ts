import { type BrowserContext, expect, type Page, test } from '@playwright/test';
import { cm } from '../../src/core/measure';
import { applyEdit, type LayoutDocument } from '../../src/core/survey';
import { learningOval } from '../../src/demo/learning-oval';
import { journalsOf, replays } from './journals';
import { addAt, openLayout, watchErrors } from './open';

const header = (page: Page) => page.getByRole('banner');
const says = (page: Page, text: string) => expect(header(page).getByRole('status')).toHaveText(text);
async function addGap(page: Page, at: string): Promise<void> {
  await addAt(page, 'Gap', at);
  await expect(gap(page, at)).toBeVisible();
}
const gap = (page: Page, at: string) => page.getByRole('button', { name: `Gap at ${at} cm, tentative` });
const dialog = (page: Page, name: string) => page.getByRole('dialog', { name });

/** One layout in two windows: the first has saved gaps at those places, the second has one at 200 cm that is not saved. */
async function twoThatDisagree(context: BrowserContext, ...at: string[]) {
  const first = await context.newPage();
  const id = await openLayout(first, learningOval());
  const second = await context.newPage();
  await second.goto(`/layouts/${id}`);
  await says(second, 'Saved');
  for (const one of at) await addGap(first, one);
  await says(first, 'Saved');
  await addGap(second, '200');
  return { first, second, id };
}

test('undo and redo reach back across a reload', async ({ page }) => {
  const errors = watchErrors(page);
  await openLayout(page, learningOval());
  for (const at of ['100', '101', '102']) await addGap(page, at);
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo: Add gap at 102 cm' }).click();
  await says(page, 'Saved');
  await page.reload();
  await expect(gap(page, '101')).toBeVisible();
  await page.getByRole('button', { name: 'Redo: Add gap at 102 cm' }).click();
  await expect(gap(page, '102')).toBeVisible();
  for (const at of ['102', '101', '100']) await page.getByRole('button', { name: `Undo: Add gap at ${at} cm` }).click();
  await expect(page.getByRole('button', { name: 'Nothing to undo' })).toBeDisabled();
  await says(page, 'Saved');
  expect(errors).toEqual([]);
});

test('with the database away edits are kept through a reload and a closed window, and saved when it is back', async ({
  context,
}) => {
  const page = await context.newPage();
  const id = await openLayout(page, learningOval());
  const away = (route: import('@playwright/test').Route) =>
    route.fulfill({ status: 503, json: { problem: 'The database does not answer.' } });
  await context.route('**/api/layouts/*', away);
  await addGap(page, '100');
  await says(page, 'Not saved');
  await expect(page.getByRole('alert').first()).toContainText('kept in this browser');
  await page.reload();
  await expect(gap(page, '100')).toBeVisible();
  await says(page, 'Not saved');
  await addGap(page, '110');
  await says(page, 'Not saved');
  await page.close();
  const later = await context.newPage();
  await later.goto(`/layouts/${id}`);
  await expect(gap(later, '110')).toBeVisible();
  await says(later, 'Not saved');
  await context.unroute('**/api/layouts/*', away);
  await says(later, 'Saved');
  const stored = await (await later.request.get(`/api/layouts/${id}`)).json();
  expect(JSON.stringify(stored.document)).toContain('110');
});

test('what an earlier version of the page had kept is taken up, saved, and kept on', async ({ context }) => {
  const page = await context.newPage();
  const errors = watchErrors(page);
  const id = await openLayout(page, learningOval());
  const answer = await page.request.get(`/api/layouts/${id}`);
  const { document: base, revision } = (await answer.json()) as { document: LayoutDocument; revision: number };
  const done = applyEdit(base, { do: 'add cut', kind: 'gap', line: base.lines[0]!.id, at: cm(123) });
  if (!done.ok) throw new Error(done.problem);
  const { document, ...step } = done.change;
  await page.goto('/');
  /** The second version: the document stood in the journal itself. */
  await page.evaluate(
    async ([id, base, document, step, revision]) => {
      const over = (asked: IDBRequest) =>
        new Promise<void>((resolve, reject) => {
          asked.onsuccess = () => resolve();
          asked.onerror = () => reject(asked.error);
        });
      await over(indexedDB.deleteDatabase('roblik'));
      const opening = indexedDB.open('roblik', 2);
      opening.onupgradeneeded = () => {
        opening.result.createObjectStore('journals').createIndex('layout', 'layout');
        opening.result.createObjectStore('steps');
        opening.result.createObjectStore('bases');
      };
      await over(opening);
      const stores = opening.result.transaction(['journals', 'steps', 'bases'], 'readwrite');
      const kept = {
        layout: id,
        tab: 'before',
        position: 1,
        total: 1,
        at: Date.now(),
        document,
        revision,
        unsaved: true,
      };
      await over(stores.objectStore('journals').put(kept, `${id} before`));
      await over(stores.objectStore('steps').put(step, [`${id} before`, 0]));
      await over(stores.objectStore('bases').put(base, `${id} before`));
      opening.result.close();
      sessionStorage.clear();
    },
    [id, base, document, step, revision] as const,
  );
  await page.goto(`/layouts/${id}`);
  await expect(gap(page, '123')).toBeVisible();
  await says(page, 'Saved');
  await page.reload();
  await page.getByRole('button', { name: 'Undo: Add gap at 123 cm' }).click();
  await expect(gap(page, '123')).toHaveCount(0);
  await says(page, 'Saved');
  const [journal] = await journalsOf(page, id);
  expect(journal!.document).toEqual(base);
  expect(errors).toEqual([]);
});

test('the second of two windows is told, sees both versions, and keeps what it chooses', async ({ context }) => {
  const { first, second } = await twoThatDisagree(context, '100', '105');
  const window = dialog(second, 'Changed in another window too');
  await expect(window).toBeVisible();
  await expect(window.getByRole('img', { name: 'The other window' })).toBeVisible();
  await expect(window.getByRole('img', { name: 'This window' })).toBeVisible();
  const keep = (what: string, whose: string) => window.getByRole('radio', { name: `${what}: keep ${whose}` });
  await expect(keep('Gap at 200 cm added', 'this window’s')).toBeChecked();
  await expect(keep('Gap at 100 cm removed', 'the other’s')).toBeChecked();
  await keep('Gap at 105 cm removed', 'this window’s').check();
  await window.getByRole('button', { name: 'Keep what is chosen' }).click();
  await says(second, 'Saved');
  await expect(gap(second, '200')).toBeVisible();
  await expect(gap(second, '100')).toBeVisible();
  await expect(gap(second, '105')).toHaveCount(0);
  await second.getByRole('button', { name: 'History' }).click();
  const versions = dialog(second, 'History').getByRole('list', { name: 'Kept versions' });
  await expect(versions).toContainText('The other window’s version');
  await expect(versions).toContainText('This window’s version, not chosen');
  await addGap(first, '305');
  await dialog(first, 'Changed in another window too')
    .getByRole('button', { name: 'Take the other window’s whole version' })
    .click();
  await says(first, 'Saved');
  await expect(gap(first, '305')).toHaveCount(0);
  await expect(gap(first, '200')).toBeVisible();
});

test('what another window saves just while its whole version is taken leaves no way back that does not fit', async ({
  context,
}) => {
  const { first, second, id } = await twoThatDisagree(context, '100');
  const take = dialog(second, 'Changed in another window too').getByRole('button', {
    name: 'Take the other window’s whole version',
  });
  await expect(take).toBeVisible();
  let goOn = () => {};
  const until = new Promise<void>((resolve) => {
    goOn = resolve;
  });
  await second.route(`**/api/layouts/${id}`, async (route) => {
    if (route.request().method() === 'GET') await until;
    await route.continue();
  });
  const looks = second.waitForRequest((one) => one.method() === 'GET' && one.url().endsWith(id));
  await take.click();
  await looks;
  await first.getByLabel('Name of the layout').fill('Meanwhile');
  await first.keyboard.press('Enter');
  await expect(first.getByRole('button', { name: 'Undo: Name it Meanwhile' })).toBeVisible();
  await first.waitForTimeout(1500);
  const theirs = dialog(first, 'Changed in another window too').getByRole('button', { name: /^Keep this window/ });
  if ((await theirs.count()) > 0) await theirs.click();
  await says(first, 'Saved');
  goOn();
  await expect(second.getByLabel('Name of the layout')).toHaveValue('Meanwhile');
  await says(second, 'Saved');
  const kept = await journalsOf(second, id);
  expect(kept).toHaveLength(2);
  for (const one of kept) replays(one);
});

test('what another window saves while a conflict is open is not overwritten: it is asked anew', async ({ context }) => {
  const { first, second, id } = await twoThatDisagree(context, '100');
  const asked = dialog(second, 'Changed in another window too');
  const take = asked.getByRole('button', { name: 'Take the other window’s whole version' });
  await expect(take).toBeVisible();
  await addGap(first, '110');
  await says(first, 'Saved');
  await take.click();
  await expect(asked.getByRole('alert')).toContainText('has saved once more');
  await expect(asked.getByText('Gap at 110 cm removed')).toBeVisible();
  await take.click();
  await says(second, 'Saved');
  await expect(gap(second, '110')).toBeVisible();
  await expect(gap(second, '200')).toHaveCount(0);
  await second.keyboard.press('Control+z');
  await expect(gap(second, '200')).toBeVisible();
  await says(second, 'Saved');
  for (const one of await journalsOf(second, id)) replays(one);
});

test('versions are kept by name, compared as drawings and in words, and gone back to', async ({ page }) => {
  await openLayout(page, learningOval());
  await page.getByRole('button', { name: 'History' }).click();
  const window = dialog(page, 'History');
  await window.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(window.getByRole('alert')).toHaveText('Type a name for this version first.');
  await window.getByLabel('Keep the present version as').fill('Before the cuts');
  await window.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(window.getByRole('list', { name: 'Kept versions' })).toContainText('Before the cuts');
  await expect(window.getByText('The two are the same.')).toBeVisible();
  await page.keyboard.press('Escape');
  await addGap(page, '100');
  await says(page, 'Saved');
  await page.getByRole('button', { name: 'History' }).click();
  await window.getByRole('button', { name: /Before the cuts/ }).click();
  await expect(window.getByText('Gap at 100 cm added')).toBeVisible();
  await window.getByRole('button', { name: 'Go back to this version' }).click();
  await expect(window).toHaveCount(0);
  await expect(gap(page, '100')).toHaveCount(0);
  await says(page, 'Saved');
  await page.getByRole('button', { name: /^Undo: Go back to Before the cuts/ }).click();
  await expect(gap(page, '100')).toBeVisible();
});
