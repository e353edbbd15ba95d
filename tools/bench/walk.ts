import type { Browser } from '@playwright/test';
import { median, openLine } from './edit';

/** Says something more of a place in the line under the sheet, and waits for the picture in which it is marked; run in the page. */
const SAY = (text: string) => `new Promise((done) => {
  const field = document.querySelector('[aria-label="Walk along the line"] input');
  const sheet = document.querySelector('svg.drawing');
  const setText = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
  const from = performance.now();
  const drawing = new MutationObserver(() => {
    if (sheet.querySelector('[data-pointed] text')?.textContent !== ${JSON.stringify(`${text} cm`)}) return;
    drawing.disconnect();
    requestAnimationFrame(() => scheduler.postTask(() => done(performance.now() - from), { priority: 'user-blocking' }));
  });
  drawing.observe(sheet, { subtree: true, childList: true, characterData: true });
  setText.call(field, ${JSON.stringify(`gap ${text}`)});
  field.dispatchEvent(new Event('input', { bubbles: true }));
})`;

/** From a letter typed to the picture of the place that it says, in ms. */
async function ghostTime(browser: Browser, address: string, blocks: number): Promise<number> {
  const page = await openLine(browser, address, blocks);
  const times: number[] = [];
  for (let i = 0; i < 13; i++) {
    await page.waitForTimeout(300);
    const time = (await page.evaluate(SAY(String(301 + 7 * i)))) as number;
    if (i > 1) times.push(time);
  }
  await page.context().close();
  return median(times);
}

const ROWS = 2000;

/** From a text pasted to what is said of every row of it, in ms. */
async function pastedTime(browser: Browser, address: string): Promise<number> {
  const page = await openLine(browser, address, 4);
  await page.getByRole('button', { name: 'As text' }).click();
  await page.getByRole('tab', { name: 'Take up a text' }).click();
  const times: number[] = [];
  await page.context().grantPermissions(['clipboard-write']);
  const rows = Array.from({ length: ROWS - 1 }, (_, at) => `gap ${at + 1} cm`).join('\n');
  const field = page.getByRole('textbox', { name: 'Text to take up' });
  for (let i = 0; i < 5; i++) {
    await page.evaluate((text) => navigator.clipboard.writeText(text), `line Long ${ROWS + 10}\n${rows}`);
    await field.focus();
    const from = Date.now();
    await page.keyboard.press('Control+v');
    await page.getByText(`${ROWS} rows: all can be added.`).waitFor();
    times.push(Date.now() - from);
    await field.fill('');
    await page.getByText('Nothing is said yet.').waitFor();
  }
  await page.context().close();
  return median(times);
}

/** The walk as the page feels it. */
export const walkTimes = async (browser: Browser, address: string) => ({
  small: await ghostTime(browser, address, 100),
  large: await ghostTime(browser, address, 1000),
  pasted: await pastedTime(browser, address),
});
