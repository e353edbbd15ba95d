import type { Browser, Page } from '@playwright/test';
import { generatedLine } from '../../src/demo/generated';

/** What one typed edit costs the page, in ms. */
interface Edit {
  /** Until the findings at the foot are those of the edited layout. */
  verdict: number;
  /** Until the sheet shows it: the next picture after its drawing has changed. */
  drawn: number;
  /** Of that, what the page waits with nothing to do for the display, which takes up sixty pictures a second. */
  waited: number;
  /** The longest task of the page; 0 when none was longer than 50 ms, which is all that a browser tells. */
  longest: number;
}

/** Submits the form that is open, and watches; run in the page. */
const SUBMIT = `new Promise((done) => {
  let longest = 0;
  const tasks = new PerformanceObserver((list) => {
    for (const { startTime, duration } of list.getEntries()) if (startTime >= from - 1) longest = Math.max(longest, duration);
  });
  tasks.observe({ type: 'longtask' });
  const foot = document.querySelector('footer');
  const sheet = document.querySelector('svg.drawing');
  let verdict = 0;
  let drawn = 0;
  let waited = 0;
  let checking = false;
  const from = performance.now();
  new MutationObserver(() => {
    const now = foot.textContent.includes('Checking');
    if (checking && !now) verdict = performance.now() - from;
    checking ||= now;
  }).observe(foot, { subtree: true, childList: true, characterData: true });
  const drawing = new MutationObserver(() => {
    drawing.disconnect();
    /** What has the highest priority comes next after this task, or after the painting, before anything that the page has still to do. */
    const next = (then) => scheduler.postTask(then, { priority: 'user-blocking' });
    let free = Infinity;
    next(() => { free = performance.now(); });
    requestAnimationFrame((beat) => {
      waited = Math.max(0, beat - free);
      next(() => { drawn = performance.now() - from; });
    });
  });
  drawing.observe(sheet, { subtree: true, childList: true, attributes: true, attributeFilter: ['d'] });
  document.querySelector('form[novalidate]').requestSubmit();
  setTimeout(() => { tasks.disconnect(); done({ verdict, drawn, waited, longest }); }, 2500);
})`;

const WARMING = 2;

/** A page on a long line of so many blocks, once all of it is there. */
export async function openLine(browser: Browser, address: string, blocks: number): Promise<Page> {
  const made = await fetch(`${address}/api/layouts/import`, {
    method: 'POST',
    body: JSON.stringify(generatedLine(blocks)),
  });
  const { id } = (await made.json()) as { id: string };
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(`${address}/layouts/${id}`);
  await page.getByText('Saved', { exact: true }).waitFor();
  return page;
}

/** Gaps typed one after the other into a long line of so many blocks; the first ones only warm the page up. */
async function editsOf(browser: Browser, address: string, blocks: number, times: number): Promise<Edit[]> {
  const page = await openLine(browser, address, blocks);
  await page.getByRole('radio', { name: 'Gap', exact: true }).click();
  const edits: Edit[] = [];
  for (let i = -WARMING; i < times; i++) {
    await page.getByRole('textbox', { name: 'At', exact: true }).fill(`${347 + 7 * i} cm`);
    await page.waitForTimeout(1500);
    const edit = (await page.evaluate(SUBMIT)) as Edit;
    if (edit.verdict === 0) throw new Error('The edit never came to a verdict.');
    if (i >= 0) edits.push(edit);
  }
  await page.context().close();
  return edits;
}

export const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!;

/** An edit of a large layout and of a middling one, as the page feels it. */
export async function editTimes(browser: Browser, address: string) {
  const middling = await editsOf(browser, address, 100, 9);
  const large = await editsOf(browser, address, 1000, 5);
  return {
    verdict: median(large.map(({ verdict }) => verdict)),
    longest: median(large.map(({ longest }) => longest)),
    drawn: median(middling.map(({ drawn, waited }) => drawn - waited)),
    shown: median(middling.map(({ drawn }) => drawn)),
  };
}
