import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { smallValley } from '../../src/demo/small-valley';
import { GUTTER } from '../../src/ui/sheet/sheet-geometry';
import { openLayout } from './open';

/** Positions of gap bars in a drawing, in its own units. */
const barsIn = (svg: string) =>
  [...svg.matchAll(/M(-?[\d.]+) -?[\d.]+V-?[\d.]+" stroke="rgb\(27, 34, 40\)" stroke-width="1\.7"/g)].map((m) =>
    Number(m[1]),
  );

test('the sheet goes to a file true to scale: gaps lie as far apart on paper as on the layout', async ({ page }) => {
  const document = smallValley();
  await openLayout(page, document);
  await page.getByRole('button', { name: /^Print the sheet/ }).click();
  const dialog = page.getByRole('dialog', { name: 'The sheet on paper' });
  for (const [label, ratio] of [
    ['1:10', 10],
    ['1:1, full size', 1],
  ] as const) {
    await dialog.getByRole('radio', { name: label }).check();
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      dialog.getByRole('button', { name: 'Save as SVG' }).click(),
    ]);
    const svg = readFileSync((await download.path())!, 'utf8');
    expect(svg).not.toContain('var(--');
    const [, widthMm, box] = /<svg width="([\d.]+)mm".*?viewBox="0 0 ([\d.]+) /.exec(svg)!;
    const mmPerUnit = Number(widthMm) / Number(box);
    const bars = barsIn(svg).map((x) => (x - GUTTER) * mmPerUnit * ratio);
    const main = document.features
      .filter((f) => f.kind === 'gap' && f.line === 'main')
      .map((f) => f.at.tenthUm / 10_000);
    expect(bars.length).toBeGreaterThanOrEqual(main.length);
    for (const at of main) expect(Math.min(...bars.map((x) => Math.abs(x - at)))).toBeLessThan(0.5);
  }
});

test('printed at 1:10 the pages hold the sheet and a bar of 100 mm', async ({ page }) => {
  await openLayout(page, smallValley());
  await page.getByRole('button', { name: /^Print the sheet/ }).click();
  await page.getByRole('dialog').getByRole('radio', { name: '1:10' }).check();
  const said = await page.getByRole('dialog').locator('output').textContent();
  const pages = Number(/(\d+) pages/.exec(said!)![1]);
  const pdf = await page.pdf({ preferCSSPageSize: true, landscape: true, format: 'A4' });
  const found = [...pdf.toString('latin1').matchAll(/\/Type\s*\/Page[^s]/g)].length;
  expect(found).toBe(pages);
  expect(pages).toBe(6);
});
