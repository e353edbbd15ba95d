import { expect, type Page, test } from '@playwright/test';
import { type LayoutDocument, readDocument } from '../../src/core/survey';
import { learningOval } from '../../src/demo/learning-oval';
import { randomLine } from '../unit/random-line';
import { ofSweep } from '../unit/sweep';
import { journalsOf, replays } from './journals';
import { choose, openLayout, stage, watchErrors } from './open';

test.describe.configure({ mode: 'parallel' });

/** Small and repeatable, so that a seed names a user. */
function chance(seed: number) {
  let state = seed * 2_654_435_761;
  const next = () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
  return { next, pick: <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]! };
}

const SEEDS = Number(process.env.ROBLIK_TIRELESS_SEEDS ?? ofSweep(4));
const WIDE = process.env.ROBLIK_TIRELESS_WIDE === '1';
const ACTIONS = Number(process.env.ROBLIK_TIRELESS_ACTIONS ?? 100);

/** What the sheet shows when all of it is shown, letter for letter. */
async function sheetText(page: Page): Promise<string> {
  const sheet = page.locator('main svg[role=group]').first();
  await sheet.focus();
  await page.keyboard.press('0');
  return sheet.evaluate((svg) =>
    [...svg.querySelectorAll('*')]
      /** What is pointed at is no part of the layout. */
      .filter((element) => !element.closest('[data-pointed]'))
      .map((element) => {
        const attributes = [...element.attributes]
          .map(({ name, value }) => `${name}=${name === 'style' ? (element as SVGElement).style.cssText : value}`)
          .sort();
        return `${element.tagName} ${attributes.join(' ')} ${element.children.length === 0 ? element.textContent : ''}`;
      })
      .join('\n'),
  );
}

/** Where two texts part, with a little around it. */
function parting(a: string, b: string): string {
  let at = 0;
  while (at < a.length && a[at] === b[at]) at += 1;
  return a === b ? '' : `… ${a.slice(at - 80, at + 80)} … became … ${b.slice(at - 80, at + 80)} …`;
}

const undoButton = (page: Page) => page.locator('header button').filter({ has: page.locator('svg.lucide-undo-2') });

/** Everything that a user does by chance, through the interface alone. None of them may be impossible for long. */
function actions(
  page: Page,
  { next, pick }: ReturnType<typeof chance>,
  other: () => Promise<Page>,
): Record<string, () => Promise<void>> {
  /** Whatever window comes up meanwhile, the tools of Survey are there in the end. */
  const survey = () =>
    expect(async () => {
      const tool = page.getByRole('radio', { name: 'Gap', exact: true });
      if ((await tool.count()) > 0) return;
      if ((await page.getByRole('dialog', { name: 'History' }).count()) > 0) await page.keyboard.press('Escape');
      await stage(page, 'Survey');
      const close = page.getByRole('button', { name: 'Close the selection' });
      if ((await close.count()) > 0) await close.first().click();
      await expect(tool).toBeVisible({ timeout: 1000 });
    }).toPass({ timeout: 40_000 });
  const cm = (low: number, high: number) => String(Math.round(low + next() * (high - low)));
  const thing = async () => {
    const all = page.locator('main svg[role=group]').first().getByRole('button');
    const count = await all.count();
    const one = all.nth(Math.floor(next() * count));
    if (count > 0) await unlessAsked(page, () => one.dispatchEvent('click', undefined, { timeout: 3000 }));
  };
  /** Asked for, since a run with them takes twice as long; they have shown two losses that have tests of their own now. */
  const wide = {
    async drag() {
      await survey();
      const all = page.locator('main svg[role=group]').first().locator('[data-thing]');
      const count = await all.count();
      if (count === 0) return;
      const box = await all.nth(Math.floor(next() * count)).boundingBox({ timeout: 3000 });
      if (!box) return;
      const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
      await page.mouse.move(x, y);
      await page.mouse.down();
      await page.mouse.move(x + (next() - 0.5) * 300, y, { steps: 3 });
      await page.mouse.up();
    },
    async say() {
      await survey();
      const [at, to] = [cm(0, 300), cm(200, 480)];
      const phrase = pick([
        `platform ${at} to ${to}`,
        `curve left r 60 from ${at} to ${to}`,
        `grade 2% ${at} to ${to}`,
        `feeder ${at} booster ${pick(['East', 'West'])}`,
        `siding ${at} long 60`,
        `taped ${at} to ${to} is 90`,
        `signal up ${at}`,
        `nonsense ${at}`,
      ]);
      await page.getByPlaceholder(/^gap 96/).fill(phrase);
      await page.keyboard.press('Enter');
    },
  };
  return {
    async addCut() {
      await survey();
      await page.getByRole('radio', { name: pick(['Gap', 'Block mark']), exact: true }).click();
      await page.getByRole('textbox', { name: 'At', exact: true }).fill(cm(5, 470));
      await page.getByRole('button', { name: /^Add the (gap|block mark)/ }).click();
    },
    async addSignal() {
      await survey();
      await page.getByRole('radio', { name: 'Signal', exact: true }).click();
      await page.getByRole('textbox', { name: 'At', exact: true }).fill(cm(5, 470));
      await page.getByRole('button', { name: 'Add the signal' }).click();
    },
    async addTurnout() {
      await survey();
      await page.getByRole('radio', { name: 'Turnout', exact: true }).click();
      const at = 20 + next() * 200;
      await page.getByLabel('Blade tips at', { exact: true }).fill(at.toFixed(0));
      await page.getByLabel('Length of that track').fill(cm(60, 200));
      const back = page.getByLabel('Blade tips of the second turnout at');
      if ((await back.count()) > 0) await back.fill((at + 40 + next() * 150).toFixed(0));
      await page.getByRole('button', { name: 'Add the turnout' }).click();
    },
    select: thing,
    async nudge() {
      const cuts = page.getByRole('button', { name: /^(Gap|Block mark) at/ });
      const count = await cuts.count();
      if (count === 0) return;
      const one = cuts.nth(Math.floor(next() * count));
      await unlessAsked(page, () => one.focus({ timeout: 3000 }));
      await page.keyboard.press(pick(['ArrowLeft', 'ArrowRight', 'Shift+ArrowRight', 'Alt+ArrowLeft']));
    },
    async remove() {
      await thing();
      const gone = page.getByRole('complementary').getByRole('button', { name: /^Delete/ });
      if ((await gone.count()) > 0) await gone.first().click();
    },
    async rename() {
      await page.getByLabel('Name of the layout').fill(`Layout ${cm(0, 99_999)}`);
      await page.keyboard.press('Enter');
    },
    /** Signals are placed as proposed, shown by another system, worked otherwise, and wired. */
    async signals() {
      await page.keyboard.press('Escape');
      await stage(page, 'Signal');
      const place = page.getByRole('button', { name: /^Place (it|these)/ });
      if (next() < 0.4) {
        if ((await place.count()) > 0) await place.first().click();
        return;
      }
      const heads = page.getByRole('button', { name: /^Signal / });
      const count = await heads.count();
      if (count === 0) return;
      await unlessAsked(page, () => heads.nth(Math.floor(next() * count)).focus({ timeout: 3000 }));
      await page.keyboard.press('Enter');
      const worked = page.getByRole('complementary').getByRole('checkbox');
      if ((await page.getByRole('combobox', { name: 'What it can show' }).count()) === 0) return;
      if (next() < 0.5) await worked.nth(Math.floor(next() * 6)).click();
      else
        await choose(page, 'What it can show', pick(['Two aspects', 'Four aspects', 'Speed signals', 'Junction arms']));
    },
    undo: () => page.keyboard.press('Control+z'),
    redo: () => page.keyboard.press('Control+Shift+z'),
    async go() {
      await stage(page, pick(['Survey', 'Traffic', 'Detect', 'Signal', 'Lock', 'Prove', 'Rehearse'] as const));
    },
    async zoom() {
      await unlessAsked(page, () => page.locator('main svg[role=group]').first().focus({ timeout: 3000 }));
      await page.keyboard.press(pick(['+', '-', '0', 'Home', 'End', '[', ']', 'n', 'u']));
    },
    async reload() {
      if (next() > 0.3) return;
      await page.reload();
      await expect(page.getByLabel('Name of the layout')).toBeVisible();
    },
    async escape() {
      await page.keyboard.press('Escape');
    },
    async restore() {
      await page.keyboard.press('Escape');
      await page.getByRole('button', { name: 'History' }).click();
      const versions = page.getByRole('list', { name: 'Kept versions' }).getByRole('button');
      const count = await versions.count();
      if (count > 0) await versions.nth(Math.floor(next() * count)).click();
      const back = page.getByRole('button', { name: 'Go back to this version' });
      /** No version to go back to, or a window that came up meanwhile and takes it away. */
      const ready = (await back.count()) > 0 && (await back.isEnabled({ timeout: 3000 }).catch(() => false));
      if (ready) await back.click();
      else await page.keyboard.press('Escape');
    },
    /** The same layout in another window, where something is added or taken back. */
    async otherWindow() {
      const two = await other();
      await two.bringToFront();
      if (next() < 0.3) await two.keyboard.press('Control+z');
      else {
        await two.keyboard.press('Escape');
        await stage(two, 'Survey');
        if ((await two.getByRole('radio', { name: 'Gap', exact: true }).count()) === 0) return page.bringToFront();
        await two.getByRole('radio', { name: 'Gap', exact: true }).click();
        await two.getByRole('textbox', { name: 'At', exact: true }).fill(cm(5, 470));
        await two.getByRole('button', { name: /^Add the gap/ }).click();
      }
      await settled(two);
      await page.bringToFront();
    },
    ...(WIDE ? wide : {}),
  };
}

/** Whatever two windows disagree about is settled in one of the three ways, whenever the window that asks comes up. */
async function settlesByChance(page: Page, { pick }: ReturnType<typeof chance>, asked: () => void): Promise<void> {
  const asks = page.getByRole('dialog', { name: 'Changed in another window too' });
  await page.addLocatorHandler(asks, async () => {
    asked();
    const ways = asks.getByRole('button', { name: /^(Keep what is chosen|Take the other|Keep this)/ });
    const count = await ways.count();
    /** It may be settled by what was done just before. */
    if (count === 0) return;
    await ways
      .nth(pick([0, 1, 2]) % count)
      .click({ timeout: 5000 })
      .catch(() => {});
    /** What does not fit together is refused, and what was saved once more is asked anew; one whole version always fits in the end. */
    await expect(async () => {
      if ((await asks.count()) === 0) return;
      await asks.getByRole('button', { name: /^Take the other/ }).click({ timeout: 3000 });
      await expect(asks).toHaveCount(0, { timeout: 3000 });
    }).toPass({ timeout: 30_000 });
  });
}
/** Whether something fixed moves is answered by chance too. */
async function movesByChance(page: Page, { pick }: ReturnType<typeof chance>): Promise<void> {
  const ask = page.getByRole('alertdialog', { name: 'Move what is fixed?' });
  await page.addLocatorHandler(ask, async () => {
    await ask
      .getByRole('button', { name: pick(['Move it', 'Leave it']) })
      .click({ timeout: 5000 })
      .catch(() => {});
  });
}
/** Several things at once are deleted only when somebody says so. */
async function deletesByChance(page: Page, { pick }: ReturnType<typeof chance>): Promise<void> {
  const ask = page.getByRole('alertdialog', { name: /^Delete \d+ things\?/ });
  await page.addLocatorHandler(ask, async () => {
    await ask
      .getByRole('button', { name: pick(['Delete them', 'Keep them']) })
      .click({ timeout: 5000 })
      .catch(() => {});
  });
}
/** Something that can only be done while no window asks: when one has come up, that is settled instead. */
async function unlessAsked(page: Page, work: () => Promise<void>): Promise<void> {
  await work().catch(() => page.getByRole('banner').getByRole('status').click({ trial: true }));
}
/** Saved, with nothing left to settle. */
async function settled(page: Page): Promise<void> {
  await expect(async () => {
    await page.getByRole('banner').getByRole('status').click({ timeout: 2000, trial: true });
    await expect(page.getByText('Saved', { exact: true })).toBeVisible({ timeout: 2000 });
  }).toPass({ timeout: 40_000 });
}

/**
 * Takes back as many edits as there are, and does them again: the document and the sheet are to the letter what they were. An edit
 * comes first, so that what another window has saved meanwhile is settled before.
 */
async function undoAllAndBack(page: Page, edit: () => Promise<void>, stored: () => Promise<unknown>): Promise<void> {
  await edit();
  await stage(page, 'Survey');
  const close = page.getByRole('button', { name: 'Close the selection' });
  if ((await close.count()) > 0) await close.first().click();
  await settled(page);
  await expect(page.getByRole('contentinfo')).not.toContainText('Checking');
  const [document, before] = [await stored(), await sheetText(page)];
  let steps = 0;
  while (steps < 6 && (await undoButton(page).isEnabled())) {
    await undoButton(page).click();
    steps += 1;
  }
  for (let i = 0; i < steps; i++) await page.getByRole('button', { name: /^Redo: / }).click();
  await settled(page);
  await expect(page.getByRole('contentinfo')).not.toContainText('Checking');
  expect(await stored()).toEqual(document);
  await expect.poll(async () => parting(before, await sheetText(page))).toBe('');
}

for (let seed = 1; seed <= SEEDS; seed++)
  test(`a tireless user, number ${seed}: nothing breaks, nothing is lost, every undo comes back to the letter`, async ({
    page,
    context,
  }) => {
    test.setTimeout(3_600_000);
    const errors = watchErrors(page);
    const dice = chance(seed);
    let two: Page | undefined;
    let interruptions = 0;
    const asked = () => {
      interruptions += 1;
    };
    const other = async () => {
      if (two) return two;
      two = await context.newPage();
      watchErrors(two, errors);
      await movesByChance(two, dice);
      await deletesByChance(two, dice);
      await settlesByChance(two, dice, asked);
      await two.goto(page.url());
      await settled(two);
      return two;
    };
    context.setDefaultTimeout(20_000);
    await movesByChance(page, dice);
    await deletesByChance(page, dice);
    await settlesByChance(page, dice, asked);
    const document: LayoutDocument = seed % 2 ? learningOval() : randomLine(seed);
    const id = await openLayout(page, document);
    const stored = async () => {
      const answer = await page.request.get(`/api/layouts/${id}`);
      return ((await answer.json()) as { document: unknown }).document;
    };
    const all = actions(page, dice, other);
    const done: string[] = [];
    for (let i = 0; i < ACTIONS; i++) {
      /** A window that is still open because another came over it while it was about to be closed. */
      if ((await page.getByRole('dialog', { name: 'History' }).count()) > 0) await page.keyboard.press('Escape');
      const name = dice.pick(Object.keys(all));
      done.push(name);
      /** What a window that came up has cut short may come to nothing. */
      const before = interruptions;
      await all[name]!().catch((error) => {
        if (interruptions === before) throw error;
      });
      await page.bringToFront();
      for (const window of two ? [page, two] : [page])
        await expect(window.getByText('This page broke'), done.slice(-6).join(', ')).toHaveCount(0);
      expect(errors, done.slice(-6).join(', ')).toEqual([]);
      if (i % 50 === 49) await undoAllAndBack(page, all.rename!, stored);
    }
    await all.rename!();
    await settled(page);
    const last = await stored();
    const reading = readDocument(last);
    expect(reading.ok ? [] : reading.faults).toEqual([]);
    const kept = await journalsOf(page, id);
    expect(kept.map(({ document: of }) => of)).toContainEqual(last);
    for (const one of kept) replays(one);
  });
