import type { Browser } from '@playwright/test';
import { type Rehearsal, replay, TICK_MS } from '../../src/core/simulation';
import type { LayoutDocument } from '../../src/core/survey';
import { compileSystem } from '../../src/core/system';
import { generatedStation, generatedTraffic } from '../../src/demo/generated';
import { ondrelValley } from '../../src/demo/ondrel-valley';
import { editTimes } from './edit';
import type { Figure } from './figure';
import { walkTimes } from './walk';

/** A figure of the whole application, with its value. */
export type ServedFigure = Figure & { value: number };
const atMost = (name: string, value: number, unit: string, most: number): ServedFigure => ({ name, value, unit, most });
const atLeast = (name: string, value: number, unit: string, least: number): ServedFigure => ({
  name,
  value,
  unit,
  least,
});
const stated = (name: string, value: number, unit: string): ServedFigure => ({ name, value, unit });

/** Counts frames and the longest task of a page for eight seconds; text, since it runs in the page. */
const COUNT_FRAMES = `new Promise((resolve) => {
  let frames = 0;
  let longest = 0;
  new PerformanceObserver((list) => {
    for (const entry of list.getEntries()) longest = Math.max(longest, entry.duration);
  }).observe({ type: 'longtask' });
  const from = performance.now();
  const frame = () => {
    frames += 1;
    if (performance.now() - from < 8000) requestAnimationFrame(frame);
    else resolve({ frames, longest });
  };
  requestAnimationFrame(frame);
})`;

/** Trains in the browser with a full graph: what the page's own thread does for each frame, and its longest task. */
async function trafficFigures(
  browser: Browser,
  address: string,
  name: string,
  document: LayoutDocument,
): Promise<ServedFigure[]> {
  const made = await fetch(`${address}/api/layouts/import`, {
    method: 'POST',
    body: JSON.stringify(document),
  });
  const { id } = (await made.json()) as { id: string };
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(`${address}/layouts/${id}`);
  await page
    .getByRole('navigation', { name: 'Stages' })
    .getByRole('button', { name: /^Rehearse/ })
    .click();
  await page.getByText(`${document.trains.length} trains`, { exact: true }).waitFor();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.getByRole('radio', { name: '50×' }).click();
  await page.waitForTimeout(4000);
  await page.getByRole('radio', { name: '1×', exact: true }).click();
  await page.waitForTimeout(2000);
  const session = await context.newCDPSession(page);
  await session.send('Performance.enable');
  const busy = async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    return metrics.find((m) => m.name === 'TaskDuration')!.value * 1000;
  };
  const before = await busy();
  const seen = (await page.evaluate(COUNT_FRAMES)) as { frames: number; longest: number };
  const perFrame = ((await busy()) - before) / seen.frames;
  await context.close();
  return [
    atMost(`${name}, main-thread work a frame`, perFrame, 'ms', 4),
    stated(`${name}, frames a second`, seen.frames / 8, 'frames'),
    atMost(`${name}, longest task (0: none over 50)`, seen.longest, 'ms', 50),
  ];
}

/** What server and page take, in the built application. */
export async function servedFigures(address: string, browser: Browser): Promise<ServedFigure[]> {
  const hour = 3_600_000 / TICK_MS;
  const document = ondrelValley();
  const runOnServer = async () => {
    const from = performance.now();
    const answer = await fetch(`${address}/api/layouts/any/replay`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ document, seed: 1, ticks: hour, commands: [] }),
    });
    const { hash } = (await answer.json()) as { hash: string };
    return { hash, times: 3_600_000 / (performance.now() - from) };
  };
  await runOnServer();
  const served = await runOnServer();
  const here: Rehearsal = replay(compileSystem(document), 1, hour, []);
  const figures = [atLeast('demo for an hour, by the server’s route', served.times, 'x real time', 10_000)];
  figures.push(
    atLeast('trace of that hour the same as here', served.hash === here.traceHash ? 1 : 0, '(1: the same)', 1),
  );

  const loads: number[] = [];
  let bytes = 0;
  let sheetBytes = 0;
  for (let i = 0; i < 5; i++) {
    const context = await browser.newContext();
    const page = await context.newPage();
    const sizes: Promise<number>[] = [];
    page.on('requestfinished', (request) => {
      if (request.resourceType() === 'script') sizes.push(request.sizes().then((s) => s.responseBodySize));
    });
    const from = performance.now();
    await page.goto(address, { waitUntil: 'load' });
    loads.push(performance.now() - from);
    bytes = (await Promise.all(sizes)).reduce((a, b) => a + b, 0);
    if (i === 4) {
      await page.getByRole('link', { name: /^Ondrel/ }).click();
      await page.getByText('Detection coverage').waitFor();
      sheetBytes = (await Promise.all(sizes)).reduce((a, b) => a + b, 0);
    }
    await context.close();
  }
  const edit = await editTimes(browser, address);
  figures.push(atMost('edit of 1000 blocks, verdict', edit.verdict, 'ms', 100));
  figures.push(atMost('edit of 1000 blocks, longest task (0: none over 50)', edit.longest, 'ms', 50));
  figures.push(
    atMost('typed distance to the redrawn sheet, 100 blocks', edit.drawn, 'ms', 16),
    stated('the same with the wait for the display', edit.shown, 'ms'),
  );
  const walk = await walkTimes(browser, address);
  figures.push(atMost('typed in the walk to the marked place, 100 blocks', walk.small, 'ms', 16));
  figures.push(atMost('the same, 1000 blocks', walk.large, 'ms', 50));
  figures.push(atMost('pasted survey of 2,000 rows, read', walk.pasted, 'ms', 1000));
  figures.push(
    ...(await trafficFigures(browser, address, '20 trains', generatedTraffic(20))),
    ...(await trafficFigures(browser, address, '12 trains in a station of 31 roads', generatedStation(30, 12))),
  );
  figures.push(atMost('first screen, script compressed', bytes / 1000, 'kB', 160));
  figures.push(atMost('first screen, loaded on loopback', loads.sort((a, b) => a - b)[2]!, 'ms', 1000));
  figures.push(stated('list, line sheet and workers, script compressed', sheetBytes / 1000, 'kB'));
  return figures;
}
