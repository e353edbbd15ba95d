import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { readDocumentText, writeDocumentText } from '../../src/core/survey';
import { EXAMPLES } from '../../src/demo/examples';
import { learningOval } from '../../src/demo/learning-oval';
import { watchErrors } from './open';

test('the first page lists the two demo layouts with their pictures', async ({ page }) => {
  const errors = watchErrors(page);
  await page.goto('/');
  for (const name of ['Ondrel Valley', 'Learning oval'])
    await expect(page.getByRole('link', { name: new RegExp(`^${name}`) })).toBeVisible();
  expect(await page.locator('li svg path').count()).toBeGreaterThan(20);
  expect(errors).toEqual([]);
});

test('a layout is copied, deleted, and brought back by undo', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'More for Learning oval', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Copy' }).click();
  const copy = page.getByRole('link', { name: /^Learning oval \(copy\)/ });
  await expect(copy).toBeVisible();
  await page.getByRole('button', { name: 'More for Learning oval (copy)' }).press('Enter');
  /** A stray Space opens nothing that cannot be taken back: the first entry copies, and deleting is the last. */
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(copy).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(copy).toBeVisible();
});

test('search, order and the form for a new one are near by the Tab key, and find what is asked for', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'More for Learning oval', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Copy' }).click();
  await expect(page.getByRole('link', { name: /^Learning oval \(copy\)/ }).first()).toBeVisible();
  await page.reload();
  const search = page.getByRole('searchbox', { name: 'Find a layout' });
  await expect(search).toBeVisible();
  const met: string[] = [];
  for (let i = 0; i < 5; i++) {
    await page.keyboard.press('Tab');
    met.push(
      await page.evaluate(
        () => document.activeElement!.getAttribute('aria-label') ?? document.activeElement!.textContent!.trim(),
      ),
    );
  }
  expect(met.slice(2)).toEqual(['New layout', 'Find a layout', 'Order']);
  await search.fill('valley');
  await expect(page.getByRole('link', { name: /^Learning oval/ })).toHaveCount(0);
  await expect(page.getByRole('link', { name: /^Ondrel Valley/ }).first()).toBeVisible();
  await search.fill('nothing so called');
  await expect(page.getByText('No layout is called so.')).toBeVisible();
  await page.getByRole('button', { name: 'New layout' }).click();
  await expect(page.getByRole('textbox', { name: 'Name', exact: true })).toBeFocused();
});

test('a layout is begun in a scale of one’s own, by its ratio', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Brick yard');
  await page.getByRole('combobox', { name: 'Scale', exact: true }).click();
  await page.getByRole('option', { name: /^Your own/ }).click();
  const ratio = page.getByRole('textbox', { name: /^Ratio/ });
  await ratio.fill('0');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.locator('form').getByRole('alert')).toHaveText([/from 1 to 1000/, /from 3 to 200/]);
  await ratio.fill('38');
  await page.getByRole('textbox', { name: /^Between the rails/ }).fill('37.5');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText('1:38, rails 37.5 mm')).toBeVisible();
});

test('an export comes back by import as the same document', async ({ page }) => {
  await page.goto('/');
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page
      .getByRole('button', { name: 'More for Ondrel Valley' })
      .first()
      .click()
      .then(() => page.getByRole('menuitem', { name: 'Export' }).click()),
  ]);
  const text = readFileSync((await download.path())!, 'utf8');
  const reading = readDocumentText(text);
  expect(reading.ok).toBe(true);
  await page.getByLabel('Layout file to import').setInputFiles({
    name: 'valley.roblik.json',
    mimeType: 'application/json',
    buffer: Buffer.from(text.replace('"Ondrel Valley"', '"Valley again"')),
  });
  await expect(page.getByRole('link', { name: /^Valley again/ })).toBeVisible();
});

test('a faulty file is refused with each place and remedy, and nothing of it is taken', async ({ page }) => {
  await page.goto('/');
  const before = await page.getByRole('listitem').count();
  const bad = writeDocumentText({ ...learningOval(), name: 'Never taken' })
    .replace('"line": "oval"', '"line": "nowhere"')
    .replace('"scale": "H0"', '"scale": "HX"');
  await page
    .getByLabel('Layout file to import')
    .setInputFiles({ name: 'bad.json', mimeType: 'application/json', buffer: Buffer.from(bad) });
  const alert = page.getByRole('alert').filter({ hasText: 'Nothing was imported' });
  await expect(alert).toContainText('scale');
  await expect(alert).toContainText('must be one of');
  await page
    .getByLabel('Layout file to import')
    .setInputFiles({ name: 'cat.json', mimeType: 'application/json', buffer: Buffer.from('not a layout') });
  await expect(page.getByRole('alert').filter({ hasText: 'Nothing was imported' })).toContainText('It is not JSON');
  await page.reload();
  expect(await page.getByRole('listitem').count()).toBe(before);
});

test('a new layout needs a name, and opens on its one question', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Give the layout a name' })).toBeVisible();
  await page.getByLabel('Name').fill('Attic');
  await page.getByRole('button', { name: 'Make it' }).click();
  await expect(page.getByText('How long is your line? Start at one end of the tape.')).toBeVisible();
});

test('a layout that is not there says so', async ({ page }) => {
  await page.goto('/layouts/nothinghere');
  await expect(page.getByRole('heading', { name: 'There is no such layout' })).toBeVisible();
});

test('security headers, foreign origins, stale saves and oversized bodies', async ({ page, request, baseURL }) => {
  const answer = await page.goto('/');
  expect(answer!.headers()['content-security-policy']).toContain("default-src 'self'");
  expect(answer!.headers()['content-security-policy']).not.toContain('unsafe-eval');
  expect(answer!.headers()['x-content-type-options']).toBe('nosniff');
  const foreign = await request.post('/api/layouts', {
    data: { name: 'x' },
    headers: { Origin: 'http://elsewhere.example' },
  });
  expect(foreign.status()).toBe(403);
  expect((await request.get('/', { headers: { Host: 'elsewhere.example' } })).status()).toBe(403);
  const large = await request.post('/api/layouts/import', {
    data: 'x'.repeat(21 * 1024 * 1024),
    headers: { Origin: baseURL! },
  });
  expect(large.status()).toBe(413);
  const padded = await request.post('/api/layouts/import', {
    data: ' '.repeat(12 * 1024 * 1024) + writeDocumentText(learningOval()),
  });
  expect(padded.status()).toBe(201);
  const { id } = (await (
    await request.post('/api/layouts/import', { data: writeDocumentText(learningOval()) })
  ).json()) as { id: string };
  const save = (revision: number) =>
    request.put(`/api/layouts/${id}`, {
      data: { revision, document: { ...learningOval(), name: `From ${revision}` } },
    });
  expect((await save(1)).status()).toBe(200);
  const stale = await save(1);
  expect(stale.status()).toBe(409);
  expect((await stale.json()).current).toMatchObject({ revision: 2, name: 'From 1' });
  expect((await request.put(`/api/layouts/${id}`, { data: { revision: 2, document: { format: 'x' } } })).status()).toBe(
    422,
  );
  expect(
    (
      await request.post(`/api/layouts/${id}/replay`, {
        data: { document: learningOval(), seed: -1, ticks: 10, commands: [] },
      })
    ).status(),
  ).toBe(400);
});

test('an example is opened as a copy, however often; one that there is not is refused', async ({ page, request }) => {
  const errors = watchErrors(page);
  await page.goto('/');
  const shelf = page.getByRole('region', { name: 'Examples' });
  await expect(shelf.getByRole('listitem')).toHaveCount(EXAMPLES.length);
  await shelf.getByRole('button', { name: 'Open a copy of Reverse loop' }).click();
  await expect(page.getByLabel('Name of the layout')).toHaveValue('Reverse loop');
  await expect(page.getByRole('button', { name: /^Turnout T1/ }).first()).toBeVisible();
  await page.goto('/');
  await expect(page.getByRole('link', { name: /^Reverse loop/ })).toBeVisible();
  expect((await request.post('/api/layouts', { data: { example: 'moon' } })).status()).toBe(400);
  expect(errors).toEqual([]);
});
