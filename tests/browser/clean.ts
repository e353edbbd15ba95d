import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

const PICTURES = process.env.ROBLIK_PICTURES;

/** Fails on any serious accessibility finding in the state that a page shows. The dark theme is another in its colours alone: only these are looked at again. */
export async function expectClean(page: Page, where: string, theme: 'light' | 'dark' = 'light'): Promise<void> {
  /** The page has no frames, and what is in order is not asked for: a quarter of the time. */
  const all = new AxeBuilder({ page }).setLegacyMode(true).options({ resultTypes: ['violations'] });
  const { violations } = await (theme === 'dark' ? all.withRules(['color-contrast']) : all).analyze();
  const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
  expect(
    serious.map((v) => `${where}: ${v.id} ${v.nodes[0]?.html.slice(0, 160)} ${v.nodes[0]?.failureSummary}`),
  ).toEqual([]);
}

/** The same in both themes; with ROBLIK_PICTURES set to a folder, a picture of each goes there. */
export async function expectCleanInBothThemes(page: Page, where: string): Promise<void> {
  for (const theme of ['dark', 'light'] as const) {
    await page.evaluate(`document.documentElement.dataset.theme = '${theme}'`);
    if (PICTURES) await page.screenshot({ path: `${PICTURES}/${where.replaceAll(/\W+/g, '-')}-${theme}.png` });
    await expectClean(page, `${where}, ${theme}`, theme);
  }
}
