import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, type Page, test } from '@playwright/test';
import { cm } from '../../src/core/measure';
import { type LayoutDocument, newDocument } from '../../src/core/survey';
import { gap } from '../../src/demo/build';
import { generatedLine } from '../../src/demo/generated';
import { learningOval } from '../../src/demo/learning-oval';
import { ondrelValley } from '../../src/demo/ondrel-valley';
import { smallValley } from '../../src/demo/small-valley';
import { randomLine } from '../unit/random-line';
import { choose, openLayout, savedDocument, stage, watchErrors } from './open';

const sheet = (page: Page) => page.getByRole('group', { name: /^Line sheet of/ });

/** Pairs of texts on the sheet whose boxes overlap by more than a hair. */
const overlaps = (page: Page) =>
  page.evaluate(() => {
    const svg = document.querySelector('main svg[role=group]')!;
    const frame = svg.parentElement!.getBoundingClientRect();
    const boxes = [...svg.querySelectorAll('text')]
      .map((text) => ({ says: text.textContent ?? '', box: text.getBoundingClientRect() }))
      .filter(({ box }) => box.width > 0 && box.right > frame.left && box.left < frame.right);
    const hair = 1.5;
    return boxes.flatMap((a, i) =>
      boxes
        .slice(i + 1)
        .filter(
          (b) =>
            Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left) > hair &&
            Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top) > 4,
        )
        .map((b) => `${a.says} / ${b.says}`),
    );
  });

const layouts: [string, () => LayoutDocument][] = [
  ['the demo', ondrelValley],
  ['the demo as it was first built', smallValley],
  ...Array.from({ length: 10 }, (_, i): [string, () => LayoutDocument] => [
    `generated layout ${i + 1}`,
    () => randomLine(i + 1),
  ]),
];
for (const [name, make] of layouts)
  test(`labels never overlap at three zooms: ${name}`, async ({ page }) => {
    await openLayout(page, make());
    await page.evaluate(() => document.fonts.ready);
    await sheet(page).focus();
    await page.keyboard.press('0');
    expect(await overlaps(page)).toEqual([]);
    for (let zoom = 0; zoom < 2; zoom++) {
      for (let i = 0; i < 3; i++) await page.keyboard.press('+');
      expect(await overlaps(page)).toEqual([]);
    }
  });

test('a line that is drawn cut leads to where it goes on, by key and by click', async ({ page }) => {
  const errors = watchErrors(page);
  await openLayout(page, smallValley());
  await sheet(page).focus();
  await page.keyboard.press('0');
  for (let i = 0; i < 5; i++) await page.keyboard.press('+');
  await page.keyboard.press('Home');
  const marks = page.getByRole('button', { name: 'Main goes on at its other end' });
  await expect(marks).toHaveCount(1);
  await expect(marks).toContainText('from 1180');
  await marks.focus();
  await page.keyboard.press('Enter');
  await expect(marks).toContainText('to 0');
  await expect(marks).toBeFocused();
  await expect(page.locator('[data-pointed]')).toContainText('1180 cm');
  await marks.click();
  await expect(marks).toContainText('from 1180');
  expect(errors).toEqual([]);
});

test('Tab goes along the line through every thing, brings it in, and Enter selects it', async ({ page }) => {
  const errors = watchErrors(page);
  await openLayout(page, smallValley());
  await sheet(page).focus();
  const all = await sheet(page)
    .getByRole('button')
    .evaluateAll((things) => things.map((thing) => thing.getAttribute('aria-label') ?? ''));
  expect(all.length).toBeGreaterThan(70);
  for (let i = 0; i < 6; i++) await page.keyboard.press('+');
  await page.keyboard.press('Home');
  const seen = new Set<string>();
  for (;;) {
    await page.keyboard.press('Tab');
    const here = page.locator('svg :focus');
    if ((await here.count()) === 0) break;
    seen.add((await here.getAttribute('aria-label')) ?? '');
    const box = (await here.boundingBox())!;
    const middle = box.x + box.width / 2;
    expect(middle).toBeGreaterThan(150);
    expect(middle).toBeLessThan(1000);
  }
  expect(all.filter((label) => !seen.has(label))).toEqual([]);
  await page.keyboard.press('Shift+Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('complementary', { name: 'Reasoning' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(sheet(page)).toBeFocused();
  expect(errors).toEqual([]);
});

test('with Shift the distance and the running time to a second thing are measured', async ({ page }) => {
  await openLayout(page, smallValley());
  const first = page.getByRole('button', { name: /^Gap at 300 cm/ });
  await first.focus();
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: /^Gap at 470 cm/ }).focus();
  await page.keyboard.press('Shift+Enter');
  const panel = page.getByRole('complementary', { name: 'Between two things' });
  await expect(panel).toContainText('Gap at 300 cm to Gap at 470 cm: 170 cm');
  await expect(panel).toContainText('1700 mm ÷');
});

test('pinching with two fingers and turning the wheel zoom about where they are', async ({ page }) => {
  await openLayout(page, learningOval());
  const gap = page.getByRole('button', { name: /^Gap at 300 cm/ });
  const middle = async () => {
    const box = (await gap.boundingBox())!;
    return box.x + box.width / 2;
  };
  const before = await middle();
  const box = (await gap.boundingBox())!;
  await page.mouse.move(before, box.y + 60);
  await page.mouse.wheel(0, -400);
  await expect.poll(middle).toBeCloseTo(before, -1);
  const oval = async () => {
    const [a, b] = [/^Gap at 180 cm/, /^Gap at 300 cm/].map((name) => page.getByRole('button', { name }));
    return (await b!.boundingBox())!.x - (await a!.boundingBox())!.x;
  };
  const apart = await oval();
  const y = box.y + 80;
  await sheet(page).evaluate(
    (svg, [x, at]) => {
      const send = (type: string, id: number, clientX: number) =>
        svg.dispatchEvent(
          new PointerEvent(type, {
            pointerId: id,
            clientX,
            clientY: at,
            buttons: 1,
            bubbles: true,
            pointerType: 'touch',
          }),
        );
      svg.setPointerCapture = () => {};
      send('pointerdown', 1, x! - 40);
      send('pointerdown', 2, x! + 40);
      for (let i = 1; i <= 10; i++) {
        send('pointermove', 1, x! - 40 - 4 * i);
        send('pointermove', 2, x! + 40 + 4 * i);
      }
      send('pointerup', 1, x! - 80);
      send('pointerup', 2, x! + 80);
    },
    [before, y] as const,
  );
  await expect.poll(oval).toBeGreaterThan(apart * 1.6);
});

test('anything is found by a few letters, single letters can be switched off, F6 goes from part to part', async ({
  page,
}) => {
  await openLayout(page, smallValley());
  await page.keyboard.press('Control+k');
  await page.keyboard.type('block m2');
  await page.keyboard.press('Enter');
  await expect(page.getByText('M2, 184 cm')).toBeVisible();
  await sheet(page).focus();
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await keys.getByLabel('Single letters act while the sheet has the focus').uncheck();
  await page.keyboard.press('Escape');
  await sheet(page).focus();
  await page.keyboard.press('u');
  await expect(page.getByRole('radio', { name: 'cm', exact: true })).toBeChecked();
  await page.reload();
  await sheet(page).focus();
  await page.keyboard.press('u');
  await expect(page.getByRole('radio', { name: 'cm', exact: true })).toBeChecked();
  await page.keyboard.press('F6');
  await expect(page.getByRole('textbox', { name: /^Along/ })).toBeFocused();
  await page.keyboard.press('F6');
  await expect(page.getByRole('complementary').locator(':focus')).toHaveCount(1);
  await page.keyboard.press('Shift+F6');
  await page.keyboard.press('Shift+F6');
  await expect(sheet(page)).toBeFocused();
});

test('a rehearsal is wound back to an event, run on differently, and a train is dragged to a block', async ({
  page,
}) => {
  const errors = watchErrors(page);
  await openLayout(page, smallValley());
  await stage(page, 'Rehearse');
  await page.getByRole('radio', { name: '50×' }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  const events = page.getByRole('list', { name: 'Events, newest first' }).getByRole('button');
  await expect(events.filter({ hasText: 'Morning stopper passes FE' }).first()).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  const passing = events.filter({ hasText: 'Morning stopper passes FE' });
  const moment = (await passing.first().locator('span').first().textContent())!;
  const event = passing.filter({ hasText: moment }).first();
  const goThere = async () => {
    await event.click();
    await expect(page.locator('main output').first()).toHaveText(moment);
  };
  await goThere();
  const trace = page.getByText(/^Trace [0-9a-f]{16}$/);
  const there = (await trace.textContent())!;
  await page.getByRole('button', { name: '+1 s' }).click();
  await expect(trace).not.toHaveText(there);
  await goThere();
  await expect(trace).toHaveText(there);
  await page.getByLabel('aspects').check();
  await expect(events.filter({ hasText: 'FE shows' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Start again' }).click();
  const train = page.getByRole('button', { name: 'Train Skerrin railcar' });
  /** Back where it began, and drawn there. */
  await expect(page.locator('main output').first()).toHaveText('0:00.0');
  await expect(trace).not.toHaveText(there);
  await expect(events).toHaveCount(0);
  const from = (await train.boundingBox())!;
  const to = (await page.getByRole('button', { name: /^Block SB/ }).boundingBox())!;
  await page.mouse.move(from.x + from.width / 2, from.y + from.height / 2);
  await page.mouse.down();
  await page.mouse.move(to.x + 4, to.y + to.height / 2, { steps: 6 });
  await expect(page.getByText('Send it to SB')).toBeVisible();
  await page.mouse.up();
  /** Only the newest events are on the page: not so many that this one is gone before it is looked for. */
  await page.getByLabel('aspects').uncheck();
  await page.getByRole('radio', { name: '5×' }).click();
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await expect(events.filter({ hasText: 'Skerrin railcar stands' }).first()).toBeVisible({ timeout: 60_000 });
  await page.getByRole('button', { name: 'Pause', exact: true }).click();
  await choose(page, 'Send Skerrin railcar to a block', 'SK2');
  await expect(page.getByText('SK2 does not lie ahead of Skerrin railcar. Turn it back first')).toBeVisible();
  expect(errors).toEqual([]);
});

test('runs are kept by name, run again to the same trace, and compared', async ({ page }) => {
  await openLayout(page, learningOval());
  await stage(page, 'Rehearse');
  const keep = async (name: string) => {
    await page.getByRole('button', { name: 'Runs' }).click();
    const dialog = page.getByRole('dialog', { name: 'Runs' });
    await dialog.getByLabel('Keep the present run as').fill(name);
    await dialog.getByRole('button', { name: 'Keep', exact: true }).click();
    await expect(dialog.getByLabel(name)).toBeVisible();
    return dialog;
  };
  for (let i = 0; i < 8; i++) await page.getByRole('button', { name: '+1 s' }).click();
  await keep('As it comes');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Halt' }).first().click();
  for (let i = 0; i < 8; i++) await page.getByRole('button', { name: '+1 s' }).click();
  const dialog = await keep('Halted');
  await dialog.getByRole('button', { name: 'Run again' }).first().click();
  await expect(dialog.getByText(/“Halted” ran again to the very same trace/)).toBeVisible();
  await dialog.getByLabel('As it comes').check();
  await dialog.getByLabel('Halted').check();
  await dialog.getByRole('button', { name: 'Compare the two chosen' }).click();
  await expect(dialog.getByText(/They part at|they are the same/)).toBeVisible();
  await expect(dialog.getByRole('row', { name: /^Red train/ })).toBeVisible();
});

test('runs of a layout that changed between them are compared with a warning; one that runs otherwise is told', async ({
  page,
}) => {
  const now = learningOval();
  const before = { ...now, features: now.features.filter((f) => f.id !== 's-S2') };
  const id = await openLayout(page, now);
  for (const [name, document] of [
    ['Before', before],
    ['After', now],
  ] as const) {
    const run = { name, document, seed: 1, ticks: 500, commands: [], hash: '0123456789abcdef' };
    expect((await page.request.post(`/api/layouts/${id}/runs`, { data: run })).status()).toBe(201);
  }
  await stage(page, 'Rehearse');
  await page.getByRole('button', { name: 'Runs' }).click();
  const dialog = page.getByRole('dialog', { name: 'Runs' });
  for (const name of ['Before', 'After']) await dialog.getByLabel(name).check();
  await dialog.getByRole('button', { name: 'Compare the two chosen' }).click();
  await expect(dialog.getByText('The layout was changed between the two, in 1 thing.')).toBeVisible();
  const kept = dialog.getByRole('listitem').filter({ hasText: 'Before' });
  await kept.getByRole('button', { name: 'Run again' }).click();
  await expect(dialog.getByText(/“Before” ran differently this time: .* instead of 0123456789abcdef/)).toBeVisible();
  await expect(dialog.getByRole('alert')).toContainText('The layout has changed since');
});

test('the oval is proved, and a missing signal is told as a story and shown in the rehearsal', async ({ page }) => {
  const errors = watchErrors(page);
  const document = learningOval();
  await openLayout(page, { ...document, features: document.features.filter((f) => !('name' in f && f.name === 'S2')) });
  await stage(page, 'Prove');
  await page.getByRole('button', { name: 'Look at every state' }).click();
  const verdicts = page.getByRole('list', { name: 'Verdicts' });
  await expect(verdicts).toContainText('Two trains can come into one block.', { timeout: 60_000 });
  await expect(verdicts).toContainText('Red train and Blue train are both in B2.');
  await expect(verdicts).toContainText('No signal holds a train at 180 cm on Oval, where Red train comes into B2.');
  await expect(page.getByRole('button', { name: 'Proof: 3 mishaps can happen' })).toBeVisible();
  const blocks = verdicts.getByRole('listitem').filter({ hasText: /^Two trains can come into one block/ });
  await blocks.first().getByRole('button', { name: 'Show it in Rehearse' }).click();
  await expect(page.getByText('On the line now')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Block B2, occupied' })).toBeVisible({ timeout: 60_000 });
  expect(errors).toEqual([]);
});

test('the remedy of a failure mends it, the verdict stands in the header, and an edit takes it back', async ({
  page,
}) => {
  const document = learningOval();
  await openLayout(page, { ...document, features: document.features.filter((f) => !('name' in f && f.name === 'S2')) });
  await expect(page.getByRole('button', { name: 'Proof: Not proved yet' })).toBeVisible();
  await stage(page, 'Prove');
  await page.getByRole('button', { name: 'Look at every state' }).click();
  await page.getByRole('button', { name: 'Place a signal at 180 cm on Oval' }).first().click();
  await expect(page.getByRole('button', { name: /^Proof: Not proved since \d\d:\d\d$/ })).toBeVisible();
  await page.getByRole('button', { name: 'Prove again' }).click();
  await expect(page.getByRole('button', { name: 'Proof: Proved for 2 trains' })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('list', { name: 'Verdicts' })).toContainText(
    'Proved: no points ever move under a train.',
  );
  await page.getByRole('checkbox', { name: /^Signals are held at stop by hand/ }).click();
  await expect(page.getByText(/What is to be tried has changed since \d\d:\d\d/)).toBeVisible();
  await page.getByRole('button', { name: 'Prove again' }).click();
  await expect(page.getByRole('button', { name: 'Proof: 1 mishap can happen' })).toBeVisible({ timeout: 60_000 });
});

test('the model is saved, and Spin reads it', async ({ page }) => {
  const errors = watchErrors(page);
  await openLayout(page, learningOval());
  await stage(page, 'Prove');
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save the model' }).click();
  const download = await saved;
  expect(download.suggestedFilename()).toBe('learning-oval.pml');
  const folder = mkdtempSync(join(tmpdir(), 'roblik-model-'));
  await download.saveAs(join(folder, 'm.pml'));
  execFileSync('spin', ['-a', 'm.pml'], { cwd: folder });
  expect(existsSync(join(folder, 'pan.c'))).toBe(true);
  rmSync(folder, { recursive: true });
  expect(errors).toEqual([]);
});

test('of a long layout only what is near the sheet is drawn; the rest is found by name and by the keys', async ({
  page,
}) => {
  await openLayout(page, generatedLine(100));
  const block = (name: string) => sheet(page).getByRole('button', { name: `Block ${name}`, exact: true });
  expect(await sheet(page).getByRole('button').count()).toBeLessThan(130);
  await expect(block('S19')).toHaveCount(0);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('Block S19');
  await page.keyboard.press('Enter');
  await expect(block('S19')).toBeInViewport();
  await expect(block('S1')).toHaveCount(0);
  await sheet(page).focus();
  await page.keyboard.press('Home');
  await expect(block('S0')).toBeInViewport();
  await page.keyboard.press('End');
  await expect(block('M19')).toBeInViewport();
});

test('Tab reaches the next thing however far it is', async ({ page }) => {
  const document = newDocument('Far apart');
  document.lines = [{ id: 'main', name: 'Main', length: cm(12_000), drawing: undefined }];
  document.referenceLine = 'main';
  document.features = [100, 5000, 11_800].map((at, i) => gap(`g${i}`, 'main', at));
  await openLayout(page, document);
  await sheet(page).focus();
  for (let i = 0; i < 14; i++) await page.keyboard.press('+');
  await page.keyboard.press('Home');
  const walk = async (key: string) => {
    const met: string[] = [];
    for (let i = 0; i < 20; i++) {
      await page.keyboard.press(key);
      const here = page.locator('svg :focus');
      if ((await here.count()) === 0) break;
      await expect(here).toBeInViewport();
      met.push((await here.getAttribute('aria-label'))!);
    }
    return met.filter((label) => label.startsWith('Gap'));
  };
  const gaps = ['Gap at 100 cm, fixed', 'Gap at 5000 cm, fixed', 'Gap at 11800 cm, fixed'];
  expect(await walk('Tab')).toEqual(gaps);
  expect(await walk('Shift+Tab')).toEqual(gaps.toReversed());
  await expect(sheet(page)).toBeFocused();
});

test('anything on a line is dragged along it with its distance shown, snaps to a gap, and moves by the arrow keys', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const oval = learningOval();
  const spot = { line: 'oval', certainty: 'tentative' as const };
  oval.features = oval.features.filter(({ id }) => id !== 's-S2');
  oval.features.push({ ...spot, id: 'x1', kind: 'landmark', at: cm(110), name: 'Oak' });
  oval.features.push({ ...spot, id: 'x2', kind: 'platform', at: cm(200), to: cm(260), name: 'Halt' });
  const id = await openLayout(page, oval);
  const thing = (name: RegExp) => sheet(page).getByRole('button', { name });
  const atOf = async (of: string) => {
    const one = (await savedDocument(page, id)).features.find((feature) => feature.id === of)!;
    return [one.at, ...('to' in one ? [one.to] : [])].map(({ tenthUm }) => tenthUm / 100_000);
  };
  const boxOf = async (name: RegExp) => (await thing(name).boundingBox())!;
  const middle = async (name: RegExp) => {
    const { x, y, width, height } = await boxOf(name);
    return { x: x + width / 2, y: y + height / 2 };
  };
  const [oak, gap] = [await middle(/^Landmark Oak/), await middle(/^Gap at 180 cm/)];
  await page.mouse.move(oak.x, oak.y);
  await page.mouse.down();
  await page.mouse.move(oak.x + 20, oak.y, { steps: 4 });
  await expect(page.locator('[data-pointed]')).toContainText(' cm');
  await page.mouse.move(gap.x + 3, oak.y, { steps: 6 });
  await expect(page.locator('[data-pointed]')).toContainText('180 cm');
  await page.mouse.up();
  await expect(page.locator('[data-pointed]')).toHaveCount(0);
  expect(await atOf('x1')).toEqual([180]);
  await page.keyboard.press('Control+z');
  expect(await atOf('x1')).toEqual([110]);

  const halt = await middle(/^Platform Halt/);
  await page.mouse.move(halt.x, halt.y);
  await page.mouse.down();
  await page.mouse.move(halt.x + 2000, halt.y, { steps: 4 });
  await page.mouse.up();
  expect(await atOf('x2')).toEqual([420, 480]);

  await thing(/^Landmark Oak/).focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowLeft');
  expect(await atOf('x1')).toEqual([101]);
  await thing(/^Landmark Oak/).click();
  await expect(page.getByRole('complementary', { name: 'Reasoning' })).toContainText('Oak');

  await thing(/^Signal S1/).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('alertdialog')).toContainText('Signal S1');
  await page.getByRole('button', { name: 'Move it' }).click();
  expect(await atOf('s-S1')).toEqual([61]);
  expect(errors).toEqual([]);
});

test('what is only an idea is drawn in pencil, and in ink once it is done', async ({ page }) => {
  const oval = learningOval();
  oval.features = oval.features.map((one) => (one.id === 'g1' ? { ...one, certainty: 'tentative' as const } : one));
  await openLayout(page, oval);
  const bar = (at: string) =>
    sheet(page)
      .getByRole('button', { name: new RegExp(`^Gap at ${at} cm`) })
      .locator('path')
      .last();
  await expect(bar('60')).toHaveAttribute('stroke', 'var(--ink3)');
  await expect(bar('180')).toHaveAttribute('stroke', 'var(--ink)');
  await expect(page.getByRole('region', { name: 'Key' })).toContainText('Only an idea');
  await page.getByRole('button', { name: '1 still tentative' }).click();
  await page.getByRole('button', { name: /^It is done: Gap at 60 cm/ }).click();
  await expect(bar('60')).toHaveAttribute('stroke', 'var(--ink)');
  await expect(page.getByRole('region', { name: 'Key' })).not.toContainText('Only an idea');
});

test('several things are chosen with Ctrl, by click and by key, then moved, numbered and deleted together', async ({
  page,
}) => {
  const errors = watchErrors(page);
  const id = await openLayout(page, learningOval());
  const sheet = page.getByRole('group', { name: /^Line sheet/ });
  const gap = (at: string) => sheet.getByRole('button', { name: new RegExp(`^Gap at ${at} cm`) });
  const panel = page.getByRole('complementary', { name: 'Reasoning' });
  await gap('60').click();
  await gap('180').click({ modifiers: ['Control'] });
  await expect(panel).toContainText('2 things chosen');
  for (const at of ['60', '180']) await expect(gap(at).locator('[stroke="var(--accent)"]')).toHaveCount(1);
  await expect(gap('300').locator('[stroke="var(--accent)"]')).toHaveCount(0);
  await gap('300').focus();
  await page.keyboard.press('Control+Enter');
  await expect(panel).toContainText('3 things chosen');
  await panel.getByRole('button', { name: 'Leave out Gap at 300 cm on Oval' }).click();
  await panel.getByRole('textbox', { name: 'By' }).fill('far');
  await panel.getByRole('button', { name: 'eastbound' }).click();
  await expect(panel.getByRole('alert')).toContainText('I cannot read “far”');
  await panel.getByRole('textbox', { name: 'By' }).fill('5');
  await panel.getByRole('button', { name: 'eastbound' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('Gap at 180 cm on Oval: fixed');
  await page.getByRole('button', { name: 'Move it' }).click();
  await expect(gap('65')).toBeVisible();
  await expect(gap('185')).toBeVisible();
  await expect(gap('300')).toBeVisible();

  await sheet.getByRole('button', { name: /^Signal S1/ }).click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Choose the 4 of its kind on this line' }).click();
  await expect(panel).toContainText('4 things chosen');
  await panel.getByRole('textbox', { name: 'Begin with' }).fill('E');
  await panel.getByRole('textbox', { name: 'First number' }).fill('11');
  await panel.getByRole('button', { name: 'Number them' }).click();
  for (const name of ['E11', 'E12', 'E13', 'E14'])
    await expect(sheet.getByRole('button', { name: new RegExp(`^Signal ${name}`) })).toBeVisible();
  await panel.getByRole('button', { name: 'Delete them' }).click();
  await expect(page.getByRole('alertdialog')).toContainText('Signal E11');
  await page.getByRole('button', { name: 'Delete them' }).last().click();
  expect((await savedDocument(page, id)).features.filter(({ kind }) => kind === 'signal')).toEqual([]);
  await page.keyboard.press('Control+z');
  expect((await savedDocument(page, id)).features.filter(({ kind }) => kind === 'signal')).toHaveLength(4);
  expect(errors).toEqual([]);
});
