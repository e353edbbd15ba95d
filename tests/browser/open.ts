import { expect, type Page } from '@playwright/test';
import { type LayoutDocument, writeDocumentText } from '../../src/core/survey';

/** Puts a layout in by the import route and opens it; returns its id. */
export async function openLayout(page: Page, document: LayoutDocument): Promise<string> {
  const answer = await page.request.post('/api/layouts/import', {
    data: writeDocumentText(document),
    maxRetries: 2,
    headers: { 'Content-Type': 'application/json' },
  });
  expect(answer.status()).toBe(201);
  const { id } = (await answer.json()) as { id: string };
  await page.goto(`/layouts/${id}`);
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await expect(page.getByRole('contentinfo')).not.toContainText('Checking');
  return id;
}

export const stage = (page: Page, name: 'Survey' | 'Traffic' | 'Detect' | 'Signal' | 'Lock' | 'Prove' | 'Rehearse') =>
  page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('button', { name: new RegExp(`^${name}`) })
    .click();

/** Fails the test on any error the page reports. */
export function watchErrors(page: Page, errors: string[] = []): string[] {
  page.on('pageerror', (error) => errors.push(error.message));
  page.on('console', (message) => {
    if (message.type() === 'error' && !/status of 4\d\d|status of 503/.test(message.text()))
      errors.push(message.text());
  });
  return errors;
}

/** Chooses from a list that opens, by what the choice says. */
export async function choose(page: Page, list: string | RegExp, says: string | RegExp): Promise<void> {
  await page.getByRole('combobox', { name: list }).click();
  await page.getByRole('option', typeof says === 'string' ? { name: says, exact: true } : { name: says }).click();
}

/** Adds a thing in Survey by typing its distance. */
export async function addAt(page: Page, what: 'Gap' | 'Block mark' | 'Signal' | 'Detector', at: string): Promise<void> {
  await page.getByRole('radio', { name: what, exact: true }).click();
  await page.getByRole('textbox', { name: 'At', exact: true }).fill(at);
  await page.getByRole('button', { name: `Add the ${what.toLowerCase()}` }).click();
}

/** What the server has of a layout, once all is saved. */
export async function savedDocument(page: Page, id: string): Promise<LayoutDocument> {
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  const answer = await page.request.get(`/api/layouts/${id}`, { maxRetries: 2 });
  return ((await answer.json()) as { document: LayoutDocument }).document;
}
